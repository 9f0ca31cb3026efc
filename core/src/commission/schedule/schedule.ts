import type { JobLookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import { chosenChannels } from '../../job/targets.js';
import { DAY } from './calendar.js';
import { firingFindings } from './day-findings.js';
import { firingsOf } from './firings.js';
import { ruleCosts } from './rule-costs.js';
import { ruleFindings, sunlessRules } from './rule-findings.js';
import { enabledRules, needsSun } from './rules.js';
import { sunDays, sunEvents } from './sun.js';
import type { Schedule, ScheduleGround, SunGround } from './vocabulary.js';
import { WallClock } from './wall-clock.js';

/** A range of local dates, by their numbers; `toDay` is the first after it. */
export interface DateRange {
  fromDay: number;
  toDay: number;
}

/** The field of the job without which its schedule cannot be told; null where all is there. */
export function scheduleLacks({
  job,
}: JobLookup): '/site/timeZone' | '/site/latitude' | '/site/longitude' | null {
  if (job.site?.timeZone === undefined) return '/site/timeZone';
  if (!job.automations.some((rule) => rule.enabled !== false && needsSun(rule))) return null;
  if (job.site.latitude === undefined) return '/site/latitude';
  return job.site.longitude === undefined ? '/site/longitude' : null;
}

/**
 * What the rules of all apps do over some local dates: each firing by the clock or the sun, and what clashes.
 * Expects a job that lacks nothing for it ({@link scheduleLacks}).
 * @param tariff minor units a kWh, for what each rule costs in a year; null: not told
 */
export function scheduleOf(known: JobLookup, range: DateRange, tariff: number | null = null): Schedule {
  const ground = scheduleGround(known, range);
  const days = ground.sun?.days.filter(({ day }) => day >= range.fromDay && day < range.toDay);
  const firings = firingsOf(ground);
  return {
    timeZone: known.job.site?.timeZone ?? '',
    days: days ?? sunless(range),
    firings,
    wallAt: (at) => ground.clock.wallAt(at),
    costs: ruleCosts(ground, firings, tariff),
    findings: [
      ...firingFindings(firings, ground),
      ...sunlessRules(days ?? [], ground),
      ...ruleFindings(ground),
    ],
  };
}

export function scheduleGround(known: JobLookup, { fromDay, toDay }: DateRange): ScheduleGround {
  const { site } = known.job;
  if (site?.timeZone === undefined)
    throw new Error('A schedule needs site.timeZone: ask scheduleLacks before');
  // Every channel of a chosen device may be a target; only those with a radio stand in for a room.
  const chosen = chosenChannels(known);
  const rules = enabledRules(
    known,
    chosen.filter(({ device }) => device.radio !== 'none'),
  );
  const farthest = Math.max(0, ...rules.map(({ automation }) => Math.abs(automation.when.offset ?? 0)));
  const margin = Math.ceil(farthest / DAY) + 2;
  const range = { fromDay: fromDay - margin, toDay: toDay + margin };
  const clock = new WallClock(site.timeZone, range.fromDay, range.toDay);
  return {
    known,
    rules,
    channels: new Map(chosen.map((channel) => [channel.id, channel])),
    clock,
    fromDay,
    toDay,
    sun: sunGround(site, { ...range, clock }),
  };
}

function sunGround(
  { latitude, longitude }: NonNullable<Job['site']>,
  range: DateRange & { clock: WallClock },
): SunGround | null {
  if (latitude === undefined || longitude === undefined) return null;
  const spot = { latitude, longitude };
  const events = sunEvents(spot, (range.fromDay - 1) * DAY, (range.toDay + 1) * DAY);
  return { spot, events, days: sunDays(spot, events, range) };
}

function sunless({ fromDay, toDay }: DateRange): Schedule['days'] {
  return Array.from({ length: toDay - fromDay }, (_, index) => ({
    day: fromDay + index,
    sunrise: null,
    sunset: null,
    sun: null,
  }));
}
