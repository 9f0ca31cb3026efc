import type { Identification, IdentifiedConductor } from '../identify/answer.js';
import { untoldCores } from '../job/conductors.js';
import { type JobLookup, labelsOf } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box, Conductor, Label } from '../job/schema/survey.js';
import { labelClashes } from '../power/label-clashes.js';
import { profileOf } from '../practice/profiles.js';
import { looksLikeGround } from '../practice/wire.js';
import { conductorsInOrder } from '../survey/conductor-names.js';
import { labelContext, labelFor } from '../survey/label-context.js';
import type { Mark } from './vocabulary.js';

/** Below this a guess by looks is as likely one thing as another, and says nothing. */
const EVEN = 0.6;
/** Looks that speak this clearly for a role may be taken for it; anything less has to be told or tested. */
const CLEAR = 0.75;

type Said = Pick<Identification, 'conductors' | 'conflicts'>;

/** What a conductor seems to be. */
export interface Seeming {
  role: Role;
  traveler?: number;
  grade: IdentifiedConductor['grade'];
  /** May be taken for it in one touch. */
  isClear: boolean;
}

/**
 * What each conductor seems to be: as another box like this one had it, else as colour, place and readings
 * have it. A reading outweighs what another box looked like.
 * @param said what the readings say; null while it is worked out
 */
export function seemingRoles(
  { guesses = [] }: Pick<Box, 'guesses'>,
  said: Pick<Said, 'conductors'> | null,
): Map<string, Seeming> {
  const found = new Map(
    said?.conductors.map(({ id, role, grade, probability }): [string, Seeming] => {
      const isEven = grade === 'guess' && probability < EVEN;
      return [id, { role: isEven ? 'unknown' : role, grade, isClear: probability >= CLEAR }];
    }),
  );
  for (const { conductorId, role, traveler } of guesses)
    if ((found.get(conductorId)?.grade ?? 'guess') === 'guess')
      found.set(conductorId, {
        role,
        ...(traveler === undefined ? {} : { traveler }),
        grade: 'guess',
        isClear: true,
      });
  return found;
}

/**
 * Guesses that may become labels in one touch: of conductors from outside without a label, where no hazard
 * and no open contradiction stands at the box, and no label of the same joint excludes them.
 */
export function acceptableMarks(box: Box, known: JobLookup, said: Said): Mark[] {
  if ((box.hazards?.length ?? 0) > 0 || said.conflicts.some(({ open }) => open)) return [];
  const labels = labelsOf(box);
  const untold = conductorsInOrder(box).filter(
    ({ id, cableId }) => cableId !== undefined && (labels.get(id)?.role ?? 'unknown') === 'unknown',
  );
  const seeming = seemingRoles(box, said);
  let marks = untold.flatMap(({ id }): Mark[] => {
    const { role, traveler, isClear } = seeming.get(id) ?? { role: 'unknown' };
    if (!isClear || role === 'unknown') return [];
    return [{ conductorId: id, role, ...(role === 'traveler' && traveler ? { traveler } : {}) }];
  });
  for (;;) {
    const clashes = labelClashes({ ...box, ...withMarks(box, marks, known) }, known.job);
    const against = new Set(clashes.flatMap(({ conductorIds }) => conductorIds));
    const left = marks.filter(({ conductorId }) => !against.has(conductorId));
    if (left.length === marks.length) return marks;
    marks = left;
  }
}

/** The labels that marks become, each kept as taken by eye. */
export function withMarks(box: Box, marks: readonly Mark[], known: JobLookup): Pick<Box, 'labels'> {
  const taken = new Set(marks.map(({ conductorId }) => conductorId));
  return {
    labels: [
      ...box.labels.filter(({ conductorId }) => !taken.has(conductorId)),
      ...marks.map(({ conductorId, role, traveler }): Label => {
        const { loadIds, circuitIds, groupId } = labelContext(box, conductorId, known);
        return {
          ...labelFor(conductorId, role, {
            loadIds,
            circuitIds,
            ...(groupId ? { groupId } : {}),
            ...(traveler ? { traveler } : {}),
          }),
          byEye: true,
        };
      }),
    ],
  };
}

/** The next core to be told, in the drawing's order after one: the dark ones; the rest is offered as sets. */
export function nextDarkCore(box: Box, job: Pick<Job, 'practice'>, after: string | null): string | undefined {
  const untold = new Set(untoldCores(box).map(({ id }) => id));
  const order = conductorsInOrder(box).filter((conductor) => !isOfNeutralSet(conductor, job));
  const at = order.findIndex(({ id }) => id === after);
  return [...order.slice(at + 1), ...order.slice(0, at + 1)].find(({ id }) => untold.has(id))?.id;
}

/** In a colour neutrals have, and on no switch: told as one of a set, where nothing speaks against it. */
function isOfNeutralSet({ colour, at }: Conductor, job: Pick<Job, 'practice'>): boolean {
  const { colours, neutralColours } = profileOf(job);
  const usual = [colours.today.neutral, ...(colours.old ? [colours.old.neutral] : [])];
  const also = neutralColours === 'any' ? [] : neutralColours;
  return at?.position === undefined && [...usual, ...also].includes(colour);
}

/** Conductors of one kind that are still to be told: neutrals by colour and place, then grounds by colour. */
export function labelSets(
  box: Box,
  job: Pick<Job, 'practice'>,
): { role: 'neutral' | 'ground'; conductorIds: string[] }[] {
  const labels = labelsOf(box);
  const open = conductorsInOrder(box).filter(
    ({ id, cableId }) => cableId !== undefined && (labels.get(id)?.role ?? 'unknown') === 'unknown',
  );
  const grounds = open.filter(looksLikeGround);
  const neutrals = open.filter((conductor) => !grounds.includes(conductor) && isOfNeutralSet(conductor, job));
  return [
    { role: 'neutral' as const, conductorIds: neutrals.map(({ id }) => id) },
    { role: 'ground' as const, conductorIds: grounds.map(({ id }) => id) },
  ].filter(({ conductorIds }) => conductorIds.length > 0);
}
