import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';

/** Words that say where rather than what. */
const EMPTY: ReadonlySet<string> = new Set([
  'and',
  'the',
  'of',
  'in',
  'at',
  'lights',
  'light',
  'lighting',
  'sockets',
]);

const wordsOf = (text: string) =>
  new Set(
    text
      .toLowerCase()
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word.length > 2 && !EMPTY.has(word)),
  );

/**
 * Circuits that may feed a box, the likely ones first. Exactly one is likely where all boxes of its room that
 * have one are on it; else where only one circuit's label shares a word with the room or the box; else where
 * the job has only one.
 */
export function feedCandidates(
  job: Pick<Job, 'circuits' | 'boxes' | 'rooms'>,
  box: Pick<Box, 'id' | 'roomId' | 'name'>,
): { likely: string[]; rest: string[] } {
  const { circuits } = job;
  const known = new Set(circuits.map(({ id }) => id));
  const neighbours = new Set(
    job.boxes
      .filter(({ id, roomId }) => roomId === box.roomId && id !== box.id)
      .flatMap(({ circuitIds }) => circuitIds.filter((id) => known.has(id))),
  );
  const room = job.rooms.find(({ id }) => id === box.roomId)?.name ?? '';
  const named = wordsOf(`${room} ${box.name}`);
  const alike = circuits.filter(({ label }) => [...wordsOf(label)].some((word) => named.has(word)));
  const only = circuits.length === 1 ? circuits : [];
  const others = (alike.length > 0 ? alike : only).map(({ id }) => id);
  const likely = neighbours.size > 0 ? [...neighbours] : others;
  return { likely, rest: circuits.map(({ id }) => id).filter((id) => !likely.includes(id)) };
}

/** What a new box is said to be fed by: the one candidate there is, else nothing. */
export function feedOfNewBox(
  job: Pick<Job, 'circuits' | 'boxes' | 'rooms'>,
  box: Pick<Box, 'id' | 'roomId' | 'name'>,
): string[] {
  const { likely } = feedCandidates(job, box);
  return likely.length === 1 ? likely : [];
}
