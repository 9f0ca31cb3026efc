import type { JobLookup } from '../job/lookup.js';
import type { Cluster } from './clusters.js';
import { type Solved, solve } from './solve.js';
import type { Option } from './vocabulary.js';

/**
 * As many places served as without any wish, then out of the fewest families, then the least cost: sets of families by growing size,
 * and of the first size that serves as much, the cheapest set.
 *
 * @param cheapest the plan without any wish
 */
export function fewestFamilies(clusters: readonly Cluster[], cheapest: Solved, known: JobLookup): Solved {
  const { served } = cheapest;
  const counts = new Map<string, number>();
  const most = (families: ReadonlySet<string>) => {
    const key = [...families].sort().join('\n');
    let count = counts.get(key);
    if (count === undefined) {
      count = clusters.reduce((sum, cluster) => sum - cluster.best((way) => (within(way, families) ? -way.served : null)).value, 0);
      counts.set(key, count);
    }
    return count;
  };
  const all = [...new Set(clusters.flatMap((cluster) => cluster.units.flatMap((unit) => unit.ways.flatMap((way) => [...way.families]))))];
  const families = all
    .map((family) => ({ family, serves: most(new Set([family])) }))
    .sort((a, b) => b.serves - a.serves)
    .map((entry) => entry.family);
  for (let size = 0; size <= families.length; size++) {
    let best: Solved | undefined;
    const choose = (from: number, chosen: readonly string[]) => {
      if (chosen.length === size) {
        const own = new Set(chosen);
        if (most(own) < served) return;
        const solved = solve(clusters, (way) => within(way, own), known);
        if (solved.served >= served && (!best || solved.cost < best.cost)) best = solved;
        return;
      }
      // What is left to choose from has to be able to serve as much.
      if (most(new Set([...chosen, ...families.slice(from)])) < served) return;
      for (let at = from; at <= families.length - (size - chosen.length); at++) choose(at + 1, [...chosen, families[at] as string]);
    };
    choose(0, []);
    if (best) return best;
  }
  return cheapest;
}

function within(option: Option, families: ReadonlySet<string>): boolean {
  for (const family of option.families) if (!families.has(family)) return false;
  return true;
}
