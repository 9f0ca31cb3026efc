import { placeKey } from '../../job/lookup.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { Box, Position } from '../../job/schema/survey.js';
import type { PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

/** Faces may stand this much proud of one another before the eye sees it, mm. */
const FLUSH = 1;

interface Neighbour {
  position: Position;
  /** The catalogue device that is or will be there; undefined for an old one nobody looked up. */
  device: Device | undefined;
}

/**
 * What shares the plate with a position: the other positions that hold something, as selected, else as found.
 */
export function plateNeighbours({ box, position, known }: PlaceFacts): Neighbour[] {
  return box.positions.flatMap((other) => {
    if (other.index === position.index || samePlate(other, position)) return [];
    const chosen = known.devices.get(known.selections.get(placeKey(box.id, other.index))?.deviceId ?? '');
    if (chosen) return chosen.mount === 'box' ? [{ position: other, device: chosen }] : [];
    if (other.existing === 'blank' || other.existing === 'none') return [];
    return [{ position: other, device: known.devices.get(other.deviceId ?? '') }];
  });
}

/** Switches on one strap have one face between them; what replaces one of them replaces the face. */
function samePlate(one: Position, other: Position): boolean {
  return (one.yoke ?? one.index) === (other.yoke ?? other.index);
}

/** One plate over the whole box: one kind of opening, and nothing that brings a plate only for itself. */
export function plateRule(device: Device, neighbours: readonly Neighbour[], box: Box): readonly Reason[] {
  if (neighbours.length === 0) return NO_REASONS;
  const own = device.ownPlate || neighbours.some((other) => other.device?.ownPlate);
  const wholeBox = device.gangs >= box.enclosure.gangs;
  if (
    own &&
    !wholeBox &&
    !neighbours.every(
      (other) => device.ownPlate && other.device?.ownPlate && other.device.family === device.family,
    )
  )
    return [{ rule: 'plate', outcome: 'block', code: 'plate.own', facts: { others: neighbours.length } }];
  const other = neighbours.find(
    (entry) => device.opening && entry.device?.opening && entry.device.opening !== device.opening,
  );
  if (!other) return NO_REASONS;
  const facts = {
    opening: device.opening ?? '',
    other: other.device?.opening ?? '',
    position: other.position.index,
  };
  return [{ rule: 'plate', outcome: 'block', code: 'plate.opening', facts }];
}

/** Whites of two makers differ. */
export function shadeRule(device: Device, neighbours: readonly Neighbour[]): readonly Reason[] {
  const other = neighbours.find(
    (entry) => device.shade && entry.device?.shade && entry.device.shade !== device.shade,
  );
  if (!other) return NO_REASONS;
  const facts = {
    shade: device.shade ?? '',
    other: other.device?.shade ?? '',
    position: other.position.index,
  };
  return [{ rule: 'shade', outcome: 'warn', code: 'shade.other', facts }];
}

export function flushRule(device: Device, neighbours: readonly Neighbour[]): readonly Reason[] {
  const proud = device.faceProud;
  if (proud === undefined) return NO_REASONS;
  const other = neighbours.find(
    ({ device: there }) => there?.faceProud !== undefined && Math.abs(there.faceProud - proud) > FLUSH + 1e-9,
  );
  if (!other) return NO_REASONS;
  const facts = { proud, other: other.device?.faceProud ?? 0, position: other.position.index };
  return [{ rule: 'flush', outcome: 'warn', code: 'flush.proud', facts }];
}
