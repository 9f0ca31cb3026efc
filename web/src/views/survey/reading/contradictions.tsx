import type { Identified } from '../../../data/engines.worker.js';

/** Readings that cannot all be true: shown, never averaged away. */
export function Contradictions({
  conflicts,
  folded = false,
}: {
  conflicts: Identified['conflicts'];
  /** One line each, opened at a touch. */
  folded?: boolean;
}) {
  if (folded)
    return conflicts.map((conflict) => (
      <details key={conflict.readingIds.join()} className="rounded-md border-2 border-stop">
        <summary className="flex min-h-11 items-center px-3 font-semibold text-stop">
          Readings contradict each other. Which?
        </summary>
        <p className="px-3 pb-2 text-sm">{conflict.message}</p>
      </details>
    ));
  return conflicts.map((conflict) => (
    <div key={conflict.readingIds.join()} role="alert" className="rounded-md border-2 border-stop p-3">
      <p className="font-semibold text-stop">
        {conflict.open ? 'Readings contradict each other' : 'A contradiction, settled'}
      </p>
      <p className="text-sm">{conflict.message}</p>
    </div>
  ));
}
