import { describe, expect, test } from '@jest/globals';
import type { Device } from '../job/schema/catalogue.js';
import { exampleJob } from '../test-support/examples.js';
import { possibleDevices } from './possible-devices.js';
import { answeredQuestions, QUESTIONS } from './questions.js';
import { usualBrief } from './usual-brief.js';
import { usualNeed } from './usual-need.js';

describe('devices a brief leaves', () => {
  const job = exampleJob('shed');
  const [wifi, mesh] = job.catalogue.devices as [Device, Device];
  job.catalogue.devices.push(
    { ...wifi, id: 'abroad', practices: ['gb'] },
    { ...wifi, id: 'mute', radio: 'none' },
  );

  test('made for the practice and with a radio', () => {
    expect(possibleDevices(job, undefined)).toEqual({ made: 2, possible: 2, liked: 2 });
  });
  test('a must rules out, a like only counts', () => {
    expect(possibleDevices(job, { radios: ['mesh'] })).toEqual({ made: 2, possible: 1, liked: 1 });
    expect(possibleDevices(job, { platforms: [{ name: 'Elsewhere', want: 'must' }] })).toMatchObject({
      possible: 0,
    });
    expect(possibleDevices(job, { platforms: [{ name: 'Elsewhere', want: 'nice' }] })).toEqual({
      made: 2,
      possible: 2,
      liked: 0,
    });
    mesh.actuator = 'dial';
    expect(possibleDevices(job, { feel: { actuators: ['dial'] } })).toEqual({
      made: 2,
      possible: 2,
      liked: 1,
    });
  });
});

test('questions count as asked by what the brief holds, not by what it defaults to', () => {
  const job = exampleJob('pantry');
  expect([...answeredQuestions({ ...job, brief: undefined, boxes: [] } as never)]).toEqual([]);
  const all = answeredQuestions({
    ...job,
    brief: { ...job.brief, hubsOwned: [], feel: { actuators: ['paddle'], onLevel: 'last' }, budget: 1 },
  });
  expect(QUESTIONS.filter((question) => !all.has(question))).toEqual([]);
});

test('the usual fills what nobody asked and leaves what was answered; what only the client knows stays open', () => {
  const brief = usualBrief({ colour: 'black', radios: ['mesh'], feel: { onLevel: 'full' } });
  expect(brief).toMatchObject({
    colour: 'black',
    radios: ['mesh'],
    feel: { onLevel: 'full', indicator: 'any' },
    trialFirst: true,
  });
  expect([brief.platforms, brief.hubsOwned, brief.budget, brief.wifi?.clientsNow]).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
});

test.each([
  ['a fan asks for speeds', [{ kind: 'fan-ac', count: 1 }], { smart: true, dim: 'no', fanSpeed: true }],
  [
    'an exhaust fan for humidity',
    [{ kind: 'exhaust-fan', count: 1 }],
    { smart: true, dim: 'no', senses: ['humidity'] },
  ],
  [
    'smart bulbs for constant power',
    [{ kind: 'smart-bulb', count: 4 }],
    { smart: true, dim: 'no', constantPower: true },
  ],
  ['several lamps for dimming if it can be had', [{ kind: 'led', count: 6 }], { smart: true, dim: 'nice' }],
  [
    'lamps that cannot be dimmed do not',
    [{ kind: 'led', count: 6, dimmable: false }],
    { smart: true, dim: 'no' },
  ],
  ['nothing recorded: nothing smart', [], { smart: false, dim: 'no' }],
] as const)('%s', (_, loads, need) => {
  expect(usualNeed(loads)).toEqual(need);
});
