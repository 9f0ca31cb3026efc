import { expect, test } from '@jest/globals';
import { exampleJob } from '../../test-support/examples.js';
import type { Job } from '../schema/job.js';
import type { EditPart } from './edit.js';
import { recordProblems } from './record-problems.js';

const job: Job = {
  ...exampleJob('pantry'),
  id: 'j',
  rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
};
const touch = (kind: EditPart['kind'], id: string): EditPart => ({ kind, id, base: 0, set: {} });
const with1 = (room: object): Job => ({ ...job, rooms: [room] }) as Job;

test('a record as it should be has none, and one that is gone neither', () => {
  expect(recordProblems(job, [touch('room', 'r1'), touch('room', 'gone'), touch('job', 'j')])).toEqual([]);
});

test.each([
  ['a field that is missing', { id: 'r1', floor: 0, order: 1 }, 'name', /^is missing/],
  ['a word where a number goes', { id: 'r1', name: 'Hall', floor: 0, order: 'first' }, 'order', /^must be/],
  ['half a character', { id: 'r1', name: '\ud800', floor: 0, order: 1 }, 'name', /half a character/],
])('%s is named with record, field and path', (_, room, field, message) => {
  expect(recordProblems(with1(room), [touch('job', 'j'), touch('room', 'r1')])).toEqual([
    {
      kind: 'room',
      id: 'r1',
      field,
      path: `/parts/1/record/${field}`,
      message: expect.stringMatching(message),
    },
  ]);
});

test('a record that is too large is named as a whole', () => {
  const [problem] = recordProblems(
    with1({ id: 'r1', name: 'Hall', floor: 0, order: 1, notes: Array(30).fill('x'.repeat(90_000)) }),
    [touch('room', 'r1')],
  );
  expect(problem).toMatchObject({ path: '/parts/0/record', message: expect.stringContaining('too large') });
  expect(problem?.field).toBeUndefined();
});
