import type { JobLookup } from '../job/lookup.js';
import type { Cluster } from './clusters.js';
import { type Solved, solve } from './solve.js';
import type { Option } from './vocabulary.js';

/** So many sets of families are looked at; beyond it the cheapest plan stands, and is not called the best. */
const MOST_SETS = 20_000;

/**
 * As many places served as without any wish, then out of the fewest families, then the least cost: sets of
 * families by growing size, and of the first size that serves as much, the cheapest set.
 *
 * @param cheapest the plan without any wish
 */
export function fewestFamilies(clusters: readonly Cluster[], cheapest: Solved, known: JobLookup): Solved {
  return new FamilySearch(clusters, cheapest, known).run();
}

class FamilySearch {
  private readonly families: readonly string[];
  /** What every cluster could serve with all families, router and hubs apart. */
  private readonly full: readonly number[];
  private readonly ofCluster: readonly (readonly string[])[];
  private readonly served: Map<string, number>[];
  private seen = new Set<string>();
  private looked = 0;
  private best: Solved | undefined;

  constructor(
    private readonly clusters: readonly Cluster[],
    private readonly cheapest: Solved,
    private readonly known: JobLookup,
  ) {
    this.ofCluster = clusters.map((cluster) => [
      ...new Set(cluster.units.flatMap((unit) => unit.ways.flatMap((way) => [...way.families]))),
    ]);
    this.families = [...new Set(this.ofCluster.flat())].sort();
    this.served = clusters.map(() => new Map());
    this.full = clusters.map((_, at) => this.servedBy(at, new Set(this.families)));
  }

  run(): Solved {
    for (let size = 0; size <= this.families.length; size++) {
      this.seen = new Set();
      this.extend([], size);
      if (this.looked > MOST_SETS) break;
      if (this.best) return this.best;
    }
    return this.best ? { ...this.best, exact: false } : { ...this.cheapest, exact: false };
  }

  /** Adds families one at a time, in whatever order what is missing asks for them. */
  private extend(chosen: readonly string[], size: number): void {
    const key = [...chosen].sort().join('\n');
    this.looked += 1;
    if (this.looked > MOST_SETS || this.seen.has(key)) return;
    this.seen.add(key);
    const own = new Set(chosen);
    const serves = this.clusters.map((_, at) => this.servedBy(at, own));
    const enough = serves.reduce((sum, count) => sum + count, 0) >= this.cheapest.served;
    if (enough) {
      const solved = solve(this.clusters, (way) => within(way, own), this.known);
      if (solved.served >= this.cheapest.served) {
        if (!this.best || solved.cost < this.best.cost) this.best = solved;
        return;
      }
    }
    const left = size - chosen.length;
    if (left === 0 || this.reachable(own, left) < this.cheapest.served) return;
    for (const family of this.asked(own, serves, enough)) this.extend([...chosen, family], size);
  }

  private servedBy(at: number, families: ReadonlySet<string>): number {
    const key = (this.ofCluster[at] ?? []).filter((family) => families.has(family)).join('\n');
    let count = this.served[at]?.get(key);
    if (count === undefined) {
      count = -(this.clusters[at] as Cluster).best((way) => (within(way, families) ? -way.served : null))
        .value;
      this.served[at]?.set(key, count);
    }
    return count;
  }

  /** Places that could be served with so many families more, boxes apart: never too few. */
  private reachable(chosen: ReadonlySet<string>, more: number): number {
    const gains = new Map<string, number>();
    let covered = 0;
    for (const cluster of this.clusters)
      for (const unit of cluster.units) {
        const own = new Set(unit.ways.flatMap((way) => [...way.families]));
        const serves = unit.ways[0]?.served ?? 0;
        if ([...own].some((family) => chosen.has(family))) covered += serves;
        else for (const family of own) gains.set(family, (gains.get(family) ?? 0) + serves);
      }
    const best = [...gains.values()].sort((a, b) => b - a).slice(0, more);
    return best.reduce((sum, gain) => sum + gain, covered);
  }

  /**
   * Families of which one has to come next. Where everything that can be served is to be, a cluster that
   * serves less than it could asks for one of its own; the cluster with the fewest of them is asked. Else any
   * may be the one.
   */
  private asked(chosen: ReadonlySet<string>, serves: readonly number[], enough: boolean): readonly string[] {
    const all = this.full.reduce((sum, count) => sum + count, 0);
    const open = (families: readonly string[]) => families.filter((family) => !chosen.has(family));
    if (enough || all > this.cheapest.served) return open(this.families);
    let fewest: readonly string[] | undefined;
    serves.forEach((count, at) => {
      const own = open(this.ofCluster[at] ?? []);
      if (count < (this.full[at] ?? 0) && (!fewest || own.length < fewest.length)) fewest = own;
    });
    return fewest ?? [];
  }
}

function within(option: Option, families: ReadonlySet<string>): boolean {
  for (const family of option.families) if (!families.has(family)) return false;
  return true;
}
