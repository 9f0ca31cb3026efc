import type { PracticeId } from '../terms/trade.js';
import { CA } from './ca.js';
import { GB } from './gb.js';
import { MODULAR } from './modular.js';
import type { PracticeProfile } from './profile.js';
import { US } from './us.js';

/** Every practice there is, in the order they are offered. A further one is a further object in this list. */
export const PROFILES: Record<PracticeId, PracticeProfile> = { us: US, ca: CA, gb: GB, modular: MODULAR };

/**
 * The one way from the name of a practice to what it says.
 * @throws when there is no such practice
 */
export function profileOf(job: { practice: PracticeId }): PracticeProfile {
  const profile = PROFILES[job.practice];
  if (!profile) throw new Error(`No practice "${job.practice}": a practice is an object in PROFILES`);
  return profile;
}
