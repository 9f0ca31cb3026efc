import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Box, Position } from '../job/schema/survey.js';

/** Whether something with a body is, or will be, at the position. */
function occupied(box: Box, position: Position, known: JobLookup): boolean {
  const selection = known.selections.get(placeKey(box.id, position.index));
  const device = selection?.deviceId ? known.devices.get(selection.deviceId) : undefined;
  if (device) return device.mount === 'box';
  return position.existing !== 'blank' && position.existing !== 'none';
}

/** Sides a finned device loses to neighbours at the position: 0, 1 or 2. A device without fins loses none. */
export function removedSides(box: Box, position: Position, device: Device, known: JobLookup): number {
  if (!device.fins) return 0;
  const first = position.gang ?? position.index;
  const last = first + Math.max(position.width ?? 1, device.gangs) - 1;
  let left = false;
  let right = false;
  for (const other of box.positions) {
    if (other.index === position.index || !occupied(box, other, known)) continue;
    const from = other.gang ?? other.index;
    const to = from + (other.width ?? 1) - 1;
    if (to === first - 1) left = true;
    if (from === last + 1) right = true;
  }
  return Number(left) + Number(right);
}
