import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import { newJob } from '../../job/new-job.js';
import type { Job } from '../../job/schema/job.js';
import type { PracticeId } from '../../job/schema/primitives.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import { newBox } from '../../survey/new-box.js';
import type { PresetId } from '../../survey/preset-list.js';
import { presetContents } from '../../survey/presets.js';
import { identifyBox } from '../identify.js';
import { problemOf } from '../problem/problem.js';
import type { Explanation } from '../problem/vocabulary.js';
import { Likelihood } from '../weighing/likelihood.js';
import { explanationsOf } from './explanations.js';

/** One of two switches that were made from one by a three-core between them. */
function switchBox(preset: PresetId, practice: PracticeId = 'gb', readings: Reading[] = []) {
  let serial = 0;
  const newId = () => `w${++serial}`;
  const box: Box = {
    ...newBox({ id: 'near', roomId: 'r1', name: 'Near', order: 1 }, practice, ['c1']),
    ...presetContents({ preset, practice, size: '1.5mm2', loadIds: ['l1'] }, newId),
    readings,
  };
  const far: Box = {
    ...newBox({ id: 'far', roomId: 'r1', name: 'Far', order: 2 }, practice),
    positions: [{ index: 1, existing: 'three-way', loadIds: ['l1'] }],
  };
  const nothing = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
  const places = [
    { boxId: 'near', position: 1 },
    { boxId: 'far', position: 1 },
  ];
  const job: Job = {
    ...newJob('j', 'Job', practice, undefined, nothing),
    rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
    circuits: [{ id: 'c1', panel: 'Main', breaker: '1', label: '', amps: 6, volts: 230 }],
    loads: [{ id: 'l1', name: 'Landing', roomId: 'r1', kind: 'resistive', count: 1, wattsEach: 60 }],
    boxes: [box, far],
    groups: [{ id: 'g1', loadIds: ['l1'], places }],
  };
  return { box, known: lookup(job) };
}

function byConversion(preset: PresetId, practice: PracticeId = 'gb') {
  const { box, known } = switchBox(preset, practice);
  const { problem, wiring } = problemOf(box, known);
  const found = explanationsOf(problem).explanations.filter((explanation) =>
    explanation.far.includes('conversion'),
  );
  return { box, problem, wiring, found };
}

const named = (explanation: Explanation, box: Box) =>
  box.conductors
    .filter((conductor) => conductor.cableId && conductor.colour !== 'green-yellow')
    .map((conductor, at) => `${conductor.colour} ${explanation.classes[at]}`);

test('the first switch holds line and load on its outer terminals, each with a core of the three, and the link alone', () => {
  const { box, found } = byConversion('conversion-first');
  const [likeliest] = [...found].sort((a, b) => b.prior - a.prior);
  expect(named(likeliest as Explanation, box)).toEqual([
    'brown line',
    'blue load',
    'brown traveler',
    'black line-on',
    'grey switched-line',
  ]);
});

test('the second holds line, load and link', () => {
  const { found, box } = byConversion('two-way-three-core');
  expect(
    found.some(
      (explanation) => named(explanation, box).sort().join() === 'black line,brown traveler,grey load',
    ),
  ).toBe(true);
});

test('nobody else wires so', () => {
  expect(byConversion('three-way-line', 'us').found).toEqual([]);
});

test.each<PresetId>(['conversion-first', 'two-way-three-core'])(
  '%s: the lamp changes with either switch, wherever the other stands',
  (preset) => {
    const { problem, wiring, found } = byConversion(preset);
    const explanation = found.find((entry) => entry.loadsOfCore.flat().includes('l1')) as Explanation;
    const reading = (near: 'up' | 'down', far: 'up' | 'down'): Reading => ({
      id: `${near}${far}`,
      at: '2026-05-04T09:00:00Z',
      tool: 'lamp',
      arrangement: 'in-place',
      breakers: { c1: 'on' },
      switches: { '1': near, 'far/1': far },
      points: ['l1'],
      value: 'lit',
    });
    const states = (['up', 'down'] as const).flatMap((near) =>
      (['up', 'down'] as const).map((far) => reading(near, far)),
    );
    const { box, known } = switchBox(preset, 'gb', states);
    const { tests } = problemOf(box, known).problem;
    const likelihood = new Likelihood(problem, wiring, tests);
    const hidden = likelihood.evaluate(explanation)?.best.hidden;
    const lit = likelihood
      .predict(explanation, tests, hidden as NonNullable<typeof hidden>)
      .map((row) => (row.lit ?? 0) > 0.5);
    expect(lit[0]).toBe(!lit[1]);
    expect(lit[0]).toBe(!lit[2]);
    expect(lit[0]).toBe(lit[3]);
  },
);

test('read out, the old drop is told to be line and load, though the three-core hangs on both', () => {
  const read = (
    tool: Reading['tool'],
    points: string[],
    value: Reading['value'],
    more: Partial<Reading> = {},
  ): Reading => ({
    id: `${tool}${points.join()}${JSON.stringify(more)}`,
    at: '2026-05-04T09:00:00Z',
    tool,
    arrangement: 'device-out',
    position: 1,
    breakers: { c1: 'on' },
    switches: { 'far/1': 'up' },
    points,
    value,
    ...more,
  });
  const { box } = switchBox('conversion-first');
  const [live, switched, , link, black, grey] = box.conductors.map((conductor) => conductor.id) as string[];
  const off = { breakers: { c1: 'off' as const } };
  const down = { switches: { 'far/1': 'down' as const } };
  const { box: readBox, known } = switchBox('conversion-first', 'gb', [
    read('volts-low-z', [live as string, 'reference'], 231),
    read('volts-low-z', [live as string, 'reference'], 0.2, off),
    read('volts-low-z', [switched as string, 'reference'], 0.3),
    read('ohms', [switched as string, 'reference'], 75, off),
    read('ohms', [link as string, black as string], 0.3, off),
    read('ohms', [link as string, grey as string], 'open', off),
    read('ohms', [link as string, grey as string], 0.3, { ...off, ...down }),
    read('ohms', [link as string, black as string], 'open', { ...off, ...down }),
  ]);
  const roles = Object.fromEntries(
    identifyBox(readBox, known).conductors.map((entry) => [entry.id, entry.role]),
  );
  expect([roles[live as string], roles[switched as string], roles[link as string]]).toEqual([
    'line',
    'load',
    'traveler',
  ]);
});
