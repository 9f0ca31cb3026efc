import type { JobLookup } from '../../job/lookup.js';
import { DAYS } from '../../job/schema/commissioning.js';
import { DAY, instantText, isDayOf, minuteOfDay, wallText } from './calendar.js';
import { firingsOf } from './firings.js';
import { scheduleGround } from './schedule.js';
import type { Firing, Rule, ScheduleGround } from './vocabulary.js';
import { WallClock } from './wall-clock.js';

/** Over so many local dates its events are the firings of the schedule. */
const SPAN_DAYS = 365;
/** Changes of the clock are told so far ahead, days: an endless rule goes on beyond the span. */
const ZONE_DAYS = 3660;

/**
 * The rules by the clock and the sun as an iCalendar file (RFC 5545). A rule by the clock is one event that
 * repeats for ever in the site's zone; where its condition takes some of its firings away, and for the sun,
 * every firing is an event. Expects a job that lacks nothing for its schedule.
 * @param fromDay number of the first local date
 * @param stamp minutes since the epoch: when what is said of the rules was last changed
 */
export function calendarFile(known: JobLookup, fromDay: number, stamp: number): string {
  const ground = scheduleGround(known, { fromDay, toDay: fromDay + SPAN_DAYS });
  const zone = known.job.site?.timeZone ?? 'UTC';
  const firings = firingsOf(ground);
  const events = ground.rules.flatMap((rule) => {
    const own = firings.filter((firing) => firing.rule === rule);
    if (rule.automation.when.at === undefined && rule.automation.when.sun === undefined) return [];
    return repeats(rule, own, ground)
      ? [endless(rule, zone, { fromDay, stamp })]
      : own.map((firing) => single(firing, stamp));
  });
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Inventario//Rules of the house//EN',
    ...zoneLines(zone, fromDay),
    ...events.flat(),
    'END:VCALENDAR',
  ];
  return lines.map((line) => `${folded(line)}\r\n`).join('');
}

/** Whether every time of the rule is a firing, so that it can be told as one that repeats. */
function repeats({ automation }: Rule, own: readonly Firing[], ground: ScheduleGround): boolean {
  if (automation.when.at === undefined) return false;
  if (automation.if === undefined) return true;
  let days = 0;
  for (let day = ground.fromDay; day < ground.toDay; day += 1) if (isDayOf(day, automation.days)) days += 1;
  return own.length === days;
}

function endless(
  { automation }: Rule,
  zone: string,
  { fromDay, stamp }: { fromDay: number; stamp: number },
): string[] {
  let day = fromDay;
  while (!isDayOf(day, automation.days)) day += 1;
  const wall = day * DAY + minuteOfDay(automation.when.at ?? '00:00');
  const byDay = automation.days && DAYS.filter((one) => automation.days?.includes(one));
  const rule = byDay
    ? `FREQ=WEEKLY;BYDAY=${byDay.map((one) => one.slice(0, 2).toUpperCase()).join(',')}`
    : 'FREQ=DAILY';
  return [
    ...head(automation, `${automation.id}.always`, stamp),
    `DTSTART;TZID=${zone}:${compact(wallText(wall))}00`,
    `RRULE:${rule}`,
    'END:VEVENT',
  ];
}

function single({ rule: { automation }, at }: Firing, stamp: number): string[] {
  const start = utc(at);
  return [...head(automation, `${automation.id}.${start}`, stamp), `DTSTART:${start}`, 'END:VEVENT'];
}

const head = ({ name }: Rule['automation'], uid: string, stamp: number) => [
  'BEGIN:VEVENT',
  `UID:${uid}`,
  `DTSTAMP:${utc(stamp)}`,
  `SUMMARY:${escaped(name)}`,
];

/** The changes of the zone's clock, each as an observance of its own. */
function zoneLines(zone: string, fromDay: number): string[] {
  const clock = new WallClock(zone, fromDay - SPAN_DAYS, fromDay + ZONE_DAYS);
  const changes = clock.changes();
  const start = (fromDay - SPAN_DAYS) * DAY;
  const first = clock.wallAt(start) - start;
  const observances = [{ at: start, was: first, ahead: first }, ...changes.filter(({ at }) => at > start)];
  return [
    'BEGIN:VTIMEZONE',
    `TZID:${zone}`,
    ...observances.flatMap(({ at, was, ahead }) => {
      const kind = ahead > was ? 'DAYLIGHT' : 'STANDARD';
      return [
        `BEGIN:${kind}`,
        // By the clock as it was before the change.
        `DTSTART:${compact(wallText(at + was))}00`,
        `TZOFFSETFROM:${distance(was)}`,
        `TZOFFSETTO:${distance(ahead)}`,
        `END:${kind}`,
      ];
    }),
    'END:VTIMEZONE',
  ];
}

function distance(minutes: number): string {
  const [hours, rest] = [Math.floor(Math.abs(minutes) / 60), Math.abs(minutes) % 60];
  const two = (count: number) => String(count).padStart(2, '0');
  return `${minutes < 0 ? '-' : '+'}${two(hours)}${two(rest)}`;
}

const compact = (text: string) => text.replaceAll(/[-:]/g, '');
const utc = (at: number) => compact(instantText(at));

/** A text as a value: control characters are spaces. */
function escaped(text: string): string {
  return text.replaceAll(/\p{Cc}/gu, ' ').replaceAll(/[\\;,]/g, (sign) => `\\${sign}`);
}

const MOST_OCTETS = 75;

/** Long lines go on behind a space, cut between characters. */
function folded(line: string): string {
  const parts: string[] = [];
  let [part, octets] = ['', 0];
  for (const character of line) {
    const size = octetsOf(character);
    if (octets + size > MOST_OCTETS) {
      parts.push(part);
      // The space before what goes on counts too.
      [part, octets] = ['', 1];
    }
    part += character;
    octets += size;
  }
  return [...parts, part].join('\r\n ');
}

/** Octets of a character in UTF-8. */
function octetsOf(character: string): number {
  const code = character.codePointAt(0) ?? 0;
  return 1 + [0x80, 0x800, 0x10000].filter((more) => code >= more).length;
}
