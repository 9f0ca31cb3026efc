import type { Automation } from '../../job/schema/commissioning.js';
import { DAY, isDayOf, minuteOfDay } from './calendar.js';
import { darkness } from './sun.js';
import type { Firing, Rule, ScheduleGround } from './vocabulary.js';
import type { ShownAt } from './wall-clock.js';

/**
 * When the rules by the clock and by the sun fire: everything whose instant is on a local date of the range,
 * of whatever date the rule's day or event was. By time, then by the rule's id.
 */
export function firingsOf(ground: ScheduleGround): Firing[] {
  const holds = conditionJudge(ground);
  const firings: Firing[] = [];
  for (const rule of ground.rules)
    for (const { at, clock } of momentsOf(rule, ground)) {
      const wall = ground.clock.wallAt(at);
      if (isWithin(wall, ground) && holds(rule, at, wall)) firings.push({ rule, at, wall, clock });
    }
  return byTime(firings);
}

const isWithin = (wall: number, { fromDay, toDay }: ScheduleGround) =>
  wall >= fromDay * DAY && wall < toDay * DAY;

/**
 * By time; rules stand by their ids already, and that order is kept. One number for each, of its time and
 * its place, sorts many times as fast as the firings themselves.
 */
function byTime(firings: readonly Firing[]): Firing[] {
  const count = firings.length;
  const numbers = new Float64Array(count);
  firings.forEach(({ at }, place) => {
    numbers[place] = at * count + place;
  });
  const sorted: Firing[] = [];
  for (const number of numbers.sort())
    sorted.push(firings[number - Math.floor(number / count) * count] as Firing);
  return sorted;
}

function momentsOf(rule: Rule, ground: ScheduleGround): ShownAt[] {
  const { when } = rule.automation;
  if (when.at !== undefined) return byTheClock(rule.automation, minuteOfDay(when.at), ground);
  return when.sun === undefined ? [] : byTheSun(rule.automation, ground);
}

/** A wall time on its days. One that is skipped may come on the next date. */
function byTheClock({ days }: Automation, minute: number, ground: ScheduleGround): ShownAt[] {
  const moments: ShownAt[] = [];
  for (let day = ground.fromDay - 2; day < ground.toDay + 1; day += 1)
    if (isDayOf(day, days)) moments.push(ground.clock.instantOf(day * DAY + minute));
  return moments;
}

/** The sun's events on its days, with the offset: the days are those of the event. */
function byTheSun({ when, days }: Automation, { sun }: ScheduleGround): ShownAt[] {
  const moments: ShownAt[] = [];
  for (const { day, sunrise, sunset } of sun?.days ?? []) {
    const event = when.sun === 'sunrise' ? sunrise : sunset;
    if (event !== null && isDayOf(day, days))
      moments.push({ at: Math.round(event + (when.offset ?? 0)), clock: 'normal' });
  }
  return moments;
}

/** Judges the condition of a rule at an instant, whose wall time is given too. */
function conditionJudge({ sun }: ScheduleGround) {
  const isDark = sun && darkness(sun.spot, sun.events);
  return ({ hours, automation }: Rule, at: number, wall: number): boolean => {
    if (hours && !isBetween(((wall % DAY) + DAY) % DAY, hours.from, hours.to)) return false;
    return automation.if?.dark !== true || isDark?.(at) === true;
  };
}

/** `from` inclusive, `to` exclusive; across midnight when `to` is not after it, and always when equal. */
function isBetween(minute: number, from: number, to: number): boolean {
  if (from === to) return true;
  return from < to ? minute >= from && minute < to : minute >= from || minute < to;
}
