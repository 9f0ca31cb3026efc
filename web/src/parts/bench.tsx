import { ListTree, Scale } from 'lucide-react';
import { createContext, type ReactNode, useContext } from 'react';
import { Button } from '../ui/button.js';
import { EdgeSheet } from '../ui/dialog.js';

interface Sheets {
  open: 'walk' | 'reckoning' | null;
  setOpen: (open: Sheets['open']) => void;
}

export const SheetsContext = createContext<Sheets>({ open: null, setOpen: () => {} });

/**
 * The bench with the reckoning beside it. On a phone the bench fills the screen, the reckoning comes from the
 * right edge, and a bar at the bottom says in a few words what it would say.
 */
export function Bench({
  title,
  glance,
  reckoning,
  children,
}: {
  title: string;
  glance: string;
  reckoning: ReactNode;
  children: ReactNode;
}) {
  const { open, setOpen } = useContext(SheetsContext);
  return (
    <>
      <main
        id="bench"
        aria-label={title}
        className="relative min-w-0 flex-1 overflow-y-auto p-3 pb-24 lg:p-4"
      >
        {children}
      </main>
      <aside
        aria-label="Reckoning"
        className="relative hidden w-80 shrink-0 overflow-y-auto border-l border-rule p-3 lg:block"
      >
        {reckoning}
      </aside>
      <EdgeSheet title="Reckoning" side="right" open={open === 'reckoning'} onClose={() => setOpen(null)}>
        <div className="p-3">{reckoning}</div>
      </EdgeSheet>
      <div className="fixed inset-x-0 bottom-0 z-20 flex items-center gap-2 border-t border-rule bg-ground p-2 lg:hidden">
        <Button icon={ListTree} onClick={() => setOpen('walk')}>
          Walk
        </Button>
        <p className="line-clamp-2 min-w-0 flex-1 text-center text-sm leading-tight">{glance}</p>
        <Button icon={Scale} onClick={() => setOpen('reckoning')}>
          Why
        </Button>
      </div>
    </>
  );
}
