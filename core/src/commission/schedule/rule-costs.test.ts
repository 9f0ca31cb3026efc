import { expect, test } from '@jest/globals';
import { referenceProblems } from '../../document/references.js';
import { lookup } from '../../job/lookup.js';
import { exampleJob } from '../../test-support/examples.js';
import { dayNumber } from './calendar.js';
import { offOnLeaving } from './off-on-leaving.js';
import { scheduleOf } from './schedule.js';

const room = exampleJob('long-room');

test('a rule costs what it keeps on, until something switches it off', () => {
  const job = structuredClone(room);
  const target = { boxId: 'gate', position: 1, channel: 1 };
  job.opposites = [];
  job.automations = JSON.parse(
    JSON.stringify([
      { id: 'on', name: 'on', lives: 'Orrery', when: { at: '18:00' }, then: [{ target, do: 'on' }] },
      { id: 'off', name: 'off', lives: 'Orrery', when: { at: '23:00' }, then: [{ target, do: 'off' }] },
      {
        id: 'tap',
        name: 'tap',
        lives: 'Orrery',
        when: { tap: target, times: 2 },
        then: [{ target, do: 'on' }],
      },
    ]),
  );
  const fromDay = dayNumber('2026-06-01') ?? 0;
  const { costs } = scheduleOf(lookup(job), { fromDay, toDay: fromDay + 73 }, 30);
  // One lamp of 8 W, five hours a day: 14.6 kWh a year, at 30 a kWh.
  expect(costs).toEqual([
    {
      automationId: 'on',
      hours: expect.closeTo(1825, 6),
      kWh: expect.closeTo(14.6, 6),
      cost: expect.closeTo(438, 4),
    },
    { automationId: 'tap', hours: null, kWh: null, cost: null },
  ]);
});

test('everything off on leaving: what the platform has, but never the supply of smart bulbs', () => {
  const rule = offOnLeaving(lookup(room), 'Hearthside', () => 'leaving');
  const ids = rule.then?.map(
    ({ target, do: what }) => `${target.thingId ?? `${target.boxId}/${target.channel}`} ${what}`,
  );
  // The porch device is not on Hearthside, the snug's bulbs would be lost, the eye is a sensor.
  expect(ids).toEqual(['door/1 off', 'door/2 off', 'nook/2 off', 'lantern off', 'drier off']);
  const job = { ...room, automations: [...room.automations, rule] };
  expect(referenceProblems(job)).toEqual([]);
  const { findings } = scheduleOf(lookup({ ...job, automations: [rule] }), {
    fromDay: 20_000,
    toDay: 20_001,
  });
  expect(findings).toEqual([]);
});
