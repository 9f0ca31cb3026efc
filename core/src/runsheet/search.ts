import { A_TRIP, type BatchCost, type Costs } from './cost.js';
import { bestPartition } from './exact.js';
import { Ordering } from './order.js';

/** Batches of no more units than this are put together anew, so many times for each number of batches. */
const MOST_UNITS_REBUILT = 10;
const MOST_REBUILT = 60;

/**
 * A good partition of many units: several first fillings, each made better as long as moving a unit,
 * exchanging two, or taking two batches apart and together again helps.
 * @returns the units of each batch, in order
 */
export function goodPartition(costs: Costs): number[][] {
  const search = new Search(costs);
  let best: Solution | undefined;
  for (const order of fillings(costs)) {
    const found = search.improved(search.filled(order));
    if (!best || found.weight < best.weight) best = found;
  }
  return best ? search.inOrder(best.batches) : [];
}

interface Solution {
  batches: number[][];
  weight: number;
}

/** Orders in which units are filled in: by panels first, by what needs a check first, by where they are. */
function fillings({ day }: Costs): number[][] {
  const numbers = day.units.map((_, unit) => unit);
  const keys: ((unit: number) => (string | number)[])[] = [
    (unit) => [panelsOf(unit), checkOf(unit), circuitsOf(unit), whereOf(unit)],
    (unit) => [panelsOf(unit), checkOf(unit), whereOf(unit), circuitsOf(unit)],
    (unit) => [panelsOf(unit), -sizeOf(unit), checkOf(unit), circuitsOf(unit)],
    (unit) => [checkOf(unit), panelsOf(unit), circuitsOf(unit), whereOf(unit)],
  ];
  const unitAt = (unit: number) => day.units[unit] as (typeof day.units)[number];
  const panelsOf = (unit: number) =>
    `${9 - unitAt(unit).panels.length}${[...unitAt(unit).panels].sort().join()}`;
  const checkOf = (unit: number) => (unitAt(unit).needsCheck ? 0 : 1);
  const circuitsOf = (unit: number) => [...unitAt(unit).circuitIds].sort().join();
  const sizeOf = (unit: number) => unitAt(unit).boxIds.length;
  const whereOf = (unit: number) => {
    const at = day.room.get(unitAt(unit).boxIds[0] ?? '');
    return `${at?.floor ?? 0}|${at?.roomId ?? ''}`;
  };
  return keys.map((keyOf) =>
    numbers
      .map((unit) => ({ unit, key: keyOf(unit) }))
      .sort((a, b) => compared(a.key, b.key) || a.unit - b.unit)
      .map(({ unit }) => unit),
  );
}

function compared(one: readonly (string | number)[], other: readonly (string | number)[]): number {
  for (const [at, value] of one.entries()) {
    const beside = other[at] as typeof value;
    if (value !== beside) return value < beside ? -1 : 1;
  }
  return 0;
}

class Search {
  private readonly ordering = new Ordering();
  private readonly known = new Map<string, BatchCost>();
  private readonly rebuiltBefore = new Set<string>();

  constructor(private readonly costs: Costs) {}

  /** Each unit into the batch where it costs least, in this order. */
  filled(order: readonly number[]): number[][] {
    const batches: number[][] = [];
    for (const unit of order) {
      const options = [...batches.keys()].filter((at) =>
        this.costs.isAllowed([...(batches[at] as number[]), unit]),
      );
      const least = options
        .map((at) => ({
          at,
          more:
            this.cost([...(batches[at] as number[]), unit]).weight -
            this.cost(batches[at] as number[]).weight,
        }))
        .sort((a, b) => a.more - b.more)[0];
      if (least && least.more < this.cost([unit]).weight) (batches[least.at] as number[]).push(unit);
      else batches.push([unit]);
    }
    return batches;
  }

  improved(first: number[][]): Solution {
    let now: Solution = { batches: first, weight: this.weigh(first) };
    for (let better: Solution | null = now; better; ) {
      now = better;
      better = this.moved(now) ?? this.exchanged(now) ?? this.rebuilt(now, 2) ?? this.rebuilt(now, 3);
    }
    return now;
  }

  inOrder(batches: number[][]): number[][] {
    const panels = batches.map((members) => this.cost(members).panels);
    return this.ordering.inOrder(panels).map((at) => batches[at] as number[]);
  }

  private cost(members: readonly number[]): BatchCost {
    const key = [...members].sort((a, b) => a - b).join();
    let cost = this.known.get(key);
    if (!cost) {
      cost = this.costs.of(members);
      this.known.set(key, cost);
    }
    return cost;
  }

  private weigh(batches: readonly (readonly number[])[]): number {
    let sum = 0;
    const panels: (readonly number[])[] = [];
    for (const members of batches) {
      const cost = this.cost(members);
      sum += cost.weight;
      panels.push(cost.panels);
    }
    return sum - this.ordering.saved(panels) * A_TRIP;
  }

  /** With some batches in the place of others; null when that is no better. */
  private tried({ batches, weight }: Solution, without: readonly number[], put: number[][]): Solution | null {
    const next = [
      ...batches.filter((_, at) => !without.includes(at)),
      ...put.filter((members) => members.length > 0),
    ];
    const weighed = this.weigh(next);
    return weighed < weight ? { batches: next, weight: weighed } : null;
  }

  private moved(now: Solution): Solution | null {
    for (const [from, members] of now.batches.entries())
      for (const unit of members) {
        const rest = members.filter((other) => other !== unit);
        for (let to = -1; to < now.batches.length; to++) {
          if (to === from || (to < 0 && rest.length === 0)) continue;
          const grown = to < 0 ? [unit] : [...(now.batches[to] as number[]), unit];
          if (!this.costs.isAllowed(grown)) continue;
          const better = this.tried(now, to < 0 ? [from] : [from, to], [rest, grown]);
          if (better) return better;
        }
      }
    return null;
  }

  private exchanged(now: Solution): Solution | null {
    for (let from = 0; from < now.batches.length; from++)
      for (let to = from + 1; to < now.batches.length; to++)
        for (const unit of now.batches[from] as number[])
          for (const other of now.batches[to] as number[]) {
            const one = [...(now.batches[from] as number[]).filter((entry) => entry !== unit), other];
            const two = [...(now.batches[to] as number[]).filter((entry) => entry !== other), unit];
            if (!this.costs.isAllowed(one) || !this.costs.isAllowed(two)) continue;
            const better = this.tried(now, [from, to], [one, two]);
            if (better) return better;
          }
    return null;
  }

  /** Some batches put together anew, in the best way there is for their units alone. */
  private rebuilt(now: Solution, together: number): Solution | null {
    for (const at of chosen(now.batches.length, together)) {
      const members = at.flatMap((batch) => now.batches[batch] as number[]).sort((a, b) => a - b);
      const key = members.join();
      if (members.length > MOST_UNITS_REBUILT || this.rebuiltBefore.has(key)) continue;
      if (this.rebuiltBefore.size >= MOST_REBUILT * together) return null;
      this.rebuiltBefore.add(key);
      const parts = bestPartition(this.costs.within(members)).map((part) =>
        part.map((unit) => members[unit] as number),
      );
      const better = this.tried(now, at, parts);
      if (better) return better;
    }
    return null;
  }
}

/** Every choice of so many of the numbers below `count`. */
function* chosen(count: number, many: number, from = 0): Generator<number[]> {
  if (many === 0) yield [];
  else
    for (let first = from; first < count; first++)
      for (const rest of chosen(count, many - 1, first + 1)) yield [first, ...rest];
}
