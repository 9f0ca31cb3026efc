import type { PracticeId } from '../job/schema/primitives.js';
import type { ExistingDevice } from '../job/schema/survey.js';

/** Behind the mounting face, mm. */
export interface Body {
  width: number;
  height: number;
  depth: number;
}

const SWITCHES: ReadonlySet<ExistingDevice> = new Set([
  'single-pole',
  'double-pole',
  'double-single-pole',
  'three-way',
  'four-way',
]);

const body = (width: number, height: number, depth: number): Body => ({ width, height, depth });
const NOTHING = body(0, 0, 0);

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

const PLATE_SWITCH = body(60, 60, 18);
const MODULE = body(22, 45, 30);

/** `sharedByYoke`: one body serves all switches of a plate, as in `gb`. */
export function existingBody(
  existing: ExistingDevice,
  width: number,
  practice: PracticeId,
): Body & { sharedByYoke: boolean } {
  if (practice === 'gb' && SWITCHES.has(existing)) return { ...PLATE_SWITCH, sharedByYoke: true };
  if (practice === 'modular' && SWITCHES.has(existing))
    return { ...MODULE, width: MODULE.width * width, sharedByYoke: false };
  return { ...USUAL[existing], sharedByYoke: false };
}

/** Room for conductors behind the body, mm: more when leads and their joints fold in behind it. */
export const CLEARANCE = { terminals: 6, leads: 12 };
