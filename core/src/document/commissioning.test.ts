import { describe, expect, test } from '@jest/globals';
import { exampleText } from '../test-support/examples.js';
import { readJobFile } from './read.js';

// biome-ignore lint/suspicious/noExplicitAny: a file that is broken on purpose has no shape
type Loose = any;

/** The problems of the long room's file after a change. */
function problemsOf(change: (job: Loose) => void): { path: string; message: string }[] {
  const job = JSON.parse(exampleText('long-room'));
  change(job);
  return readJobFile(JSON.stringify(job)).problems;
}

const target = { boxId: 'door', position: 1, channel: 1 };

describe('rules, things and pairings name what is in the file', () => {
  test('the example itself is whole', () => expect(problemsOf(() => undefined)).toEqual([]));

  test.each<[string, (job: Loose) => void, string]>([
    ['a thing that is gone', (job) => job.things.splice(1, 1), '/automations/0/then/0/target/thingId'],
    [
      'a room that is none',
      (job) => Object.assign(job.automations[0].then[0], { target: { roomId: 'attic' } }),
      '/automations/0/then/0/target/roomId',
    ],
    [
      'a box that is none',
      (job) => Object.assign(job.automations[0].then[0], { target: { ...target, boxId: 'x' } }),
      '/automations/0/then/0/target/boxId',
    ],
    [
      'a place without a device',
      (job) => Object.assign(job.selections[0], { deviceId: null }),
      '/automations/2/then/0/target/position',
    ],
    [
      'a channel that is none',
      (job) => Object.assign(job.automations[0].then[0], { target: { ...target, channel: 3 } }),
      '/automations/0/then/0/target/channel',
    ],
    [
      'a target of no kind',
      (job) => Object.assign(job.automations[0].then[0], { target: {} }),
      '/automations/0/then/0/target',
    ],
    [
      'a channel without its position',
      (job) => Object.assign(job.automations[0].then[0], { target: { boxId: 'door', channel: 1 } }),
      '/automations/0/then/0/target/position',
    ],
    [
      'a sensor that is gone',
      (job) => Object.assign(job.automations[0], { when: { motion: { thingId: 'x' } } }),
      '/automations/0/when/motion/thingId',
    ],
    ['no time', (job) => Object.assign(job.automations[0].when, { at: '24:00' }), '/automations/0/when/at'],
    [
      'no time of hours',
      (job) => Object.assign(job.automations[0], { if: { from: '7:00', to: '08:00' } }),
      '/automations/0/if/from',
    ],
    [
      'half of the hours',
      (job) => Object.assign(job.automations[0], { if: { from: '07:00' } }),
      '/automations/0/if/to',
    ],
    ['no days', (job) => Object.assign(job.automations[0], { days: [] }), '/automations/0/days'],
    [
      'a day that is none',
      (job) => Object.assign(job.automations[0], { days: ['monday'] }),
      '/automations/0/days/0',
    ],
    [
      'a countdown of 0',
      (job) => Object.assign(job.automations[0], { when: { countdown: 0, of: target } }),
      '/automations/0/when/countdown',
    ],
    [
      'a countdown of nothing',
      (job) => Object.assign(job.automations[0], { when: { countdown: 5 } }),
      '/automations/0/when/of',
    ],
    [
      'nothing that starts it',
      (job) => Object.assign(job.automations[0], { when: {} }),
      '/automations/0/when',
    ],
    [
      'nothing that it does',
      (job) => Reflect.deleteProperty(job.automations[0], 'then'),
      '/automations/0/then',
    ],
    [
      'a level without a value',
      (job) => Object.assign(job.automations[0].then[0], { do: 'level' }),
      '/automations/0/then/0/value',
    ],
    [
      'opposites of a room',
      (job) => Object.assign(job.opposites[0], { a: { roomId: 'snug' } }),
      '/opposites/0/a/roomId',
    ],
    [
      'an opposite that is gone',
      (job) => Object.assign(job.opposites[0], { b: { thingId: 'x' } }),
      '/opposites/0/b/thingId',
    ],
    [
      'an app that is none',
      (job) => Object.assign(job.pairings[0], { names: { Nobody: 'x' } }),
      '/pairings/0/names/Nobody',
    ],
    [
      'a find in an app that is none',
      (job) => Object.assign(job.pairings[2].reached[1], { platform: 'Nobody' }),
      '/pairings/2/reached/1/platform',
    ],
    ['a thing in no room', (job) => Object.assign(job.things[0], { roomId: 'x' }), '/things/0/roomId'],
    [
      'a thing on no platform',
      (job) => Object.assign(job.things[0], { platforms: ['x'] }),
      '/things/0/platforms/0',
    ],
    ['a hub that is none', (job) => job.hubs.push({ id: 'h', hubId: 'x' }), '/hubs/0/hubId'],
    [
      'an account linked to nothing',
      (job) =>
        job.accounts.push({
          id: 'a',
          maker: 'M',
          links: [{ platform: 'x', at: '2026-01-01T00:00:00Z', outcome: 'linked' }],
        }),
      '/accounts/0/links/0/platform',
    ],
    ['a zone that is none', (job) => Object.assign(job.site, { timeZone: 'Mars/Base' }), '/site/timeZone'],
    ['a zone by its distance', (job) => Object.assign(job.site, { timeZone: '+01:00' }), '/site/timeZone'],
    ['a zone by an abbreviation', (job) => Object.assign(job.site, { timeZone: 'IST' }), '/site/timeZone'],
    ['two of one id', (job) => Object.assign(job.opposites[0], { id: 'snug' }), '/opposites/0/id'],
  ])('%s', (_name, change, path) => {
    const problems = problemsOf(change);
    expect(problems.map((problem) => problem.path)).toContain(path);
  });

  test('all of it may be left out', () => {
    const bare = problemsOf((job) => {
      for (const pairing of job.pairings)
        for (const field of ['state', 'attempts', 'name']) delete pairing[field];
      for (const automation of job.automations) delete automation.days;
      delete job.opposites;
    });
    expect(bare).toEqual([]);
  });
});
