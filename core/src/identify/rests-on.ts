import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';

/**
 * What the identification of a box rests on: while every entry is equal to what it was, so is the result. A volume, a
 * note, a photograph, a label or a name is none of it. Lists of the job are given as they are, to be compared by identity.
 */
export function identificationRestsOn(box: Box, known: JobLookup): { ofBox: string; ofJob: readonly unknown[] } {
  const { id, circuitIds, enclosure, cables, conductors, joints, positions, readings } = box;
  const { material, grounded } = enclosure;
  const { practice, catalogue, circuits, loads, groups, runs, selections, events } = known.job;
  return {
    ofBox: JSON.stringify([id, circuitIds, material, grounded, cables, conductors, joints, positions, readings]),
    ofJob: [practice, catalogue, circuits, loads, groups, runs, selections, events],
  };
}
