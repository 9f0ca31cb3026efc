import type { Channel } from '../job/schema/catalogue.js';
import type { Load } from '../job/schema/job.js';
import type { LoadKind } from '../job/schema/primitives.js';
import { demand } from './demand.js';

const MOTORS: ReadonlySet<LoadKind> = new Set(['fan-ac', 'fan-dc', 'fan-remote', 'exhaust-fan', 'motor']);

interface RatingShare {
  loadId: string;
  /** What the load draws in the rating's unit, and the limit after removed sides. */
  quantity: number;
  limit: number;
  unit: 'W' | 'VA' | 'A';
  share: number;
}

export interface RatingResult {
  verdict: 'ok' | 'margin' | 'over';
  /** Shares of the ratings, added up; 1 is full. */
  share: number;
  /** What the share may reach: 1, or the margin with a motor on a relay. */
  limit: number;
  shares: RatingShare[];
  /** Loads of a kind the channel has no rating for. */
  unrated: Load[];
}

/**
 * Loads on one channel against its ratings, after `removedSides` fins (0 to 2) have been broken off. Each
 * load counts against the ratings of its kind in the rating's own unit; of several the tightest; the shares
 * of mixed loads add up.
 * @param margin share of a rating to keep to (`figuresInUse`); with a motor on a relay it is the limit
 */
export function rateChannel(
  channel: Channel,
  loads: readonly Load[],
  volts: number,
  removedSides: number,
  margin: number,
): RatingResult {
  const shares: RatingShare[] = [];
  const unrated: Load[] = [];
  for (const load of loads) {
    const drawn = demand(load, volts);
    const quantities = { W: drawn.watts, VA: drawn.voltAmperes, A: drawn.amps };
    let tightest: RatingShare | undefined;
    for (const rating of channel.ratings) {
      if (!rating.kinds.includes(load.kind)) continue;
      const limit = rating.limit[Math.min(removedSides, rating.limit.length - 1)] ?? 0;
      const quantity = quantities[rating.unit];
      const share = quantity === 0 ? 0 : limit > 0 ? quantity / limit : Number.MAX_VALUE;
      if (!tightest || share > tightest.share)
        tightest = { loadId: load.id, quantity, limit, unit: rating.unit, share };
    }
    if (tightest) shares.push(tightest);
    else unrated.push(load);
  }
  const share = shares.reduce((sum, entry) => sum + entry.share, 0);
  const motor = channel.kind === 'relay' && loads.some((load) => MOTORS.has(load.kind));
  const limit = motor ? margin : 1;
  const verdict = share > limit + 1e-9 ? 'over' : share > margin + 1e-9 ? 'margin' : 'ok';
  return { verdict, share, limit, shares, unrated };
}
