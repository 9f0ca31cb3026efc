import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import { exampleJob } from '../../test-support/examples.js';
import { dayNumber } from './calendar.js';
import { firingsOfDay, overviewOf } from './overview.js';
import { scheduleOf } from './schedule.js';

const porch = { boxId: 'gate', position: 1, channel: 1 };
const rule = (id: string, at: string, does: 'on' | 'off' | 'toggle') => ({
  id,
  name: `Rule ${id}`,
  lives: 'Orrery',
  when: { at },
  then: [{ target: porch, do: does }],
});

/** Three rules at a porch: two of them in the same minute every day. */
function clashing(): Job {
  const job = structuredClone(exampleJob('long-room'));
  job.opposites = [];
  job.automations = [rule('a', '18:00', 'on'), rule('b', '18:00', 'off'), rule('c', '23:00', 'toggle')];
  return job;
}

const fromDay = dayNumber('2026-10-20') ?? 0;

test('a conflict that comes every day is one, with how often it comes; every third date is shown', () => {
  const schedule = scheduleOf(lookup(clashing()), { fromDay, toDay: fromDay + 9 });
  const overview = overviewOf(schedule, 3);
  expect(overview.firings).toBe(27);
  expect(overview.conflicts).toMatchObject([
    { finding: { code: 'clash', automationIds: ['a', 'b'] }, times: 9 },
  ]);
  // By the clock on the wall, also after it was put back on the 25th.
  expect(overview.troubles).toEqual([0, 3, 6].map((later) => ({ day: fromDay + later, minute: 18 * 60 })));
  expect(overview.marks.map(({ day, minute, effect }) => [day - fromDay, minute / 60, effect])).toEqual(
    [0, 3, 6].flatMap((day) => [
      [day, 18, 'on'],
      [day, 18, 'off'],
      [day, 23, 'other'],
    ]),
  );
  expect(overview.sunrises).toHaveLength(9);
  expect(overview.sunrises.every(({ minute }) => minute > 5 * 60 && minute < 9 * 60)).toBe(true);
});

test('a day has each of its firings, with those that clash', () => {
  const schedule = scheduleOf(lookup(clashing()), { fromDay, toDay: fromDay + 3 });
  expect(firingsOfDay(schedule, fromDay + 1)).toEqual(
    [
      ['a', 18, 'on', true],
      ['b', 18, 'off', true],
      ['c', 23, 'other', false],
    ].map(([id, hour, effect, clashes]) => ({
      automationId: id,
      name: `Rule ${id}`,
      minute: Number(hour) * 60,
      effect,
      clock: 'normal',
      clashes,
    })),
  );
  expect(firingsOfDay(schedule, fromDay + 7)).toEqual([]);
});
