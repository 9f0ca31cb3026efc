import { type Conflict, conflictFacts } from '@inventario/core';
import { useJob } from '../data/job-context.js';
import { useSay } from '../ui/say.js';

/** Undo and redo that say what stays because somebody else changed it since. */
export function useUndo(): { undo: () => void; redo: () => void } {
  const { job, undo, redo } = useJob();
  const say = useSay();
  const tell = (left: Conflict[]) => {
    const names = [...new Set(left.map((conflict) => conflictFacts(job, conflict).what))];
    if (names.length > 0) say(`Left as others have changed it since: ${names.join('; ')}.`);
  };
  return { undo: () => tell(undo()), redo: () => tell(redo()) };
}
