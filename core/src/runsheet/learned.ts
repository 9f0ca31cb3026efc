import { eventRecord, type Logged, mountedBoxes } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import { perObject } from '../units/kept.js';
import { kindOfBox } from './box-kind.js';

/** A pause longer than this was no work at the box, minutes. */
const LONGEST_PAUSE = 45;
/** A box with fewer entries than this was recorded after the work, not during it. */
const FEWEST_ENTRIES = 4;
/** What is written down while hands are at a box. */
const AT_THE_BOX = ['proved', 'stands', 'wired', 'mounted'] as const;

/**
 * Minutes that boxes of each kind took on this job, by its own record: the middle of those that were recorded
 * while they were worked on, from the first proof to the plate. A kind without one is left to the times for
 * planning.
 */
export const learnedTimes = perObject((known: JobLookup): ReadonlyMap<string, number> => {
  const took = recordedMinutes(known);
  const byKind = new Map<string, number[]>();
  for (const box of known.job.boxes) {
    const minutes = took.get(box.id);
    if (minutes === undefined) continue;
    const kind = kindOfBox(box, known);
    byKind.set(kind, [...(byKind.get(kind) ?? []), minutes]);
  }
  return new Map([...byKind].map(([kind, list]) => [kind, middle(list)]));
});

/**
 * Minutes of work on each mounted box. The clock runs by the entries themselves: what lies between two of one
 * pair of hands belongs to the box of the later one, so that boxes worked in turn share the day. Trips to the
 * panel are entries too, and belong to no box.
 */
export function recordedMinutes({ job }: Pick<JobLookup, 'job'>): ReadonlyMap<string, number> {
  const record = eventRecord(job);
  const entries = [
    ...job.boxes.flatMap(({ id }) => AT_THE_BOX.flatMap((kind) => record.standing(kind, id))),
    ...job.circuits.flatMap(({ id }) => record.standing('switched', id)),
  ]
    .filter(({ at }) => Number.isFinite(at))
    .sort((a, b) => a.at - b.at || a.index - b.index);
  const last = new Map<string, Logged>();
  const sums = new Map<string, { minutes: number; entries: number }>();
  for (const entry of entries) {
    const hands = String(entry.event.by ?? '');
    const before = last.get(hands);
    last.set(hands, entry);
    const { boxId } = entry.event;
    if (boxId === undefined) continue;
    const pause = before ? (entry.at - before.at) / 60_000 : 0;
    const sum = sums.get(boxId) ?? { minutes: 0, entries: 0 };
    sums.set(boxId, {
      minutes: sum.minutes + (pause > LONGEST_PAUSE ? 0 : pause),
      entries: sum.entries + 1,
    });
  }
  const mounted = mountedBoxes(job);
  return new Map(
    [...sums].flatMap(([boxId, sum]) =>
      mounted.has(boxId) && sum.entries >= FEWEST_ENTRIES && sum.minutes > 0 ? [[boxId, sum.minutes]] : [],
    ),
  );
}

function middle(list: readonly number[]): number {
  const sorted = [...list].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return ((sorted[Math.ceil(half) - 1] as number) + (sorted[Math.floor(half)] as number)) / 2;
}
