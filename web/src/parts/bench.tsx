import { ListTree, type LucideIcon, Scale } from 'lucide-react';
import { createContext, type ReactNode, useContext, useEffect } from 'react';
import { Button } from '../ui/button.js';
import { EdgeSheet } from '../ui/dialog.js';
import { Scrolls } from '../ui/scrolls.js';

interface Sheets {
  open: 'walk' | 'reckoning' | null;
  setOpen: (open: Sheets['open']) => void;
  /** What the page is of; empty outside a job. */
  jobName: string;
}

export const SheetsContext = createContext<Sheets>({ open: null, setOpen: () => {}, jobName: '' });

/**
 * The bench with the reckoning beside it. On a phone the bench fills the screen and the reckoning comes from
 * the right edge. Below it stands one bar: the next action where the view has one, else what the reckoning
 * would say in a few words.
 */
export function Bench({
  title,
  glance,
  reckoning,
  bar,
  children,
}: {
  title: string;
  glance: string;
  reckoning: ReactNode;
  /** What is next, and its keys. */
  bar?: { head: ReactNode; keys: ReactNode };
  children: ReactNode;
}) {
  const { open, setOpen, jobName } = useContext(SheetsContext);
  useTitle(title, jobName);
  return (
    <>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col print:block">
        <main
          id="bench"
          tabIndex={-1}
          aria-label={title}
          className="relative min-h-0 flex-1 overflow-y-auto p-2 outline-none sm:p-3 lg:p-4 print:overflow-visible print:p-0"
        >
          {children}
        </main>
        <div
          className={
            bar
              ? 'z-20 flex max-h-[62dvh] shrink-0 flex-col gap-2 overflow-y-auto border-t-2 border-ink bg-ground p-2 lg:px-4 print:hidden'
              : 'z-20 shrink-0 border-t border-rule bg-ground p-2 lg:hidden print:hidden'
          }
        >
          <div className="flex min-h-11 items-center gap-2">
            <SheetKey icon={ListTree} onClick={() => setOpen('walk')}>
              Walk
            </SheetKey>
            <div className="min-w-0 flex-1">
              {bar?.head ?? <p className="line-clamp-2 text-center leading-tight">{glance}</p>}
            </div>
            <SheetKey icon={Scale} onClick={() => setOpen('reckoning')}>
              Why
            </SheetKey>
          </div>
          {bar?.keys}
        </div>
      </div>
      <Scrolls
        as="aside"
        label="Reckoning"
        className="relative hidden w-80 shrink-0 overflow-y-auto border-l border-rule p-3 lg:block print:hidden"
      >
        {reckoning}
      </Scrolls>
      <EdgeSheet title="Why" side="right" open={open === 'reckoning'} onClose={() => setOpen(null)}>
        <div className="p-3">{reckoning}</div>
      </EdgeSheet>
    </>
  );
}

/** Brings what stands beside the bench on a wide screen. */
function SheetKey({ icon, children, onClick }: { icon: LucideIcon; children: string; onClick: () => void }) {
  return (
    <Button className="lg:hidden" icon={icon} iconOnly title={children} onClick={onClick}>
      {children}
    </Button>
  );
}

/** The page's own title, so that tabs and the history tell pages apart. */
export function useTitle(title: string, jobName = ''): void {
  useEffect(() => {
    document.title = [title, jobName, 'Inventario'].filter(Boolean).join(' · ');
  }, [title, jobName]);
}
