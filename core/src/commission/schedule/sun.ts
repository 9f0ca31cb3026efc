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

/** Where the sun was at an instant: minutes, any fraction, and degrees above the line. */
interface Look {
  at: number;
  height: number;
}

/**
 * Every rise and set of the sun between two instants, in order. The sun is highest and lowest once a day:
 * between these it crosses the line once or not at all, however near the pole.
 */
export function sunEvents(spot: Spot, from: number, to: number): SunEvent[] {
  const looks: Look[] = [];
  const look = (at: number) => looks.push({ at, height: height(at, spot) });
  for (let day = Math.floor(from / DAY) - 2; day * DAY <= to + 2 * DAY; day += 1) {
    const noon = getTimes(
      new Date((day + 0.5) * DAY * MS_OF_MINUTE),
      spot.latitude,
      spot.longitude,
    ).solarNoon.getTime();
    look(noon / MS_OF_MINUTE - DAY / 2);
    look(noon / MS_OF_MINUTE);
  }
  const events: SunEvent[] = [];
  for (let index = 1; index < looks.length; index += 1) {
    const [before, after] = [looks[index - 1] as Look, looks[index] as Look];
    if (before.height > 0 === after.height > 0) continue;
    const at = Math.round(crossed(before, after, spot));
    if (at >= from && at < to) events.push({ kind: after.height > 0 ? 'sunrise' : 'sunset', at });
  }
  return events;
}

/** How near to the instant of a crossing is near enough; minutes. */
const SECOND = 1 / 60;

/**
 * The instant at which the sun passes the line between two at which it is on either side; to a second. False
 * position, in which a side that stays counts half as much each time (Illinois): near the horizon the sun's
 * path is almost straight, so that this takes far fewer looks than halving.
 */
function crossed(before: Look, after: Look, spot: Spot): number {
  let [low, high] = [before.at, after.at];
  let [atLow, atHigh] = [before.height, after.height];
  let stays: 'low' | 'high' | null = null;
  while (high - low > SECOND) {
    const guess = low + ((high - low) * atLow) / (atLow - atHigh);
    // Half a second off either side, so that both close in.
    const at = Math.min(Math.max(guess, low + SECOND / 2), high - SECOND / 2);
    const now = height(at, spot);
    if (now > 0 === before.height > 0) {
      if (stays === 'high') atHigh /= 2;
      [low, atLow, stays] = [at, now, 'high'];
    } else {
      if (stays === 'low') atLow /= 2;
      [high, atHigh, stays] = [at, now, 'low'];
    }
  }
  return (low + high) / 2;
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
