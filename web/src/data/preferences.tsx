import { type PracticeId, profileOf, type UnitSystem } from '@inventario/core';
import { createContext, type ReactNode, useContext, useMemo, useState } from 'react';

interface Preferences {
  theme: 'light' | 'dark';
  setTheme: (theme: 'light' | 'dark') => void;
  /** null: as the practice has them. */
  units: UnitSystem | null;
  setUnits: (units: UnitSystem | null) => void;
  /** Single letters act; off for those whose speech or trembling hand would press them. */
  singleKeys: boolean;
  setSingleKeys: (on: boolean) => void;
}

const Context = createContext<Preferences | null>(null);

/** What this device's user prefers; kept on the device. */
export function PreferencesProvider({ children }: { children: ReactNode }) {
  const [theme, setTheme] = useState<'light' | 'dark'>(
    document.documentElement.dataset.theme === 'dark' ? 'dark' : 'light',
  );
  const [units, setUnits] = useState<UnitSystem | null>(() => {
    const kept = localStorage.getItem('units');
    return kept === 'inch' || kept === 'metric' ? kept : null;
  });
  const [singleKeys, setSingleKeys] = useState(() => localStorage.getItem('single-keys') !== 'off');
  const value = useMemo<Preferences>(
    () => ({
      theme,
      setTheme: (next) => {
        document.documentElement.dataset.theme = next;
        localStorage.setItem('theme', next);
        setTheme(next);
      },
      units,
      setUnits: (next) => {
        if (next) localStorage.setItem('units', next);
        else localStorage.removeItem('units');
        setUnits(next);
      },
      singleKeys,
      setSingleKeys: (on) => {
        localStorage.setItem('single-keys', on ? 'on' : 'off');
        setSingleKeys(on);
      },
    }),
    [theme, units, singleKeys],
  );
  return <Context.Provider value={value}>{children}</Context.Provider>;
}

export function usePreferences(): Preferences {
  const value = useContext(Context);
  if (!value)
    throw new Error('usePreferences is called outside a PreferencesProvider: wrap the application in one');
  return value;
}

/** The units to show: the user's, else the practice's. */
export function useUnits(job: { practice: PracticeId }): UnitSystem {
  return usePreferences().units ?? profileOf(job).units;
}
