import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { circleOf } from '../power/circle.js';
import { neutralCarriers } from '../power/neutral-carriers.js';

export interface RestsOn {
  ofBox: string;
  ofJob: readonly unknown[];
  /**
   * What only the next tests rest on: which roles the chosen devices want, and what has to be off before a
   * device comes out.
   */
  ofNext: readonly unknown[];
}

/** Whether an identification would come out the same; its roles may where the next tests do not. */
export function isSameBasis(one: RestsOn, other: RestsOn, of: 'roles' | 'all'): boolean {
  return (
    one.ofBox === other.ofBox &&
    one.ofJob.every((list, at) => list === other.ofJob[at]) &&
    (of === 'roles' || one.ofNext.every((entry, at) => entry === other.ofNext[at]))
  );
}

/**
 * What the identification of a box rests on: while every entry is equal to what it was, so is the result. A
 * volume, a note, a photograph or a name is none of it; of labels only grounds, lamps, and what they say of
 * neutrals and circuits. Lists of the job are given as they are, to be compared by identity.
 */
export function identificationRestsOn(box: Box, known: JobLookup): RestsOn {
  const { id, circuitIds, enclosure, cables, conductors, joints, positions, readings } = box;
  const { material, grounded } = enclosure;
  const { practice, catalogue, circuits, loads, groups, runs, selections, events } = known.job;
  // Readings at points of other boxes rest on what those are.
  const farIds = new Set(
    readings.flatMap((reading) =>
      reading.points.flatMap((point) => (point.includes('/') ? [point.split('/')[0]] : [])),
    ),
  );
  const far = [...farIds].map((farId) => {
    const other = known.boxes.get(farId ?? '');
    return other && [farId, other.enclosure.material, other.enclosure.grounded, other.conductors];
  });
  // Which conductors a reading to earth may end at, and which lamps are the box's, labels tell too.
  const told = box.labels.flatMap(({ conductorId, role, loadIds }) =>
    role === 'ground' || loadIds?.length ? [conductorId, role, loadIds] : [],
  );
  return {
    ofBox: JSON.stringify([
      id,
      circuitIds,
      material,
      grounded,
      cables,
      conductors,
      joints,
      positions,
      readings,
      far,
      readings.length > 0 ? told : [],
    ]),
    ofJob: [practice, catalogue, circuits, loads, groups, runs, events],
    ofNext: [selections, `${neutralCarriers(box, known.job)}|${[...circleOf(box, known.job, [], [])]}`],
  };
}
