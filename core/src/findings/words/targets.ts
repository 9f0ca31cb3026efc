import type { JobLookup } from '../../job/lookup.js';
import { placeKey } from '../../job/lookup.js';
import type { Target } from '../../job/schema/commissioning.js';
import { targetId } from '../../job/targets.js';
import { placeText } from './places.js';

/**
 * What a channel, thing or room is called by people.
 * @param target itself, or what it is known by in answers
 */
export function targetWords(target: Target | string, { job, boxes, rooms }: JobLookup): string {
  const id = typeof target === 'string' ? target : targetId(target);
  const thing = job.things?.find((entry) => entry.id === id);
  if (thing) return `"${thing.name}"`;
  const room = rooms.get(id);
  if (room) return `"${room.name}"`;
  const [boxId = '', position, channel] = id.split('/');
  const name = job.pairings.findLast(
    (pairing) =>
      placeKey(pairing.boxId, pairing.position) === `${boxId}/${position}` &&
      String(pairing.channel) === channel,
  )?.name;
  const box = boxes.get(boxId);
  const at = box?.positions.find(({ index }) => String(index) === position);
  const place = box && at ? placeText({ box, position: at }) : (box?.name ?? boxId);
  return name ? `"${name}" (${place})` : place;
}
