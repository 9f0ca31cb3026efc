import type { At, Box } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import type { PracticeId } from '../terms/trade.js';
import { type BoxChange, withEnd } from './corrections.js';

/** Where an end can be put: at a place of the box, or together with the end of another conductor. */
export type EndTarget = At | { conductorId: string; end: 0 | 1 };

interface Making {
  job: { practice: PracticeId };
  newId: () => string;
}

/**
 * Puts an end of a conductor somewhere else. Put to an end that is in a joint or on a terminal, it goes there
 * too; put to one that is capped, the two become a joint. Joints nobody is in any more go.
 */
export function movedEnd(
  box: Box,
  moved: { conductorId: string; end: 0 | 1 },
  target: EndTarget,
  { job, newId }: Making,
): BoxChange {
  const { conductorId, end } = moved;
  if (!('conductorId' in target)) return withEnd(box, conductorId, end, target as At);
  const partner = target as { conductorId: string; end: 0 | 1 };
  const other = box.conductors.find(({ id }) => id === partner.conductorId);
  const at = other?.ends ? other.ends[partner.end] : other?.at;
  if (at && !at.capped) return withEnd(box, conductorId, end, at);
  const joint = { id: newId(), connector: usualConnector(box, job) };
  const grown: Box = { ...box, joints: [...box.joints, joint] };
  const one: Box = { ...grown, ...withEnd(grown, conductorId, end, { joint: joint.id }) };
  return withEnd(one, partner.conductorId, partner.end, { joint: joint.id });
}

/** Some members of a joint go into one of their own. */
export function splitJoint(
  box: Box,
  jointId: string,
  conductorIds: ReadonlySet<string>,
  { newId }: Making,
): BoxChange {
  const joint = box.joints.find(({ id }) => id === jointId);
  if (!joint) return {};
  const made = { ...joint, id: newId() };
  const at = (place: At): At => (place.joint === jointId ? { ...place, joint: made.id } : place);
  const conductors = box.conductors.map((conductor) =>
    conductorIds.has(conductor.id)
      ? {
          ...conductor,
          ...(conductor.at ? { at: at(conductor.at) } : {}),
          ...(conductor.ends ? { ends: conductor.ends.map(at) } : {}),
        }
      : conductor,
  );
  return { conductors, joints: [...box.joints, made] };
}

function usualConnector(box: Box, job: { practice: PracticeId }): Box['joints'][number]['connector'] {
  return box.joints.at(-1)?.connector ?? profileOf(job).connectors.usual;
}
