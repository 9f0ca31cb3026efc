import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import { hiddenBox } from '../../test-support/hidden-box.js';
import { Random } from '../../test-support/random.js';
import { explanationsOf } from '../explaining/explanations.js';
import { problemOf } from '../problem/problem.js';
import { Likelihood } from './likelihood.js';

const VOLTS = [0.2, 4, 20, 60, 100, 119, 208];
const OHMS: Reading['value'][] = [0.2, 3, 20, 400, 9000, 'open'];

function randomValue(random: Random, tool: Reading['tool']): Reading['value'] {
  if (tool === 'indicator') return random.pick(['alert', 'quiet'] as const);
  if (tool === 'lamp') return random.pick(['lit', 'dim', 'dark'] as const);
  return random.pick(tool === 'ohms' ? OHMS : VOLTS);
}

/** A reading nobody proposed: whatever tool, points and state, and a value that need not suit them. */
function anyReading(random: Random, box: Box, loads: readonly string[], id: string): Reading {
  const cores = box.conductors
    .filter((conductor) => conductor.cableId && conductor.colour !== 'bare')
    .map((conductor) => conductor.id);
  const point = random.pick(cores);
  const others = [...cores.filter((core) => core !== point), 'reference', 'box'];
  const tool = random.pick(['indicator', 'volts', 'volts-low-z', 'ohms', 'lamp'] as const);
  const on = tool === 'ohms' ? 'off' : random.pick(['on', 'on', 'off'] as const);
  const arrangement = random.pick(['in-place', 'in-place', 'device-out', 'lifted', 'parted'] as const);
  const some = <Value>(entries: [string, Value][]) =>
    Object.fromEntries(entries.filter(() => random.chance(0.7)));
  const value = randomValue(random, tool);
  return {
    id,
    at: '2026-05-04T09:00:00Z',
    tool,
    arrangement,
    ...(arrangement === 'device-out' ? { position: random.pick(box.positions).index } : {}),
    ...(arrangement === 'lifted' ? { lifted: [random.pick(cores)] } : {}),
    breakers: Object.fromEntries(box.circuitIds.map((circuit) => [circuit, on])),
    switches: some(
      box.positions.map((position): [string, 'on' | 'off' | 'up' | 'down'] => [
        String(position.index),
        position.existing.endsWith('-way')
          ? random.pick(['up', 'down'] as const)
          : random.pick(['on', 'off'] as const),
      ]),
    ),
    loads: random.chance(0.2) ? { [random.pick(loads)]: 'out' } : {},
    points:
      tool === 'lamp' ? [random.pick(loads)] : tool === 'indicator' ? [point] : [point, random.pick(others)],
    value,
  };
}

test.each([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12])(
  'box %i: summed in parts or in full, readings of every sort weigh the same',
  (seed) => {
    const random = new Random(7000 + seed);
    const hidden = hiddenBox(
      random,
      random.pick(['us', 'gb', 'modular'] as const),
      1 + (seed % 2),
      random.chance(0.6),
    );
    const loads = hidden.job.loads.map((load) => load.id);
    for (let round = 0; round < 4; round++) {
      const readings = Array.from({ length: 5 }, (_, at) => anyReading(random, hidden.box, loads, `m${at}`));
      const { problem, wiring } = problemOf({ ...hidden.box, readings }, lookup(hidden.job));
      const likelihood = new Likelihood(problem, wiring, problem.tests);
      const { explanations } = explanationsOf(problem);
      for (let draw = 0; draw < 25; draw++) {
        const explanation = random.pick(explanations);
        const parts = likelihood.evaluate(explanation)?.likelihood ?? 0;
        const full = likelihood.inFull(explanation);
        expect({ round, draw, ratio: parts / full }).toEqual({ round, draw, ratio: expect.closeTo(1, 9) });
      }
    }
  },
);
