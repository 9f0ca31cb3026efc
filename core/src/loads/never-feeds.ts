import type { Channel } from '../job/schema/catalogue.js';
import type { LoadKind } from '../job/schema/primitives.js';

const NOT_ON_A_DIMMER: ReadonlySet<LoadKind> = new Set([
  'receptacle',
  'fan-ac',
  'fan-dc',
  'fan-remote',
  'exhaust-fan',
  'motor',
  'shade',
  'smart-bulb',
]);
const ON_FAN_SPEED: ReadonlySet<LoadKind> = new Set(['fan-ac', 'exhaust-fan']);
/** A relay cuts the supply of what has electronics of its own. */
const UNEASY_ON_A_RELAY: ReadonlySet<LoadKind> = new Set(['fan-dc', 'fan-remote', 'smart-bulb']);

/** Whether a channel of this kind must not feed such a load, whatever the device's record says. */
export function neverFeeds(channel: Channel['kind'], load: LoadKind): boolean {
  if (channel === 'dimmer') return NOT_ON_A_DIMMER.has(load);
  return channel === 'fan-speed' && !ON_FAN_SPEED.has(load);
}

/** Whether a relay before such a load is possible but seldom what one wants. */
export function uneasyOn(channel: Channel['kind'], load: LoadKind): boolean {
  return channel === 'relay' && UNEASY_ON_A_RELAY.has(load);
}
