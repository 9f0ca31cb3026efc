import type { EditPart } from '../job/edit/edit.js';
import { putPart, removePart } from '../job/edit/parts.js';
import { lookup, placeKey } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { stillOpen } from './still-open.js';
import { plannedPlaces } from './units.js';
import type { PlanChoice } from './vocabulary.js';

/**
 * The parts that make a plan of what is still open the job's choice: open places it leaves unserved lose what
 * was chosen for them before.
 */
export function adoptParts(choices: readonly PlanChoice[], job: Job): EditPart[] {
  const open = lookup(stillOpen(job));
  const chosen = new Set(choices.map((choice) => placeKey(choice.boxId, choice.position)));
  const gone = [...plannedPlaces(open)].filter((key) => !chosen.has(key) && open.selections.has(key));
  return [
    ...gone.map((key) => removePart('selection', key)),
    ...choices.map((choice) =>
      putPart('selection', placeKey(choice.boxId, choice.position), { ...choice, with: [...choice.with] }),
    ),
  ];
}
