import {
  changedRecords,
  type EditPart,
  type Job,
  newBox,
  newJob,
  putPart,
  reduce,
  removePart,
  setParts,
} from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { csvOf } from './downloads.js';
import { newId } from './ids.js';
import { applyChanges } from './record-changes.js';

const NOTHING = {
  devices: [],
  hubs: [],
  parts: [],
  connectors: [],
  enclosures: [],
  platforms: [{ name: 'Orrery', matching: 'exact' as const }],
};

test('what the worker is told of a change makes its copy equal, and keeps what did not change as the same object', () => {
  let job: Job = {
    ...newJob('j', 'Job', 'us', '2020', NOTHING),
    rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
    boxes: [newBox({ id: 'b1', roomId: 'r1', name: 'One', order: 1 }, 'us')],
  };
  let copy = JSON.parse(JSON.stringify(job)) as Job;
  const steps: EditPart[][] = [
    [putPart('box', 'b2', newBox({ id: 'b2', roomId: 'r1', name: 'Two', order: 2 }, 'us'))],
    setParts('room', 'r1', job.rooms[0] as Job['rooms'][number], { name: 'Porch', kind: 'hall' }),
    setParts('job', 'j', job, { name: 'Other', address: 'Here' }),
    [putPart('selection', 'b1/1', { boxId: 'b1', position: 1, deviceId: null, strategy: 'single' })],
    [removePart('box', 'b2')],
    [removePart('selection', 'b1/1')],
    [putPart('platform', 'Orrery', { name: 'Orrery', matching: 'tolerant' })],
  ];
  for (const parts of steps) {
    const result = reduce(job, { parts });
    if (!result.ok) throw new Error(JSON.stringify(result.refusal));
    const first = copy.boxes[0];
    copy = applyChanges(copy, changedRecords(job, result.job));
    job = result.job;
    expect(copy).toEqual(job);
    expect(copy.boxes[0]).toBe(first);
  }
});

describe('ids', () => {
  test('are UUIDv7: later ones sort later, none twice', () => {
    const made = [newId(1000), newId(2000), newId(2 ** 40)];
    expect(made).toEqual([...made].sort());
    for (const id of made)
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(new Set(Array.from({ length: 500 }, () => newId(1))).size).toBe(500);
  });
});

test('a CSV quotes what has to be quoted and disarms formulas', async () => {
  const text = await csvOf([{ room: 'Hall, front', box: '=1+1', note: 'say "so"' }]);
  expect(text).toBe('\uFEFFroom,box,note\r\n"Hall, front","\'=1+1","say ""so"""\r\n');
});
