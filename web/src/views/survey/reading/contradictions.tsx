import type { Identified } from '../../../data/engines.worker.js';

/** Readings that cannot all be true: shown, never averaged away. */
export function Contradictions({ conflicts }: { conflicts: Identified['conflicts'] }) {
  return conflicts.map((conflict) => (
    <div key={conflict.readingIds.join()} role="alert" className="rounded-md border-2 border-stop p-3">
      <p className="font-semibold text-stop">
        {conflict.open ? 'Readings contradict each other' : 'A contradiction, settled'}
      </p>
      <p className="text-sm">{conflict.message}</p>
    </div>
  ));
}
