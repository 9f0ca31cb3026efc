import type { Box } from '../job/schema/survey.js';
import type { PlannedPlace } from './comes-out.js';

/** What of a face one position takes, from the left: gangs or modules, counted from 1. */
export interface FaceShare {
  position: number;
  from: number;
  to: number;
  /** It stood elsewhere, or took more or less, as found. */
  isNew: boolean;
}

/**
 * The face divided anew: each position in its order from the left, as wide as what goes in, else as it was.
 * What is left over is blank.
 *
 *     as found   | 1 light | 2 fan ctl | 3 socket | .. |      1 1 2 2
 *     planned    | 1 light | 2 fan module, two wide | 3 socket |
 */
export function faceShares(
  box: Pick<Box, 'positions' | 'enclosure'>,
  places: readonly PlannedPlace[],
): { shares: FaceShare[]; blank: number } {
  const found = box.positions.map((position) => ({
    position,
    at: position.gang ?? position.index,
    width: position.width ?? 1,
  }));
  found.sort((a, b) => a.at - b.at || a.position.index - b.position.index);
  let next = 1;
  const shares = found.map(({ position, at, width }): FaceShare => {
    const device = places.find((place) => place.position.index === position.index)?.device;
    const wide = device?.mount === 'box' ? Math.max(device.gangs, device.gangs > 1 ? 1 : width) : width;
    const from = Math.max(next, device?.mount === 'box' && wide > width ? next : at);
    next = from + wide;
    return { position: position.index, from, to: next - 1, isNew: from !== at || wide !== width };
  });
  return { shares, blank: Math.max(0, box.enclosure.gangs - (next - 1)) };
}
