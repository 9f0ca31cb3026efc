import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Job } from '../../job/schema/job.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import { exampleJob } from '../../test-support/examples.js';
import { identifyBox } from '../identify.js';
import { problemOf } from '../problem/problem.js';
import { identificationRestsOn } from '../rests-on.js';

/** Foot and head of a stair, joined by a run whose conductors are paired. */
function stairs(readings: Partial<Reading>[], change: (job: Job) => void = () => {}) {
  const job = exampleJob('stairs');
  change(job);
  const box: Box = {
    ...(job.boxes[0] as Box),
    readings: readings.map((reading, at) => ({
      id: `m${at}`,
      at: '2026-05-04T09:00:00Z',
      tool: 'volts-low-z',
      arrangement: 'device-out',
      position: 1,
      breakers: { c2: 'on' },
      points: [],
      value: 0,
      ...reading,
    })),
  };
  const known = lookup({ ...job, boxes: [box, ...job.boxes.slice(1)] });
  return { box, known };
}
const points = (point: string, change?: (job: Job) => void) => {
  const { box, known } = stairs([{ points: [point, 'reference'] }], change);
  const { problem } = problemOf(box, known);
  return problem.tests[0]?.points.map((entry) =>
    entry.kind === 'core' ? { id: problem.cores[entry.core]?.id, far: entry.far } : entry.kind,
  );
};

test('a point in the box at the other end of a run is the same wire here: the paired one, else the only one of its colour', () => {
  expect(points('head/head-link-red')).toEqual([{ id: 'foot-link-red', far: true }, 'reference']);
  const unpaired = (job: Job) => {
    for (const run of job.runs ?? []) delete run.pairs;
  };
  expect(points('head/head-link-red', unpaired)).toEqual([{ id: 'foot-link-red', far: true }, 'reference']);
  const twoReds = (job: Job) => {
    unpaired(job);
    for (const conductor of (job.boxes[1] as Box).conductors)
      if (conductor.id === 'head-link-black') conductor.colour = 'red';
  };
  expect(points('head/head-link-red', twoReds)).toEqual(['elsewhere', 'reference']);
});

test('without a run, and for what is not in that box, nothing is assumed', () => {
  expect(
    points('head/head-link-red', (job) => {
      job.runs = [];
    }),
  ).toEqual(['elsewhere', 'reference']);
  expect(points('head/none')).toEqual(['elsewhere', 'reference']);
});

test('a bonded metal box there is the reference; any other box is not', () => {
  const enclosure = (material: 'metal' | 'plastic') => (job: Job) =>
    Object.assign((job.boxes[1] as Box).enclosure, { material, grounded: true });
  expect(points('head/box', enclosure('metal'))).toEqual(['reference', 'reference']);
  expect(points('head/box', enclosure('plastic'))).toEqual(['elsewhere', 'reference']);
});

test('read at the far end or here, a wire weighs the same', () => {
  const at = (point: string) => {
    const { box, known } = stairs([
      { points: [point, 'reference'], value: 118 },
      { points: [point, 'reference'], value: 0.1, breakers: { c2: 'off' } },
    ]);
    return identifyBox(box, known).conductors.map(({ id, role, probability, grade }) => ({
      id,
      role,
      grade,
      probability: probability.toFixed(9),
    }));
  };
  expect(at('head/head-link-red')).toEqual(at('foot-link-red'));
  expect(at('head/head-link-red')).not.toEqual(at('head/head-link-white'));
});

test('ohms from end to end near zero are what a traveler asks for; open they are a contradiction', () => {
  const live: Partial<Reading>[] = [
    { points: ['foot-link-red', 'reference'], value: 118.6, switches: { 'head/1': 'up' } },
  ];
  const ends = (value: Reading['value']): Partial<Reading> => ({
    tool: 'ohms',
    arrangement: 'parted',
    breakers: { c2: 'off' },
    boxes: { head: 'parted' },
    points: ['foot-link-red', 'head/head-link-red'],
    value,
  });
  const because = (readings: Partial<Reading>[]) => {
    const { box, known } = stairs(readings);
    return identifyBox(box, known).conductors.find((entry) => entry.id === 'foot-link-red');
  };
  expect(because([...live, ends(0.3)])).toMatchObject({
    role: 'traveler',
    because: expect.arrayContaining(['m1']),
  });
  const { box, known } = stairs([...live, ends('open')]);
  expect(identifyBox(box, known).conflicts.flatMap((conflict) => conflict.readingIds)).toContain('m1');
});

test('what a far point is belongs to what the roles rest on', () => {
  const { box, known } = stairs([{ points: ['head/head-link-red', 'reference'], value: 118 }]);
  const head = known.boxes.get('head') as Box;
  const recoloured = {
    ...head,
    conductors: head.conductors.map((conductor) => ({ ...conductor, colour: 'blue' as const })),
  };
  const other = lookup({ ...known.job, boxes: [box, recoloured] });
  expect(identificationRestsOn(box, other).ofBox).not.toBe(identificationRestsOn(box, known).ofBox);
});
