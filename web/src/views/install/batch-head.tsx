import { type BatchInHand, durationText, plural, type SheetBatch } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { useJobPower } from '../../data/power.js';
import { PowerShape } from '../../parts/power-shape.js';
import { timeOf } from '../../parts/times.js';
import { classes } from '../../ui/classes.js';

const STATE = { on: 'on', off: 'off, not proved by that', unknown: 'not known' } as const;

/** The circuits of a batch with their state, in words and shape; what it takes, or since when it is begun. */
export function BatchHead({
  batch,
  inHand,
  left,
}: {
  batch: SheetBatch | null;
  inHand?: BatchInHand;
  /** Batches after it. */
  left: number | null;
}) {
  const { known } = useJob();
  const { circuits } = useJobPower();
  const boxIds = batch?.boxIds ?? inHand?.boxIds ?? [];
  const ids = batch?.circuitIds ?? [
    ...new Set(boxIds.flatMap((id) => known.boxes.get(id)?.circuitIds ?? [])),
  ];
  const names = boxIds.flatMap((id) => known.boxes.get(id)?.name ?? []);
  return (
    <section aria-label="Power of this batch" className="mb-3 rounded-lg border-2 border-rule bg-sheet p-3">
      <ul className="flex flex-wrap gap-x-5 gap-y-1.5">
        {ids.map((id) => {
          const circuit = known.circuits.get(id);
          const state = circuits.find(({ circuitId }) => circuitId === id)?.state ?? 'unknown';
          return (
            <li key={id} className={classes('flex items-center gap-2', state === 'on' && 'text-live')}>
              <PowerShape state={state} />
              <span>
                <strong>
                  Breaker {circuit?.breaker}, {circuit?.label}
                </strong>
                : {STATE[state]}
              </span>
            </li>
          );
        })}
      </ul>
      <p className="mt-1.5 leading-snug">
        {plural(names.length, 'box', 'boxes')}: {names.join(', ')}.
        {batch && ` About ${durationText(batch.minutes)}, ${plural(batch.panelTrips, 'trip')} to the panel.`}
        {left !== null && left > 0 && ` ${plural(left, 'batch', 'batches')} after it.`}
        {inHand && Number.isFinite(inHand.begunAt) && ` ${sinceWords(inHand.begunAt)}`}
      </p>
    </section>
  );
}

/** `Begun at 09:12, 47 min ago.` */
function sinceWords(begunAt: number): string {
  const minutes = Math.max(0, (Date.now() - begunAt) / 60_000);
  return `Begun ${timeOf(new Date(begunAt).toISOString())}, ${durationText(minutes)} ago.`;
}
