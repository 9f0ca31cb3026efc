import { useState } from 'react';

const KEY = 'energy';

interface Kept {
  hours: number;
  tariff: number;
}

function kept(): Kept {
  try {
    const found = JSON.parse(localStorage.getItem(KEY) ?? '') as Partial<Kept>;
    return { hours: Number(found.hours) || 3, tariff: Number(found.tariff) || 0 };
  } catch {
    return { hours: 3, tariff: 0 };
  }
}

/**
 * Hours a day and the tariff, hundredths of the currency a kWh: the installer's own habit, kept on this
 * device.
 */
export function useEnergy() {
  const [state, setState] = useState(kept);
  const set = (more: Partial<Kept>) => {
    const next = { ...state, ...more };
    localStorage.setItem(KEY, JSON.stringify(next));
    setState(next);
  };
  return {
    ...state,
    setHours: (hours: number) => set({ hours }),
    setTariff: (tariff: number) => set({ tariff }),
  };
}
