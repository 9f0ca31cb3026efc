import { expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import { hiddenBox } from '../../test-support/hidden-box.js';
import { Random } from '../../test-support/random.js';
import { problemOf } from '../problem/problem.js';
import type { CoreClass, FarKind, Problem } from '../problem/vocabulary.js';
import { cablePatterns } from './cable-patterns.js';
import { structures } from './explanations.js';
import {
  agrees,
  type NetKind,
  netKind,
  netWeight,
  positionWeight,
  travelerWeight,
} from './structure-weights.js';

/** Every way to class every cable, weighed whole, with nothing cut short: shares by structure. */
function everyStructure(problem: Problem): Map<string, number> {
  const patterns = problem.cables.map((cable, index) =>
    cable.cores.length === 0 ? [] : cablePatterns(problem, index).patterns,
  );
  const weights = new Map<string, number>();
  const classes: CoreClass[] = Array(problem.cores.length);
  const far: (FarKind | null)[] = Array(problem.cables.length).fill(null);
  const visit = (cable: number, weight: number): void => {
    if (cable === problem.cables.length) {
      const whole = weight * wholeWeight(problem, classes, far);
      if (whole > 0) weights.set(keyOf(classes, far), whole);
      return;
    }
    const { cores } = problem.cables[cable] as Problem['cables'][number];
    // A cable without insulated conductors is one way of being nothing.
    for (const pattern of cores.length === 0
      ? [{ classes: [], far: null, weight: 1 }]
      : (patterns[cable] ?? [])) {
      cores.forEach((core, at) => {
        classes[core] = pattern.classes[at] as CoreClass;
      });
      far[cable] = pattern.far;
      visit(cable + 1, weight * pattern.weight);
    }
  };
  visit(0, 1);
  return shares(weights);
}

function wholeWeight(
  problem: Problem,
  classes: readonly CoreClass[],
  far: readonly (FarKind | null)[],
): number {
  if (!classes.every((_, core) => agrees(problem, classes, core))) return 0;
  const kinds: (NetKind | null)[] = [];
  let weight = 1;
  for (const net of problem.nets) {
    const { cores } = net;
    const kind = netKind(problem, classes, far, cores);
    if (kind === undefined) return 0;
    kinds.push(kind);
    weight *= netWeight(problem, classes, cores, kind, net);
  }
  for (const position of problem.positions) weight *= positionWeight(position, kinds);
  return weight === 0 ? 0 : weight * travelerWeight(problem, classes, far, kinds);
}

const keyOf = (classes: readonly CoreClass[], far: readonly (FarKind | null)[]) =>
  `${classes.join()}|${far.join()}`;

function shares(weights: Map<string, number>): Map<string, number> {
  const total = [...weights.values()].reduce((sum, weight) => sum + weight, 0);
  return new Map([...weights].map(([key, weight]) => [key, weight / total]));
}

test.each(Array.from({ length: 24 }, (_, at) => at + 1))(
  'box %i: what is cut short is nothing: every way to class its cables, tried in full, agrees',
  (seed) => {
    const random = new Random(4200 + seed);
    const hidden = hiddenBox(
      random,
      random.pick(['us', 'ca', 'gb', 'modular'] as const),
      1,
      random.chance(0.5),
    );
    const { problem } = problemOf(hidden.box, lookup(hidden.job));
    const found = new Map<string, number>();
    for (const { classes, far, weight } of structures(problem, false).list)
      found.set(keyOf(classes, far), weight);
    const plain = everyStructure(problem);
    const fast = shares(found);
    expect(fast.size).toBeGreaterThan(1);
    for (const key of new Set([...plain.keys(), ...fast.keys()])) {
      const difference = Math.abs((plain.get(key) ?? 0) - (fast.get(key) ?? 0));
      expect({ key, small: difference < 1e-9 }).toEqual({ key, small: true });
    }
  },
);
