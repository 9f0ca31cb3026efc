import type { PlaceFacts } from '../place.js';
import { NO_REASONS, type Reason } from '../reason.js';

/**
 * What stops work at the box stops a verdict: no connector takes aluminium; everything else has to be put
 * right or cleared first.
 */
export function hazardRule(place: PlaceFacts): readonly Reason[] {
  if (place.stops.length === 0) return NO_REASONS;
  return place.stops.map((hazard): Reason => {
    const block = hazard === 'aluminium';
    return {
      rule: 'hazard',
      outcome: block ? 'block' : 'unproved',
      code: block ? 'hazard.aluminium' : 'hazard.stop',
      facts: { hazard },
    };
  });
}
