import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react';
import { Button } from './button.js';

interface Saying {
  text: string;
  action?: { label: string; run: () => void };
}

const Context = createContext<(saying: Saying) => void>(() => {});

/**
 * Short word about what was just done, with the way back: at the foot of a desk's screen, at the head of a
 * phone's, whose foot is the bar.
 */
export function SayProvider({ children }: { children: ReactNode }) {
  const [saying, setSaying] = useState<Saying | null>(null);
  useEffect(() => {
    if (!saying) return;
    const timer = setTimeout(() => setSaying(null), 12_000);
    return () => clearTimeout(timer);
  }, [saying]);
  const say = useCallback((next: Saying) => setSaying(next), []);
  const action = saying?.action;
  return (
    <Context.Provider value={say}>
      {children}
      <div
        role="status"
        className="pointer-events-none fixed inset-x-2 top-26 z-30 flex justify-center lg:top-auto lg:bottom-4 print:hidden"
      >
        {saying && (
          <div className="pointer-events-auto flex min-h-12 items-center gap-3 rounded-md bg-strong px-4 text-onstrong shadow-lg">
            <span>{saying.text}</span>
            {action && (
              <Button
                kind="quiet"
                className="font-semibold text-onstrong underline hover:bg-transparent"
                onClick={() => {
                  setSaying(null);
                  action.run();
                }}
              >
                {action.label}
              </Button>
            )}
          </div>
        )}
      </div>
    </Context.Provider>
  );
}

export function useSay(): (text: string, action?: Saying['action']) => void {
  const say = useContext(Context);
  return useMemo(() => (text, action) => say({ text, ...(action ? { action } : {}) }), [say]);
}
