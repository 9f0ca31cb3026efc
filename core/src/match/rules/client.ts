import { NO_REASONS, type Reason } from '../../findings/finding.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { PlaceFacts } from '../place.js';

export function platformRule(place: PlaceFacts, device: Device): readonly Reason[] {
  // A place may want a sensor and no connection.
  if (place.need.connected === false) return NO_REASONS;
  return (place.known.job.brief?.platforms ?? [])
    .filter((platform) => !device.platforms.includes(platform.name))
    .map(({ name, want }) => ({
      rule: 'platform',
      outcome: want === 'must' ? 'block' : 'warn',
      code: want === 'must' ? 'platform.must' : 'platform.nice',
      facts: { platform: name, offers: device.platforms },
    }));
}
