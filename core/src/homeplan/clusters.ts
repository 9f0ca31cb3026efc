import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Selection } from '../job/schema/job.js';
import { type BoxTogether, boxTogether } from '../match/ways-at.js';
import type { Unit } from './units.js';
import type { Option, PlanChoice } from './vocabulary.js';

/**
 * So many combinations of what is different to a box are asked of it; five positions of eleven each are
 * within it.
 */
const MOST_COMBINATIONS = 200_000;

/** One way for each unit of a cluster, undefined where it is not served. */
export interface Picked {
  value: number;
  ways: readonly (Option | undefined)[];
}

/** The least for some amount drawn of what is short, one number for each resource. */
export interface Drawing extends Picked {
  draws: readonly number[];
}

/** What may be chosen, and what is made least: of every way its value, or null where it is not admitted. */
export type Worth = (way: Option) => number | null;

/**
 * Units that share boxes, decided together. Ways that are alike to their boxes form a sort; which
 * combinations of sorts the boxes bear is asked once, and holds whatever is then admitted or made least.
 *
 *     position 1 {leads, screws} x position 2 {leads, wide}: bears (leads, leads) and (screws, leads), but
 *     nothing with (.., wide)
 */
export class Cluster {
  /** Hubs any of its ways uses. */
  readonly hubs: readonly string[];

  private constructor(
    readonly units: readonly Unit[],
    /**
     * For each unit, its sorts of ways; a combination names a sort by its place here plus one, 0 where the
     * unit is not served.
     */
    private readonly sorts: readonly (readonly (readonly Option[])[])[],
    /** In order. */
    private readonly combinations: readonly (readonly number[])[],
    /**
     * False where too many sorts met to ask for all; a plan that rests on it says that it may not be the
     * least.
     */
    readonly complete: boolean,
  ) {
    this.hubs = [
      ...new Set(sorts.flatMap((own) => own.flatMap((ways) => ways.flatMap((way) => [...way.onHub.keys()])))),
    ];
  }

  static of(units: readonly Unit[], together: (boxId: string) => BoxTogether): Cluster {
    const sorts = units.map((unit) => sortsOf(unit, together));
    const complete = cutDown(sorts);
    return new Cluster(units, sorts, borneCombinations(units, sorts, together), complete);
  }

  /** The same with only the ways that are admitted. */
  admitting(admits: (way: Option) => boolean): Cluster {
    const sorts = this.sorts.map((own) => own.map((ways) => ways.filter(admits)));
    const combinations = this.combinations.filter((combination) =>
      combination.every((sort, at) => sort === 0 || (sorts[at]?.[sort - 1]?.length ?? 0) > 0),
    );
    return new Cluster(this.units, sorts, combinations, this.complete);
  }

  /** The least of all that the boxes bear; nothing served is worth 0. */
  best(worth: Worth): Picked {
    const cheapest = this.sorts.map((sorts) => sorts.map((ways) => leastOf(ways, worth)));
    let best = { value: Number.POSITIVE_INFINITY, combination: [] as readonly number[] };
    for (const combination of this.combinations) {
      let value = 0;
      for (let at = 0; at < combination.length; at++) {
        const sort = combination[at] as number;
        if (sort > 0) value += cheapest[at]?.[sort - 1]?.value ?? Number.POSITIVE_INFINITY;
      }
      if (value < best.value) best = { value, combination };
    }
    return {
      value: best.value,
      ways: best.combination.map((sort, at) => (sort > 0 ? cheapest[at]?.[sort - 1]?.way : undefined)),
    };
  }

