import { neutralFamilies } from '../job/neutral-families.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';

/**
 * The circle of a box: every circuit that has to be off before its conductors are touched.
 *
 *     the box's own, those its proof named, those a label or a run ending there or a reading shows in it
 *     ... and whatever shares a neutral with one of these, through however many others
 *
 * @param proved circuits that the proof names
 * @param shown circuits that readings show in the box
 */
export function circleOf(
  box: Box,
  job: Job,
  proved: readonly string[],
  shown: Iterable<string>,
): ReadonlySet<string> {
  const known = new Set(job.circuits.map(({ id }) => id));
  const circle = new Set<string>();
  const take = (ids: Iterable<string | undefined>) => {
    for (const id of ids)
      if (id !== undefined && known.has(id))
        for (const member of neutralFamilies(job).of(id)) circle.add(member);
  };
  take(box.circuitIds);
  take(proved);
  take(box.labels.map((label) => label.circuitId));
  for (const { ends } of job.runs ?? [])
    if (ends.some((end) => end.boxId === box.id)) take(ends.map((end) => end.circuitId));
  take(shown);
  return circle;
}

/** Breakers of no box and outside the circle: what they feed, nobody knows yet. */
export function unassignedCircuits(job: Job, circle: ReadonlySet<string>): string[] {
  const assigned = new Set(job.boxes.flatMap((box) => box.circuitIds));
  return job.circuits.flatMap(({ id }) => (assigned.has(id) || circle.has(id) ? [] : [id]));
}
