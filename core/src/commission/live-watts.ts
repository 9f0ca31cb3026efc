import type { JobLookup } from '../job/lookup.js';
import type { ChosenChannel } from '../job/targets.js';
import { loadsOfChannel } from './channel-loads.js';

type Which = Pick<ChosenChannel, 'box' | 'position' | 'device' | 'channel'>;

/** What the loads of a channel are to draw when fully on, W. */
export function expectedWatts(at: Which, known: JobLookup): number {
  return loadsOfChannel(known, at).reduce((sum, { count, wattsEach }) => sum + count * wattsEach, 0);
}

/** What a channel's meter says against what is to be drawn. */
export type WattsVerdict =
  | { verdict: 'unknown' | 'as-expected' }
  /** `lamps`: so many of the channel's only kind of lamp are dark or missing. */
  | { verdict: 'less'; expected: number; lamps: number | null }
  | { verdict: 'none' | 'more'; expected: number };

/** Lamps differ by so much from what they are sold as. */
const TOLERANCE = 0.2;
/** A meter in a switch tells nothing below this, W. */
const LEAST = 2;

/**
 * Judges the watts of a channel that is fully on; of a dimmed or switched-off one nothing can be said.
 * @param watts as the device tells it
 */
export function judgeWatts(
  at: Which,
  { on, level, watts }: { on: boolean; level: number | null; watts: number },
  known: JobLookup,
): WattsVerdict {
  const loads = loadsOfChannel(known, at);
  const expected = expectedWatts(at, known);
  if (!on || (level !== null && level < 100) || expected < LEAST) return { verdict: 'unknown' };
  const off = watts - expected;
  if (Math.abs(off) <= Math.max(LEAST, TOLERANCE * expected)) return { verdict: 'as-expected' };
  if (off > 0) return { verdict: 'more', expected };
  if (watts < LEAST) return { verdict: 'none', expected };
  const [only, second] = loads;
  const lamps = only && !second && only.count > 1 ? Math.round(-off / only.wattsEach) : null;
  return { verdict: 'less', expected, lamps: lamps === 0 ? null : lamps };
}
