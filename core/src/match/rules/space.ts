import { boxItself } from '../../enclosure/as-found.js';
import { figuresInUse } from '../../job/figures.js';
import { type JobLookup, placeKey } from '../../job/lookup.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { Box, Position } from '../../job/schema/survey.js';
import { rounded } from '../../units/volume.js';
import type { PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

export function gangsRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const free = freeGangs(place.box, place.position, place.known);
  if (device.gangs <= free) return NO_REASONS;
  return [{ rule: 'gangs', outcome: 'block', code: 'gangs.too-wide', facts: { gangs: device.gangs, free } }];
}

/**
 * Gangs side by side a device may take here: its own, and those next to them that neither hold nor will hold
 * anything.
 */
function freeGangs(box: Box, position: Position, known: JobLookup): number {
  const taken = new Set<number>();
  for (const other of box.positions) {
    if (other.index === position.index) continue;
    const chosen = known.devices.get(known.selections.get(placeKey(box.id, other.index))?.deviceId ?? '');
    const holds = chosen ? chosen.mount === 'box' : other.existing !== 'blank' && other.existing !== 'none';
    if (!holds) continue;
    const from = other.gang ?? other.index;
    const width = Math.max(other.width ?? 1, chosen?.gangs ?? 1);
    for (let gang = from; gang < from + width; gang++) taken.add(gang);
  }
  const first = position.gang ?? position.index;
  let from = first;
  let to = first + (position.width ?? 1) - 1;
  while (from > 1 && !taken.has(from - 1)) from -= 1;
  while (to < box.enclosure.gangs && !taken.has(to + 1)) to += 1;
  return to - from + 1;
}

export function bodyRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const { opening } = boxItself(place.box, place.known.job);
  if (!opening) return NO_REASONS;
  const gangs = Math.max(device.gangs, place.position.width ?? 1);
  const width = (opening.width * Math.min(gangs, place.box.enclosure.gangs)) / place.box.enclosure.gangs;
  if (device.body.width <= width + 1e-9 && device.body.height <= opening.height + 1e-9) return NO_REASONS;
  const facts = {
    width: device.body.width,
    height: device.body.height,
    freeWidth: rounded(width, 1),
    freeHeight: opening.height,
  };
  return [{ rule: 'body', outcome: 'block', code: 'body.too-large', facts }];
}

export function depthRule(place: PlaceFacts, device: Device): readonly Reason[] {
  const figures = figuresInUse(place.known.job).clearance;
  const clearance = device.terminals.some((terminal) => terminal.form === 'lead')
    ? figures.leads
    : figures.terminals;
  const needed = device.body.depth + clearance;
  const { availableDepth } = boxItself(place.box, place.known.job);
  const facts = { body: device.body.depth, clearance, needed, available: availableDepth };
  if (availableDepth === null) return [{ rule: 'depth', outcome: 'unproved', code: 'depth.not-read', facts }];
  return needed > availableDepth + 1e-9
    ? [{ rule: 'depth', outcome: 'block', code: 'depth.too-deep', facts }]
    : NO_REASONS;
}
