import type { PracticeId } from '../terms/trade.js';
import type { PracticeProfile } from './profile.js';

/** A box of a practice's table, as a catalogue keeps it. Its volume is in the unit the trade gives it in. */
export interface StandardBox {
  id: string;
  practice: PracticeId;
  name: string;
  mL?: number;
  in3?: number;
  gangs: number;
  depth: number;
  material: 'metal';
  forDevices?: false;
}

/** Boxes for lights: a switch's yoke does not go on them without a cover made for it. */
const CEILING = /^(ca-)?oct-/;

/** The standard metal boxes of a practice as catalogue records, ready to be taken into a job. */
export function standardBoxes(profile: Pick<PracticeProfile, 'id' | 'boxes' | 'volumesIn'>): StandardBox[] {
  return profile.boxes.rows.map(([id, name, volume, depth, gangs = 1]) => ({
    id,
    practice: profile.id,
    name,
    [profile.volumesIn]: volume,
    gangs,
    depth,
    material: 'metal' as const,
    ...(CEILING.test(id) ? { forDevices: false as const } : {}),
  }));
}