  /** The least for every amount drawn of what is short: `draws` of a way, one number for each resource. */
  options(worth: Worth, draws: (way: Option) => readonly number[]): Drawing[] {
    const cheapest = this.sorts.map((sorts) => sorts.map((ways) => leastByDraws(ways, worth, draws)));
    const found = new Map<string, Prefix>();
    // Combinations come in order, so that most of them begin as the one before: what was summed for that
    // beginning is kept.
    const sums: Prefix[][] = [[{ value: 0, key: '', draws: [], way: undefined, before: undefined }]];
    let last: readonly number[] = [];
    for (const combination of this.combinations) {
      let same = 0;
      while (same < last.length && combination[same] === last[same]) same += 1;
      for (let at = same; at < combination.length; at++) {
        const sort = combination[at] as number;
        sums[at + 1] =
          sort === 0
            ? extended(sums[at] as Prefix[], NOT_SERVED)
            : extended(sums[at] as Prefix[], cheapest[at]?.[sort - 1] ?? []);
      }
      last = combination;
      for (const partial of sums[combination.length] ?? [])
        if (partial.value < (found.get(partial.key)?.value ?? Number.POSITIVE_INFINITY))
          found.set(partial.key, partial);
    }
    return [...found.values()].map(({ value, draws: drawn, ...rest }) => ({
      value,
      draws: drawn,
      ways: waysOf(rest),
    }));
  }
}

function sortsOf(unit: Unit, together: (boxId: string) => BoxTogether): Option[][] {
  const sorts = new Map<string, Option[]>();
  for (const way of unit.ways) {
    const key = way.choices
      .map((choice) => `${choice.boxId}/${together(choice.boxId).alike(selection(choice))}`)
      .join();
    sorts.set(key, [...(sorts.get(key) ?? []), way]);
  }
  // Of ways that draw on the same things only the cheapest can be wanted.
  return [...sorts.values()].map((ways) => {
    const kinds = new Map<string, Option>();
    for (const way of ways) {
      const key = resourceKey(way);
      const before = kinds.get(key);
      if (!before || way.cost < before.cost) kinds.set(key, way);
    }
    return [...kinds.values()].sort((a, b) => a.cost - b.cost);
  });
}

/** Leaves sorts out where there are too many combinations to ask for. */
function cutDown(sorts: readonly Option[][][]): boolean {
  let complete = true;
  while (sorts.reduce((product, own) => product * (own.length + 1), 1) > MOST_COMBINATIONS) {
    complete = false;
    sorts.reduce((most, own) => (own.length > most.length ? own : most)).pop();
  }
  return complete;
}

function borneCombinations(
  units: readonly Unit[],
  sorts: readonly Option[][][],
  together: (boxId: string) => BoxTogether,
): number[][] {
  const boxIds = [...new Set(units.flatMap((unit) => unit.places.map((place) => place.boxId)))];
  // One way of each sort speaks for all of it.
  const choices = sorts.map((own) => own.map((ways) => (ways[0]?.choices ?? []).map(selection)));
  const combination = sorts.map(() => 0);
  const borne: number[][] = [];
  const descend = (at: number) => {
    if (at === sorts.length) {
      const all = combination.flatMap((sort, unit) => (sort > 0 ? (choices[unit]?.[sort - 1] ?? []) : []));
      if (boxIds.every((boxId) => together(boxId).bears(all.filter((choice) => choice.boxId === boxId))))
        borne.push([...combination]);
      return;
    }
    for (let sort = 0; sort <= (sorts[at]?.length ?? 0); sort++) {
      combination[at] = sort;
      descend(at + 1);
    }
  };
  descend(0);
  return borne;
}

export function clustersOf(units: readonly Unit[], known: JobLookup): Cluster[] {
  const boxes = new Map<string, BoxTogether>();
  const together = (boxId: string) => {
    let answer = boxes.get(boxId);
    if (!answer) {
      const box = known.boxes.get(boxId);
      if (!box)
        throw new Error(
          `A plan names the box "${boxId}", which is not in the job: check references before planning`,
        );
      answer = boxTogether(box, known);
      boxes.set(boxId, answer);
    }
    return answer;
  };
  return sharingBoxes(units).map((own) => Cluster.of(own, together));
}

