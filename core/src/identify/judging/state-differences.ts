import { pointsKey } from '../../job/readings.js';
import type { Test } from '../problem/vocabulary.js';

/*
 * In what the states of two tests differ. A switch of the box itself is named by its position, one elsewhere
 * as `BOX/POSITION`; one that is named in only one of the tests tells nothing.
 */

type Switches = readonly (readonly [string, boolean])[];

const own = ({ arrangement }: Test): Switches =>
  [...arrangement.switches].filter(([key]) => !key.includes('/'));
const far = ({ arrangement }: Test): Switches =>
  [...arrangement.switches].filter(([key]) => key.includes('/'));

const stateDiffers = (switches: Switches, { arrangement }: Test): boolean =>
  switches.some(([key, state]) => arrangement.switches.has(key) && arrangement.switches.get(key) !== state);

export const ownSwitchDiffers = (one: Test, other: Test): boolean => stateDiffers(own(one), other);

export const farSwitchDiffers = (one: Test, other: Test): boolean => stateDiffers(far(one), other);

export function sameBreakers(one: Test, other: Test): boolean {
  return JSON.stringify([...one.arrangement.breakers]) === JSON.stringify([...other.arrangement.breakers]);
}

/** The same points in the same state but for a switch elsewhere. */
export function onlyFarSwitchDiffers(one: Test, other: Test): boolean {
  return (
    farSwitchDiffers(one, other) &&
    one.arrangement.kind === other.arrangement.kind &&
    one.arrangement.position === other.arrangement.position &&
    JSON.stringify(own(one)) === JSON.stringify(own(other)) &&
    pointsKey(one.reading) === pointsKey(other.reading) &&
    sameBreakers(one, other)
  );
}
