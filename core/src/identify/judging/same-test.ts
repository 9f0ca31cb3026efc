import { pointsKey } from '../../job/readings.js';
import type { Test } from '../problem/vocabulary.js';
import type { Entry, Posterior } from '../weighing/posterior.js';

/** Explanations of at least this share of the weight say what can bear on a test. */
const COUNTS_FROM = 0.02;
const MOST = 12;

/**
 * Names what makes tests one: tool, points, and how the box stood, without switches that cannot bear on what
 * is read. A switch of another position named beside it, or left out, makes no other test of it.
 */
export class SameTest {
  private readonly leading: Entry['explanation'][];
  private readonly keys = new Map<string, string>();

  constructor(private readonly posterior: Posterior) {
    const { entries, total, best } = posterior;
    const heavy = entries
      .filter((entry) => entry.weight / total >= COUNTS_FROM)
      .sort((a, b) => b.weight - a.weight)
      .slice(0, MOST);
    this.leading = [...new Set([best, ...heavy])].map((entry) => entry.explanation);
  }

  keyOf(test: Test): string {
    let key = this.keys.get(test.key);
    if (key === undefined) {
      key = this.madeOf(test);
      this.keys.set(test.key, key);
    }
    return key;
  }

  private madeOf(test: Test): string {
    const { arrangement, reading } = test;
    const switches = [...arrangement.switches];
    const matter =
      switches.length > 0
        ? this.posterior.likelihood.switchesThatMatter(this.leading, test)
        : new Set<string>();
    return JSON.stringify([
      reading.tool,
      pointsKey(reading),
      arrangement.kind,
      arrangement.position,
      [...arrangement.lifted].sort(),
      [...arrangement.joined].sort(),
      [...arrangement.breakers].sort(([a], [b]) => (a < b ? -1 : 1)),
      switches.filter(([key]) => matter.has(key)).sort(([a], [b]) => (a < b ? -1 : 1)),
      [...arrangement.farParted].sort(),
      [...arrangement.out].sort(),
    ]);
  }
}
