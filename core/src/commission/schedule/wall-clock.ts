import { clockAhead } from '../../units/time-zone.js';
import { DAY } from './calendar.js';

/** A stretch in which the clock keeps the same distance from UTC. Minutes since the epoch. */
interface Stretch {
  /** The first minute of it; the first stretch has none before. */
  from: number;
  ahead: number;
}

/** When the clock shows a time, and whether it shows it as usual. Minutes since the epoch. */
export interface ShownAt {
  at: number;
  clock: 'normal' | 'skipped' | 'repeated';
}

/**
 * The clock of a zone over some dates. Instants are whole minutes since the epoch, in UTC; wall time is the
 * same count by the clock on the wall, so that `wall = at + ahead`.
 */
export class WallClock {
  private readonly stretches: Stretch[];

  /** @param fromDay, toDay the first and last number of a date it is asked about; some days more are known */
  constructor(zone: string, fromDay: number, toDay: number) {
    const ahead = (at: number) => clockAhead(zone, at * 60_000);
    let day = (fromDay - MARGIN) * DAY;
    let before = ahead(day);
    this.stretches = [{ from: Number.NEGATIVE_INFINITY, ahead: before }];
    // No zone changes its clock twice within a day.
    for (const end = (toDay + MARGIN) * DAY; day < end; day += DAY) {
      const after = ahead(day + DAY);
      if (before === after) continue;
      let [low, high] = [day, day + DAY];
      while (high - low > 1) {
        const middle = Math.floor((low + high) / 2);
        if (ahead(middle) === before) low = middle;
        else high = middle;
      }
      this.stretches.push({ from: high, ahead: after });
      before = after;
    }
  }

  /** Every change of the clock: the first minute after it, and by how many minutes it was and is ahead. */
  changes(): { at: number; was: number; ahead: number }[] {
    return this.stretches.slice(1).map(({ from, ahead }, before) => ({
      at: from,
      was: this.stretches[before]?.ahead ?? 0,
      ahead,
    }));
  }

  /** What the wall shows at an instant. */
  wallAt(at: number): number {
    let index = this.stretches.length - 1;
    while ((this.stretches[index]?.from ?? 0) > at) index -= 1;
    return at + (this.stretches[index]?.ahead ?? 0);
  }

  /** The number of the local date of an instant. */
  dayAt(at: number): number {
    return Math.floor(this.wallAt(at) / DAY);
  }

  /**
   * When the wall shows a time. One that it shows twice is the first; one that it never shows is read with
   * the distance before the gap, and so comes later by the gap (RFC 5545, 3.3.5).
   */
  instantOf(wall: number): ShownAt {
    let first: number | null = null;
    let before = 0;
    for (const [index, { from, ahead }] of this.stretches.entries()) {
      const at = wall - ahead;
      if (at < from) continue;
      before = ahead;
      if (at >= (this.stretches[index + 1]?.from ?? Number.POSITIVE_INFINITY)) continue;
      if (first !== null) return { at: first, clock: 'repeated' };
      first = at;
    }
    return first === null ? { at: wall - before, clock: 'skipped' } : { at: first, clock: 'normal' };
  }

  /** The first instant of a date. */
  startOf(day: number): number {
    const { at, clock } = this.instantOf(day * DAY);
    if (clock !== 'skipped') return at;
    // Midnight itself is skipped: the date begins where the clock jumps.
    return (
      this.stretches.find(({ from }) => from > at - 2 * DAY && this.wallAt(from) > day * DAY)?.from ?? at
    );
  }
}

/** Days known on either side of those asked about. */
const MARGIN = 3;
