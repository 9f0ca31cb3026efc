import { expect, test } from '@jest/globals';
import { referenceProblems } from '../../document/references.js';
import { exampleJob } from '../../test-support/examples.js';
import type { Job } from '../schema/job.js';
import { removalOf } from './consequences.js';
import type { EditPart } from './edit.js';
import { withTargetsFreed } from './free-targets.js';
import { putPart, removePart } from './parts.js';
import { reduce } from './reduce.js';

const room = exampleJob('long-room');

function after(parts: EditPart[]): Job {
  const result = reduce(room, { parts: withTargetsFreed(room, parts) });
  if (!result.ok) throw new Error(JSON.stringify(result.refusal));
  expect(referenceProblems(result.job).filter(({ severity }) => severity === 'error')).toEqual([]);
  return result.job;
}

const ids = (job: Job) => job.automations.map(({ id }) => id);
const choice = (boxId: string) => room.selections.find((one) => one.boxId === boxId);

test('a choice taken back takes the actions on it out of the rules, and rules of which nothing is left', () => {
  const job = after([removePart('selection', 'gate/1')]);
  const gone = ids(room).filter((id) => !ids(job).includes(id));
  expect(gone).toEqual(['porch-off', 'away']);
  expect(job.automations.find(({ id }) => id === 'swap')?.then).toHaveLength(1);
  expect(job.opposites).toEqual([]);
});

test('another device with the same channels takes nothing', () => {
  const job = after([putPart('selection', 'gate/1', { ...choice('gate'), deviceId: 'zi-double' })]);
  expect(job.automations).toBe(room.automations);
  expect(job.opposites).toBe(room.opposites);
});

test('one with fewer channels takes what they did', () => {
  const job = after([
    putPart('selection', 'nook/1', { ...choice('nook'), channels: {}, deviceId: 'wr-plain' }),
  ]);
  expect(ids(room).filter((id) => !ids(job).includes(id))).toEqual(['reading']);
});

test('a room goes with its things and boxes, and with the rules of both', () => {
  const job = after(removalOf(room, 'room', 'porch'));
  expect(job.things?.map(({ id }) => id)).toEqual(['drier', 'eye']);
  expect(ids(room).filter((id) => !ids(job).includes(id))).toEqual([
    'porch-off',
    'lantern-on',
    'lantern-off',
    'friday',
    'away',
  ]);
});

test('an edit of anything else is left as it is', () => {
  const parts = [putPart('circuit', 'd1', room.circuits[0] ?? {})];
  expect(withTargetsFreed(room, parts)).toEqual(parts);
});
