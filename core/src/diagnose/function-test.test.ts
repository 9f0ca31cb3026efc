import { expect, test } from '@jest/globals';
import { functionCheckText } from '../findings/words/function-test.js';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import { exampleJob } from '../test-support/examples.js';
import { FAILS_AS, functionChecks } from './function-test.js';
import { SYMPTOM_KINDS, SYMPTOMS } from './vocabulary.js';

function checks(change: Partial<Device> = {}, boxId = 'bench') {
  const known = lookup(exampleJob('sail-loft'));
  const box = known.boxes.get(boxId);
  const selection = known.job.selections.find((one) => one.boxId === boxId && one.deviceId !== null);
  const device = known.devices.get(selection?.deviceId ?? '');
  const position = box?.positions.find(({ index }) => index === selection?.position);
  if (!box || !device || !position) throw new Error(`no device at ${boxId}`);
  return functionChecks(box, position, { ...device, ...change }, known);
}
const codes = (list: ReturnType<typeof checks>) => list.map(({ code }) => code);

test('a device is tried by its kind', () => {
  expect(codes(checks())).toEqual(expect.arrayContaining(['breaker', 'wall', 'neighbours']));
  expect(codes(checks({ indicator: 'none' }))).not.toContain('indicator');
  expect(codes(checks({ senses: ['motion'] }))).toContain('sensor');
  expect(codes(checks({ channels: [{ id: 1, kind: 'dimmer', ratings: [] }] }))).toContain('dims');
  expect(codes(checks({ channels: [] }))).not.toContain('wall');
  expect(codes(checks({}, 'foot'))).toContain('far');
  for (const check of checks({ senses: ['humidity', 'motion'] }))
    expect(functionCheckText(check)).toMatch(/^[A-Z]/);
});

test('every symptom that is none of a sound device can be told of some check', () => {
  const told = new Set(
    Object.values(FAILS_AS).flatMap((fails) =>
      Object.entries(fails).flatMap(([kind, values]) => values.map((value) => `${kind}=${value}`)),
    ),
  );
  const sound = ['indicator=on', 'control=ok', 'load=follows', 'neighbour=ok', 'breaker=holds', 'far=works'];
  const all = SYMPTOM_KINDS.flatMap((kind) => SYMPTOMS[kind].map((value) => `${kind}=${value}`));
  const sick = all.filter((one) => ![...sound, 'feel=none', 'restarts=no'].includes(one));
  expect([...told].sort()).toEqual(sick.sort());
});
