import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import { exampleJob } from '../../test-support/examples.js';
import { dayNumber } from './calendar.js';
import { calendarFile } from './calendar-file.js';
import { scheduleOf } from './schedule.js';

const room = exampleJob('long-room');
const fromDay = dayNumber('2026-03-01') ?? 0;
const file = calendarFile(lookup(room), fromDay, fromDay * 1440);
const unfolded = file.replaceAll('\r\n ', '').split('\r\n');

/** Events with their fields. */
function events(lines: readonly string[]): Map<string, string>[] {
  const found: Map<string, string>[] = [];
  for (const line of lines) {
    if (line === 'BEGIN:VEVENT') found.push(new Map());
    const colon = line.indexOf(':');
    found.at(-1)?.set(line.slice(0, colon), line.slice(colon + 1));
  }
  return found;
}

test('lines end as they have to and are no longer than 75 octets', () => {
  expect(file.endsWith('END:VCALENDAR\r\n')).toBe(true);
  for (const line of file.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  const long = structuredClone(room);
  const [rule] = long.automations;
  if (rule) rule.name = 'Ånd, så; tændes \\ lampen 𐐨 over døren '.repeat(6);
  const folded = calendarFile(lookup(long), fromDay, 0);
  for (const line of folded.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
  expect(folded.replaceAll('\r\n ', '')).toContain(
    'SUMMARY:Ånd\\, så\\; tændes \\\\ lampen 𐐨 over døren Ånd',
  );
});

test('a rule by the clock repeats for ever in the zone of the site, whose changes are told', () => {
  const picture = events(unfolded).find((event) => event.get('UID') === 'picture-on.always');
  expect(picture?.get('DTSTART;TZID=Europe/London')).toBe('20260301T063000');
  expect(picture?.get('RRULE')).toBe('FREQ=DAILY');
  const friday = events(unfolded).find((event) => event.get('UID')?.startsWith('friday.'));
  expect([friday?.get('DTSTART;TZID=Europe/London'), friday?.get('RRULE')]).toEqual([
    '20260306T230000',
    'FREQ=WEEKLY;BYDAY=FR',
  ]);
  const spring = unfolded.indexOf('DTSTART:20260329T010000');
  expect(unfolded.slice(spring - 1, spring + 3)).toEqual([
    'BEGIN:DAYLIGHT',
    'DTSTART:20260329T010000',
    'TZOFFSETFROM:+0000',
    'TZOFFSETTO:+0100',
  ]);
  expect(events(unfolded).some((event) => event.get('UID')?.startsWith('away.'))).toBe(false);
});

test('by the sun, and where a condition takes firings away, every firing is an event', () => {
  const { firings } = scheduleOf(lookup(room), { fromDay, toDay: fromDay + 365 });
  for (const id of ['lantern-on', 'supper']) {
    const own = events(unfolded).filter((event) => event.get('UID')?.startsWith(`${id}.`));
    expect(own).toHaveLength(firings.filter(({ rule }) => rule.id === id).length);
    expect(own.every((event) => !event.has('RRULE'))).toBe(true);
  }
  // The same firing has the same name, whatever the first date.
  const later = calendarFile(lookup(room), fromDay + 100, 0)
    .replaceAll('\r\n ', '')
    .split('\r\n');
  const ids = new Set(events(unfolded).map((event) => event.get('UID')));
  const shared = events(later).filter((event) => ids.has(event.get('UID')));
  expect(shared.length).toBeGreaterThan(400);
});
