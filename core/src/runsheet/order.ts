import { shared } from './cost.js';

/** More kinds of batches than these are put in order by the nearest next one. */
const EXACT_KINDS = 12;

/**
 * The order of batches in which most panels are shared by neighbours. Batches at the same panels stand
 * together: whatever stood between them shares no more with them than they with each other.
 */
export class Ordering {
  private readonly known = new Map<string, { kinds: number[][]; joined: number }>();

  /** How many trips are saved, over all neighbours. */
  saved(panels: readonly (readonly number[])[]): number {
    const kinds = kindsOf(panels);
    const inside = panels.reduce((sum, set) => sum + set.length, 0);
    const once = [...kinds.values()].reduce((sum, { set }) => sum + set.length, 0);
    return inside - once + this.path(kinds).joined;
  }

  /** Numbers of the batches in their order. */
  inOrder(panels: readonly (readonly number[])[]): number[] {
    const kinds = kindsOf(panels);
    return this.path(kinds).kinds.flatMap((set) => kinds.get(set.join())?.at ?? []);
  }

  private path(kinds: Kinds): { kinds: number[][]; joined: number } {
    const key = [...kinds.keys()].sort().join('|');
    let path = this.known.get(key);
    if (!path) {
      const sets = [...kinds.entries()].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, { set }]) => [...set]);
      path = sets.length <= EXACT_KINDS ? longestPath(sets) : nearestPath(sets);
      this.known.set(key, path);
    }
    return path;
  }
}

type Kinds = Map<string, { set: readonly number[]; at: number[] }>;

function kindsOf(panels: readonly (readonly number[])[]): Kinds {
  const kinds: Kinds = new Map();
  panels.forEach((set, at) => {
    const key = set.join();
    const kind = kinds.get(key);
    if (kind) kind.at.push(at);
    else kinds.set(key, { set, at: [at] });
  });
  return kinds;
}

/** The path over all sets with the most in common between neighbours, by what was passed and the end. */
function longestPath(sets: number[][]): { kinds: number[][]; joined: number } {
  const count = sets.length;
  if (count === 0) return { kinds: [], joined: 0 };
  const common = sets.map((one) => sets.map((other) => shared(one, other)));
  const most: Int32Array[] = Array.from({ length: 2 ** count }, () => new Int32Array(count).fill(-1));
  const from: Int8Array[] = Array.from({ length: 2 ** count }, () => new Int8Array(count).fill(-1));
  for (let end = 0; end < count; end++) (most[1 << end] as Int32Array)[end] = 0;
  for (let passed = 1; passed < 2 ** count; passed++)
    for (let end = 0; end < count; end++) {
      const sum = most[passed]?.[end] ?? -1;
      if (sum < 0) continue;
      for (let next = 0; next < count; next++) {
        if ((passed >> next) & 1) continue;
        const row = most[passed | (1 << next)] as Int32Array;
        const reached = sum + (common[end]?.[next] ?? 0);
        if (reached > (row[next] as number)) {
          row[next] = reached;
          (from[passed | (1 << next)] as Int8Array)[next] = end;
        }
      }
    }
  let passed = 2 ** count - 1;
  const ends = most[passed] as Int32Array;
  let end = ends.indexOf(Math.max(...ends));
  const joined = ends[end] as number;
  const kinds: number[][] = [];
  while (end >= 0) {
    kinds.unshift(sets[end] as number[]);
    const before = (from[passed] as Int8Array)[end] as number;
    passed &= ~(1 << end);
    end = before;
  }
  return { kinds, joined };
}

/** From the largest set to what shares most with it, and so on. */
function nearestPath(sets: number[][]): { kinds: number[][]; joined: number } {
  const left = [...sets].sort((a, b) => b.length - a.length);
  const kinds = left.splice(0, 1);
  let joined = 0;
  while (left.length > 0) {
    const here = kinds.at(-1) as number[];
    const most = left.reduce(
      (best, set, at) => (shared(here, set) > shared(here, left[best] as number[]) ? at : best),
      0,
    );
    joined += shared(here, left[most] as number[]);
    kinds.push(...left.splice(most, 1));
  }
  return { kinds, joined };
}
