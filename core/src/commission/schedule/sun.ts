import { getPosition, getTimes } from 'suncalc';
import { DAY } from './calendar.js';
import type { WallClock } from './wall-clock.js';

export interface Spot {
  latitude: number;
  longitude: number;
}

export interface SunEvent {
  kind: 'sunrise' | 'sunset';
  /** Whole minutes since the epoch. */
  at: number;
}

/** The sun of one local date: the first rise and the first set, minutes since the epoch. */
export interface SunDay {
  day: number;
  sunrise: number | null;
  sunset: number | null;
  sun: 'rises' | 'always-up' | 'always-down';
}

const MS_OF_MINUTE = 60_000;

/** The upper limb on a sea horizon: altitude of the centre without refraction, degrees. */
const ON_THE_HORIZON = -0.833;
/**
 * What the package adds for refraction at the horizon and everywhere below it, degrees: its formula (Meeus
 * 16.4) at an altitude of 0. Its own times of rise and set are not used: they take the declination of noon,
 * which fails on the first and last days of a polar summer.
 */
const HORIZON_REFRACTION = (0.0002967 / Math.tan(0.00312536 / 0.08901179)) * (180 / Math.PI);

/** How far the sun is above the rising line, degrees; negative below. @param at minutes, any fraction */
function height(at: number, spot: Spot): number {
  const { altitude } = getPosition(new Date(at * MS_OF_MINUTE), spot.latitude, spot.longitude);
  return altitude - HORIZON_REFRACTION - ON_THE_HORIZON;
}

/**
 * Every rise and set of the sun between two instants, in order. The sun is highest and lowest once a day:
 * between these it crosses the line once or not at all, however near the pole.
 */
export function sunEvents(spot: Spot, from: number, to: number): SunEvent[] {
  const turns: number[] = [];
  for (let day = Math.floor(from / DAY) - 2; day * DAY <= to + 2 * DAY; day += 1) {
    const noon = getTimes(
      new Date((day + 0.5) * DAY * MS_OF_MINUTE),
      spot.latitude,
      spot.longitude,
    ).solarNoon.getTime();
    turns.push(noon / MS_OF_MINUTE - DAY / 2, noon / MS_OF_MINUTE);
  }
  const events: SunEvent[] = [];
  const heights = turns.map((at) => height(at, spot));
  for (let index = 1; index < turns.length; index += 1) {
    const [before = 0, after = 0] = [heights[index - 1], heights[index]];
    if (before > 0 === after > 0) continue;
    const crossing = crossed(turns[index - 1] ?? 0, turns[index] ?? 0, spot, after > 0);
    const at = Math.round(crossing);
    if (at >= from && at < to) events.push({ kind: after > 0 ? 'sunrise' : 'sunset', at });
  }
  return events;
}

/** The instant at which the sun passes the line between two at which it is on either side; to a second. */
function crossed(low: number, high: number, spot: Spot, rising: boolean): number {
  let [below, above] = [low, high];
  while (above - below > 1 / 60) {
    const middle = (below + above) / 2;
    if (height(middle, spot) > 0 === rising) above = middle;
    else below = middle;
  }
  return (below + above) / 2;
}

/** The sun of each date: an event belongs to its local date, the first where a date has two. */
export function sunDays(
  spot: Spot,
  events: readonly SunEvent[],
  { clock, fromDay, toDay }: { clock: WallClock; fromDay: number; toDay: number },
): SunDay[] {
  const first = new Map<string, number>();
  for (const { kind, at } of events) {
    const key = `${kind} ${clock.dayAt(at)}`;
    if (!first.has(key)) first.set(key, at);
  }
  const days: SunDay[] = [];
  for (let day = fromDay; day < toDay; day += 1) {
    const sunrise = first.get(`sunrise ${day}`) ?? null;
    const sunset = first.get(`sunset ${day}`) ?? null;
    const up = sunrise === null && sunset === null && isUp(clock.instantOf(day * DAY + DAY / 2).at, spot);
    days.push({
      day,
      sunrise,
      sunset,
      sun: sunrise !== null || sunset !== null ? 'rises' : up ? 'always-up' : 'always-down',
    });
  }
  return days;
}

export const isUp = (at: number, spot: Spot) => height(at, spot) > 0;

/**
 * Whether it is dark: from the minute of a sunset up to that of the next sunrise, and throughout where the
 * sun stays down. `events` hold everything a day and more about the instants asked for.
 */
export function darkness(spot: Spot, events: readonly SunEvent[]): (at: number) => boolean {
  return (at) => {
    let [low, high] = [0, events.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((events[middle]?.at ?? 0) <= at) low = middle + 1;
      else high = middle;
    }
    const last = events[low - 1];
    if (last) return last.kind === 'sunset';
    const next = events[low];
    return next ? next.kind === 'sunrise' : !isUp(at, spot);
  };
}
