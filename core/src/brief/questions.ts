import type { Job } from '../job/schema/job.js';

/** What the client is asked, in this order. */
export const QUESTIONS = [
  'assistants',
  'hubs',
  'radios',
  'router',
  'switches',
  'light',
  'colour',
  'money',
  'places',
] as const;
export type Question = (typeof QUESTIONS)[number];

/** Questions the brief holds an answer to. A default that nobody confirmed is no answer. */
export function answeredQuestions(job: Pick<Job, 'brief' | 'boxes'>): Set<Question> {
  const { brief } = job;
  const answered = new Set<Question>();
  if (brief?.platforms?.length) answered.add('assistants');
  if (brief?.hubsOwned) answered.add('hubs');
  if (brief?.radios?.length) answered.add('radios');
  if (brief?.wifi?.clientsNow !== undefined && brief.wifi.clientLimit !== undefined) answered.add('router');
  if (brief?.feel?.actuators?.length) answered.add('switches');
  if (brief?.feel?.indicator || brief?.feel?.onLevel) answered.add('light');
  if (brief?.colour) answered.add('colour');
  if (brief?.budget !== undefined) answered.add('money');
  const positions = job.boxes.flatMap((box) => box.positions);
  if (
    positions.length > 0 &&
    positions.every((position) => position.need?.smart === false || position.need?.dim !== undefined)
  )
    answered.add('places');
  return answered;
}
