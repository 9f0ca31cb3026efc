import { A_TRIP, type BatchCost, type Costs, shared } from './cost.js';

/** A batch of an exact search: which units, as bits, and what it costs. */
interface Choice {
  units: number;
  cost: number;
  /** Number of its set of panels. */
  panels: number;
}

/** A way to have some units done: its weight, and the batch it ended with. */
interface Reached {
  weight: number;
  last: Choice | null;
  before: Reached | null;
}

/**
 * The best partition into batches, and their order: what was reached with a set of units done is kept once
 * for each set of panels that the last batch ended at, as only these tell what the next one shares.
 * @returns the units of each batch, in the order of the day
 */
export function bestPartition(costs: Costs): number[][] {
  const count = costs.day.units.length;
  const choices = choicesOf(costs, count);
  const all = 2 ** count - 1;
  const reached: Reached[][] = Array.from({ length: all + 1 }, () => []);
  reached[0] = [{ weight: 0, last: null, before: null }];
  for (let done = 0; done < all; done++) {
    const ways = undominated(reached[done] as Reached[], choices);
    reached[done] = [];
    if (ways.length === 0) continue;
    const cheapest = cheapestAfter(ways, choices);
    forEachWithin(all & ~done, choices, (choice) => {
      const { weight, way } = cheapest[choice.panels] as Cheapest;
      keepBest(reached[done | choice.units] as Reached[], weight + choice.cost, choice, way);
    });
  }
  const best = (reached[all] as Reached[]).reduce((least, way) => (way.weight < least.weight ? way : least));
  const batches: number[][] = [];
  for (let way: Reached | null = best; way?.last; way = way.before)
    batches.unshift(unitsOf(way.last.units, count));
  return batches;
}

interface Cheapest {
  weight: number;
  way: Reached;
}

/** For each set of panels the way it is best begun after, the trips it shares taken off. */
function cheapestAfter(ways: readonly Reached[], { overlap }: Choices): Cheapest[] {
  return overlap.map((row) => {
    let best: Cheapest = { weight: Number.POSITIVE_INFINITY, way: ways[0] as Reached };
    for (const way of ways) {
      const weight = way.weight - (way.last === null ? 0 : (row[way.last.panels] as number) * A_TRIP);
      if (weight < best.weight) best = { weight, way };
    }
    return best;
  });
}

/** Every allowed batch of these units: by its subsets, or by the list of batches, whichever is shorter. */
function forEachWithin(units: number, { list, byUnits }: Choices, call: (choice: Choice) => void): void {
  if (2 ** bitsIn(units) < list.length) {
    for (let some = units; some > 0; some = (some - 1) & units) {
      const choice = byUnits[some];
      if (choice) call(choice);
    }
  } else for (const choice of list) if ((choice.units & ~units) === 0) call(choice);
}

function bitsIn(units: number): number {
  let count = 0;
  for (let left = units; left > 0; left &= left - 1) count += 1;
  return count;
}

function keepBest(ways: Reached[], weight: number, last: Choice, before: Reached): void {
  const known = ways.find((way) => way.last?.panels === last.panels);
  if (!known) ways.push({ weight, last, before });
  else if (known.weight > weight) Object.assign(known, { weight, last, before });
}

/**
 * Ways that may still come to the best: one is left out when another is so much better that the panels it
 * ended at cannot make up for it.
 */
function undominated(ways: readonly Reached[], { overlap, sizes }: Choices): Reached[] {
  const kept: Reached[] = [];
  for (const way of [...ways].sort((a, b) => a.weight - b.weight)) {
    const panels = way.last?.panels;
    const beaten = kept.some((other) => {
      if (panels === undefined || !other.last) return true;
      const more = (sizes[panels] as number) - (overlap[panels]?.[other.last.panels] as number);
      return other.weight + more * A_TRIP <= way.weight;
    });
    if (!beaten) kept.push(way);
  }
  return kept;
}

interface Choices {
  list: readonly Choice[];
  /** The same, at the bits of their units. */
  byUnits: readonly (Choice | undefined)[];
  /** Of each set of panels: how many, and how many it shares with each other set. */
  sizes: readonly number[];
  overlap: readonly (readonly number[])[];
}

/** Every batch that is allowed, with the panels of all of them numbered set by set. */
function choicesOf(costs: Costs, count: number): Choices {
  const numberOf = new Map<string, number>();
  const sets: BatchCost['panels'][] = [];
  const list: Choice[] = [];
  const add = (members: readonly number[], units: number) => {
    const { weight, panels } = costs.of(members);
    const key = panels.join();
    let number = numberOf.get(key);
    if (number === undefined) {
      number = sets.length;
      numberOf.set(key, number);
      sets.push(panels);
    }
    list.push({ units, cost: weight, panels: number });
  };
  const grow = (members: readonly number[], units: number, from: number) => {
    for (let unit = from; unit < count; unit++) {
      const more = [...members, unit];
      if (!costs.isAllowed(more)) continue;
      add(more, units | (1 << unit));
      grow(more, units | (1 << unit), unit + 1);
    }
  };
  grow([], 0, 0);
  const byUnits: (Choice | undefined)[] = Array.from({ length: 2 ** count });
  for (const choice of list) byUnits[choice.units] = choice;
  return {
    list,
    byUnits,
    sizes: sets.map(({ length }) => length),
    overlap: sets.map((one) => sets.map((other) => shared(one, other))),
  };
}

const unitsOf = (bits: number, count: number): number[] =>
  Array.from({ length: count }, (_, unit) => unit).filter((unit) => (bits >> unit) & 1);
