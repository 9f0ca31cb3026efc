import type { Load } from '../job/schema/job.js';
import type { LoadKind } from '../job/schema/primitives.js';
import type { Need } from '../job/schema/survey.js';

const FANS: ReadonlySet<LoadKind> = new Set(['fan-ac', 'fan-dc', 'fan-remote']);
const DIMMED: ReadonlySet<LoadKind> = new Set(['led', 'resistive', 'electronic', 'magnetic']);

/**
 * What is usually wanted of a place, by what it works: a start to be corrected, so that a house is asked for
 * in a few minutes.
 *
 * @example usualNeed([{ kind: 'fan-ac', … }]) // { smart: true, dim: 'no', fanSpeed: true }
 */
export function usualNeed(loads: readonly Pick<Load, 'kind' | 'dimmable' | 'count'>[]): Need {
  const bulbs = loads.length > 0 && loads.every((load) => load.kind === 'smart-bulb');
  const dims = loads.some((load) => DIMMED.has(load.kind) && load.dimmable !== false && load.count > 1);
  return {
    smart: loads.length > 0,
    dim: dims ? 'nice' : 'no',
    ...(loads.some((load) => FANS.has(load.kind)) ? { fanSpeed: true } : {}),
    ...(loads.some((load) => load.kind === 'exhaust-fan') ? { senses: ['humidity' as const] } : {}),
    ...(bulbs ? { constantPower: true } : {}),
  };
}
