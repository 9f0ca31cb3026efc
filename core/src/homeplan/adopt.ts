import type { EditPart } from '../job/edit/edit.js';
import { putPart, removePart } from '../job/edit/parts.js';
import { type JobLookup, placeKey } from '../job/lookup.js';
import { plannedPlaces } from './units.js';
import type { PlanChoice } from './vocabulary.js';

/** The parts that make a plan the job's choice: places it leaves unserved lose what was chosen for them before. */
export function adoptParts(choices: readonly PlanChoice[], known: JobLookup): EditPart[] {
  const chosen = new Set(choices.map((choice) => placeKey(choice.boxId, choice.position)));
  const gone = [...plannedPlaces(known)].filter((key) => !chosen.has(key) && known.selections.has(key));
  return [
    ...gone.map((key) => removePart('selection', key)),
    ...choices.map((choice) => putPart('selection', placeKey(choice.boxId, choice.position), { ...choice, with: [...choice.with] })),
  ];
}
