import { entryAt } from '../../units/entry-at.js';
import type { Test } from '../problem/vocabulary.js';
import { type Entry, type Posterior, roleOfCore } from '../weighing/posterior.js';

interface Sample {
  at: number;
  weight: number;
}

/** The most explanations that what a test tells is reckoned from. */
const MOST_SAMPLED = 200;

/** Whether what a test tells was reckoned with less than all but a thousandth of the weight. */
export function isSampled({ entries, total }: Posterior): boolean {
  if (entries.length <= MOST_SAMPLED) return false;
  const weights = entries.map(({ weight }) => weight).sort((a, b) => b - a);
  return weights.slice(0, MOST_SAMPLED).reduce((sum, weight) => sum + weight, 0) / total <= SAMPLED_SHARE;
}

const SAMPLED_SHARE = 0.999;

/** The explanations that carry all but a thousandth of the weight, as far as they are not too many. */
function topEntries(posterior: Posterior): Sample[] {
  const order = posterior.entries
    .map((entry, at) => ({ at, weight: entry.weight / posterior.total }))
    .sort((a, b) => b.weight - a.weight);
  const kept: Sample[] = [];
  let sum = 0;
  for (const sample of order) {
    kept.push(sample);
    sum += sample.weight;
    if (sum > SAMPLED_SHARE || kept.length >= MOST_SAMPLED) break;
  }
  return kept.map((sample) => ({ ...sample, weight: sample.weight / sum }));
}

/**
 * Bits each question is expected to tell about the roles of the cores still open; `rowsOf`: its outcomes
 * under an explanation.
 */
export function gainsOf(
  posterior: Posterior,
  open: readonly number[],
  rowsOf: (entry: Entry) => Readonly<Record<string, number>>[],
): number[] {
  const joint: {
    groups: Map<string, { weight: number; outcomes: Map<string, number> }>;
    total: Map<string, number>;
  }[] = [];
  for (const { at, weight } of topEntries(posterior)) {
    const entry = entryAt(posterior.entries, at);
    const signature = open.map((core) => roleOfCore(entry.explanation, core)).join();
    rowsOf(entry).forEach((row, index) => {
      joint[index] ??= { groups: new Map(), total: new Map() };
      const { groups, total } = entryAt(joint, index);
      const group = groups.get(signature) ?? { weight: 0, outcomes: new Map<string, number>() };
      groups.set(signature, group);
      group.weight += weight;
      for (const outcome in row) {
        const share = weight * (row[outcome] ?? 0);
        group.outcomes.set(outcome, (group.outcomes.get(outcome) ?? 0) + share);
        total.set(outcome, (total.get(outcome) ?? 0) + share);
      }
    });
  }
  return joint.map(({ groups, total }) => {
    if (groups.size < 2) return 0;
    let gain = 0;
    for (const { weight, outcomes } of groups.values())
      for (const [outcome, share] of outcomes)
        if (share > 1e-15) gain += share * Math.log2(share / (weight * (total.get(outcome) ?? 0)));
    return Math.max(0, gain);
  });
}

const UNKNOWN_LAMP = { lit: 0.5, dim: 0.05, dark: 0.45 };

/** Outcomes of each test under an explanation, with their chances. */
export function predicted(
  posterior: Posterior,
  { explanation, best }: Entry,
  tests: readonly Test[],
): Readonly<Record<string, number>>[] {
  const own = new Set([...explanation.loadsOfCore.flat(), ...explanation.loadsOfCable.flat()]);
  return posterior.likelihood.predict(explanation, tests, best.hidden).map((row, at) => {
    const [point] = entryAt(tests, at).points;
    return point?.kind === 'load' && !own.has(point.loadId) ? UNKNOWN_LAMP : row;
  });
}
