import type { ExistingDevice } from '../terms/trade.js';
import type { Body, PracticeProfile } from './profile.js';

const body = (width: number, height: number, depth: number): Body => ({ width, height, depth });
const NOTHING = body(0, 0, 0);

/** Plain switches: those for which a practice may have a body of its own. */
export const PLAIN_SWITCHES: ReadonlySet<ExistingDevice> = new Set([
  'single-pole',
  'double-pole',
  'double-single-pole',
  'three-way',
  'four-way',
]);

/** What such devices usually measure when nobody measured this one: an estimate. */
const USUAL: Record<ExistingDevice, Body> = {
  'single-pole': body(33, 60, 25),
  'double-pole': body(33, 60, 25),
  'double-single-pole': body(33, 60, 25),
  'three-way': body(33, 60, 28),
  'four-way': body(33, 60, 28),
  dimmer: body(43, 70, 33),
  'fan-control': body(43, 70, 33),
  'fan-light': body(43, 70, 33),
  timer: body(43, 70, 33),
  sensor: body(43, 70, 33),
  receptacle: body(33, 70, 28),
  smart: NOTHING,
  blank: NOTHING,
  none: NOTHING,
};

/**
 * @param width of the position, in gangs or modules
 * @returns mm; `sharedByYoke`: one body serves all switches of a plate
 */
export function usualBody(
  existing: ExistingDevice,
  width: number,
  profile: Pick<PracticeProfile, 'switchBody'>,
): Body & { sharedByYoke: boolean } {
  const own = profile.switchBody;
  if (!own?.kinds.has(existing)) return { ...USUAL[existing], sharedByYoke: false };
  return {
    ...own.body,
    width: own.perModule ? own.body.width * width : own.body.width,
    sharedByYoke: own.sharedByYoke,
  };
}
