import type { Job } from '../job/schema/job.js';
import type { At, Box } from '../job/schema/survey.js';
import { conductorWords } from './conductor-names.js';

export interface PutBackLine {
  conductorId: string;
  says: string;
}

/**
 * Where each conductor was, for putting a box back as found after a survey: joints first, then terminals,
 * then what was capped.
 */
export function putBackList(box: Box, job: Pick<Job, 'circuits'>): PutBackLine[] {
  const joints = new Map(box.joints.map((joint, index) => [joint.id, index + 1]));
  const where = (at: At): { order: number; text: string } => {
    if (at.joint !== undefined) return { order: 0, text: `into joint ${joints.get(at.joint) ?? at.joint}` };
    if (at.boxScrew) return { order: 1, text: 'to the box’s screw' };
    if (at.position !== undefined)
      return { order: 2, text: `to terminal ${at.terminal} of position ${at.position}` };
    return { order: 3, text: 'stays capped' };
  };
  return box.conductors
    .flatMap((conductor) => {
      const ends = conductor.ends ?? (conductor.at ? [conductor.at] : []);
      const name = conductorWords(box, conductor.id, job);
      return ends.map((at) => ({ conductorId: conductor.id, ...where(at), name }));
    })
    .sort((a, b) => a.order - b.order)
    .map(({ conductorId, name, text }) => ({ conductorId, says: `${name}: ${text}` }));
}