function sharingBoxes(units: readonly Unit[]): Unit[][] {
  const clusters: { boxes: Set<string>; units: Unit[] }[] = [];
  for (const unit of units) {
    const boxes = new Set(unit.places.map((place) => place.boxId));
    const touched = clusters.filter((cluster) => [...boxes].some((box) => cluster.boxes.has(box)));
    const merged = {
      boxes: new Set([...boxes, ...touched.flatMap((cluster) => [...cluster.boxes])]),
      units: [...touched.flatMap((cluster) => cluster.units), unit],
    };
    for (const cluster of touched) clusters.splice(clusters.indexOf(cluster), 1);
    clusters.push(merged);
  }
  return clusters.map((cluster) => cluster.units);
}

function leastOf(ways: readonly Option[], worth: Worth): { way: Option; value: number } | undefined {
  let least: { way: Option; value: number } | undefined;
  for (const way of ways) {
    const value = worth(way);
    if (value !== null && (!least || value < least.value)) least = { way, value };
  }
  return least;
}

interface Drawn {
  way: Option | undefined;
  value: number;
  draws: readonly number[];
}

/** A sum over the first units of a combination; its ways hang together backwards. */
interface Prefix extends Drawn {
  key: string;
  before: Prefix | undefined;
}

const NOT_SERVED: readonly Drawn[] = [{ way: undefined, value: 0, draws: [] }];

/** Every sum with every way of the next unit; of equal draws only the least. */
function extended(sums: readonly Prefix[], ways: readonly Drawn[]): Prefix[] {
  const least = new Map<string, Prefix>();
  for (const before of sums)
    for (const { way, value, draws } of ways) {
      const drawn =
        draws.length === 0
          ? before.draws
          : draws.map((draw, resource) => draw + (before.draws[resource] ?? 0));
      const key = draws.length === 0 ? before.key : drawn.some((draw) => draw > 0) ? drawn.join() : '';
      const sum = before.value + value;
      if (sum < (least.get(key)?.value ?? Number.POSITIVE_INFINITY))
        least.set(key, { way, value: sum, draws: drawn, key, before });
    }
  return [...least.values()];
}

function waysOf({
  way,
  before,
}: {
  way: Option | undefined;
  before: Prefix | undefined;
}): (Option | undefined)[] {
  return before ? [...waysOf(before), way] : [];
}

function leastByDraws(
  ways: readonly Option[],
  worth: Worth,
  draws: (way: Option) => readonly number[],
): Drawn[] {
  const least = new Map<string, Drawn>();
  for (const way of ways) {
    const value = worth(way);
    if (value === null) continue;
    const own = draws(way);
    const key = own.join();
    if (value < (least.get(key)?.value ?? Number.POSITIVE_INFINITY))
      least.set(key, { way, value, draws: own });
  }
  return [...least.values()];
}

const selection = ({ boxId, position, deviceId, strategy, with: parts }: PlanChoice): Selection => ({
  boxId,
  position,
  deviceId,
  strategy,
  with: [...parts],
});

/** What a way draws on beside money. */
function resourceKey(option: Option): string {
  const hubs = [...option.onHub].map(([id, count]) => `${id}*${count}`).sort();
  const sorted = (names: Iterable<string>) => [...names].sort().join();
  return [option.wifi, hubs.join(), sorted(option.families), sorted(option.radios)].join(';');
}

/** The selections that stand whatever is planned: those of positions that no plan decides. */
export function withoutPlanned(known: JobLookup, planned: ReadonlySet<string>): JobLookup {
  const selections = known.job.selections.filter(
    (entry) => !planned.has(placeKey(entry.boxId, entry.position)),
  );
  return {
    ...known,
    job: { ...known.job, selections },
    selections: new Map(selections.map((entry) => [placeKey(entry.boxId, entry.position), entry])),
  };
}
