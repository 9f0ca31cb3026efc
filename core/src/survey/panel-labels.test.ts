import { expect, test } from '@jest/globals';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { panelLabel, tracedEvent } from './panel-labels.js';

const AT = '2026-05-04T09:00:00Z';

/** Two boxes in the hall, one in the shed; the shed's box is on two breakers. */
function house(change: (job: Job) => void = () => {}): Job {
  const job = exampleJob('shed');
  const [shed] = job.boxes as [Box];
  const [room] = job.rooms;
  const box = (id: string, roomId: string, circuitIds: string[]): Box => ({
    ...shed,
    id,
    name: id,
    roomId,
    circuitIds,
    labels: [],
    readings: [],
  });
  job.rooms = [
    { ...(room as Job['rooms'][number]), id: 'hall', name: 'Hall', order: 1, floor: 0 },
    { ...(room as Job['rooms'][number]), id: 'yard', name: 'Yard', order: 2, floor: 0 },
  ];
  job.boxes = [
    box('Hall door', 'hall', ['c5']),
    box('Hall stair', 'hall', ['c5']),
    box('Shed', 'yard', ['c5', 'c6']),
  ];
  job.events = [];
  change(job);
  return job;
}
const labelOf = (job: Job) =>
  panelLabel(job.circuits.find((circuit) => circuit.id === 'c5') as Job['circuits'][number], job);
const trace = (boxId: string, id = `t-${boxId}`) => tracedEvent(boxId, 'c5', { id, at: AT });

test('what is only said to be on a breaker is not proved', () => {
  const label = labelOf(house());
  expect(label.asProved).toBeNull();
  expect(label.supposed.map((box) => box.id)).toEqual(['Hall door', 'Hall stair', 'Shed']);
});

test('a room is named when every box in it was proved and is on nothing else; else its boxes are', () => {
  expect(labelOf(house((job) => job.events.push(trace('Hall door')))).asProved).toBe('Hall door');
  expect(labelOf(house((job) => job.events.push(trace('Hall door'), trace('Hall stair')))).asProved).toBe(
    'Hall',
  );
  expect(labelOf(house((job) => job.events.push(trace('Shed')))).asProved).toBe('Shed');
});

test('a line labelled as of the breaker proves its box; one of another breaker does not', () => {
  const line = (circuitId: string) => (job: Job) =>
    job.boxes[1]?.labels.push({ conductorId: 'x', role: 'line', circuitId });
  expect(labelOf(house(line('c5'))).asProved).toBe('Hall stair');
  expect(labelOf(house(line('c6'))).asProved).toBeNull();
});

test('a struck trace is none, and neither is one of a box that was moved to another breaker', () => {
  expect(
    labelOf(house((job) => job.events.push(trace('Shed', 't1'), { kind: 'correction', of: 't1' }))).asProved,
  ).toBeNull();
  expect(
    labelOf(
      house((job) => {
        job.events.push(trace('Hall door'));
        (job.boxes[0] as Box).circuitIds = ['c6'];
      }),
    ).asProved,
  ).toBeNull();
});
