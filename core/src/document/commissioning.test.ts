import { describe, expect, test } from '@jest/globals';
import { exampleText } from '../test-support/examples.js';
import { readJobFile } from './read.js';

const GONE = Symbol('taken out');

/** The long room's file with one value of it another, by its pointer; `GONE` takes it out. */
function changed(pointer: string, value: unknown): string {
  const job: unknown = JSON.parse(exampleText('long-room'));
  const steps = pointer.split('/').slice(1);
  const last = steps.pop() ?? '';
  const holder = steps.reduce((inner, step) => (inner as Record<string, unknown>)[step], job) as object;
  if (value !== GONE) Reflect.set(holder, last, value);
  else if (Array.isArray(holder)) holder.splice(Number(last), 1);
  else Reflect.deleteProperty(holder, last);
  return JSON.stringify(job);
}

const problemsOf = (pointer: string, value: unknown) => readJobFile(changed(pointer, value)).problems;

const target = { boxId: 'door', position: 1, channel: 1 };
const RULE = '/automations/0';
const TARGET = `${RULE}/then/0/target`;
const FOUND = '/pairings/2/reached/1/platform';
const links = [{ platform: 'x', at: '2026-01-01T00:00:00Z', outcome: 'linked' }];

describe('rules, things and pairings name what is in the file', () => {
  test('the example itself is whole', () => expect(problemsOf('/notes', '')).toEqual([]));

  test.each<[what: string, pointer: string, value: unknown, found: string]>([
    ['a thing that is gone', '/things/1', GONE, `${TARGET}/thingId`],
    ['a room that is none', TARGET, { roomId: 'attic' }, `${TARGET}/roomId`],
    ['a box that is none', TARGET, { ...target, boxId: 'x' }, `${TARGET}/boxId`],
    ['a place without a device', '/selections/0/deviceId', null, '/automations/2/then/0/target/position'],
    ['a channel that is none', TARGET, { ...target, channel: 3 }, `${TARGET}/channel`],
    ['a target of no kind', TARGET, {}, TARGET],
    ['a target of two kinds', TARGET, { ...target, thingId: 'drier' }, TARGET],
    ['a channel without its position', TARGET, { boxId: 'door', channel: 1 }, `${TARGET}/position`],
    ['a sensor that is gone', `${RULE}/when`, { motion: { thingId: 'x' } }, `${RULE}/when/motion/thingId`],
    ['no time', `${RULE}/when/at`, '24:00', `${RULE}/when/at`],
    ['no time of hours', `${RULE}/if`, { from: '7:00', to: '08:00' }, `${RULE}/if/from`],
    ['half of the hours', `${RULE}/if`, { from: '07:00' }, `${RULE}/if/to`],
    ['no days', `${RULE}/days`, [], `${RULE}/days`],
    ['a day that is none', `${RULE}/days`, ['monday'], `${RULE}/days/0`],
    ['a countdown of 0', `${RULE}/when`, { countdown: 0, of: target }, `${RULE}/when/countdown`],
    ['a countdown of nothing', `${RULE}/when`, { countdown: 5 }, `${RULE}/when/of`],
    ['nothing that starts it', `${RULE}/when`, {}, `${RULE}/when`],
    ['nothing that it does', `${RULE}/then`, GONE, `${RULE}/then`],
    ['a level without a value', `${RULE}/then/0/do`, 'level', `${RULE}/then/0/value`],
    ['opposites of a room', '/opposites/0/a', { roomId: 'snug' }, '/opposites/0/a/roomId'],
    ['an opposite that is gone', '/opposites/0/b', { thingId: 'x' }, '/opposites/0/b/thingId'],
    ['an app that is none', '/pairings/0/names', { Nobody: 'x' }, '/pairings/0/names/Nobody'],
    ['a find in an app that is none', FOUND, 'Nobody', FOUND],
    ['a thing in no room', '/things/0/roomId', 'x', '/things/0/roomId'],
    ['a thing on no platform', '/things/0/platforms/0', 'x', '/things/0/platforms/0'],
    ['a hub that is none', '/hubs', [{ id: 'h', hubId: 'x' }], '/hubs/0/hubId'],
    [
      'an account linked to nothing',
      '/accounts',
      [{ id: 'a', maker: 'M', links }],
      '/accounts/0/links/0/platform',
    ],
    ['a zone that is none', '/site/timeZone', 'Mars/Base', '/site/timeZone'],
    ['a zone by its distance', '/site/timeZone', '+01:00', '/site/timeZone'],
    ['a zone by an abbreviation', '/site/timeZone', 'IST', '/site/timeZone'],
    ['two of one id', '/opposites/0/id', 'snug', '/opposites/0/id'],
  ])('%s', (_what, pointer, value, found) => {
    expect(problemsOf(pointer, value).map((problem) => problem.path)).toContain(found);
  });

  test.each([
    '/pairings/0/state',
    '/pairings/0/attempts',
    '/pairings/0/name',
    '/opposites',
    '/automations/6/days',
  ])('%s may be left out', (pointer) => expect(problemsOf(pointer, GONE)).toEqual([]));
});
