import type { Job } from '../schema/job.js';
import type { EditPart } from './edit.js';
import { setParts } from './parts.js';

/**
 * The edit that puts rooms of a floor, or boxes of a room, in this order. Their places among all others stay:
 * those they had are given out anew.
 * @param ids every one of them, as they are to follow each other
 */
export function orderParts(job: Job, kind: 'room' | 'box', ids: readonly string[]): EditPart[] {
  const records = kind === 'room' ? job.rooms : job.boxes;
  const moved = ids.flatMap((id) => records.find((record) => record.id === id) ?? []);
  const had = moved.map(({ order }) => order).sort((a, b) => a - b);
  // Two with one place cannot change it: from the first on each gets one of its own.
  const apart = had.every((place, at) => at === 0 || place !== had[at - 1]);
  const [first = 0] = had;
  return moved.flatMap((record, at) => {
    const order = apart ? (had[at] ?? first + at) : first + at;
    return record.order === order ? [] : setParts(kind, record.id, record, { order });
  });
}
