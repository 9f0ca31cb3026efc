import type { JobLookup } from '../job/lookup.js';
import type { Cluster, Drawing, Picked, Worth } from './clusters.js';
import type { Option } from './vocabulary.js';

/** One option for each cluster: the most places served, then the least cost. */
export interface Solved {
  ways: readonly Option[];
  served: number;
  /** Sixtieths of a minor unit, hubs to buy included. */
  cost: number;
  exact: boolean;
  /** What no plan can go below, in the same unit and with as many places served; equals `cost` when exact. */
  bound: number;
}

/** A table larger than this is not filled: the plan is then repaired step by step, and its gap is told. */
const MOST_STATES = 400_000;

/** So many ways of buying hubs are looked at; 8 hubs have 256. */
const MOST_HUB_SETS = 20_000;

interface HubToBuy {
  id: string;
  price: number;
  /** A client of the router. */
  client: boolean;
}

/**
 * Decides hub by hub whether it is bought, and for a set of hubs takes the least of every cluster; where the
 * router or a hub would be overdrawn, a table over what is short takes its place.
 *
 * @param admits ways that may be chosen
 * @param known its selections are those of positions no plan decides: they draw on the router and the hubs
 * before any choice
 */
export function solve(
  clusters: readonly Cluster[],
  admits: (way: Option) => boolean,
  known: JobLookup,
): Solved {
  return new Solver(
    clusters.map((cluster) => cluster.admitting(admits)),
    known,
  ).run();
}

class Solver {
  private readonly toBuy: HubToBuy[];
  private readonly owned: ReadonlySet<string>;
  /** More than any plan can cost: what a served place is worth. */
  private readonly perPlace: number;
  /** Clients the router can still take; null without a limit. */
  private readonly clientsLeft: number | null;
  private readonly hubLeft = new Map<string, number>();
  private readonly relaxed: Map<number, Picked>[];
  private readonly drawings: Map<string, readonly Drawing[]>[];
  private best: { ways: Option[]; value: number; exact: boolean } | undefined;
  private bound = Number.POSITIVE_INFINITY;
  private looked = 0;

  constructor(
    private readonly clusters: readonly Cluster[],
    known: JobLookup,
  ) {
    const { brief } = known.job;
    this.owned = new Set(brief?.hubsOwned ?? []);
    const used = new Set(clusters.flatMap((cluster) => [...cluster.hubs]));
    this.toBuy = [...used]
      .filter((id) => !this.owned.has(id))
      .flatMap((id) => known.hubs.get(id) ?? [])
      .map((hub) => ({ id: hub.id, price: 60 * hub.price, client: !hub.wired }));
    const dearest = clusters
      .flatMap((cluster) => cluster.units)
      .reduce((sum, unit) => sum + unit.ways.reduce((most, way) => Math.max(most, way.cost), 0), 0);
    this.perPlace = dearest + this.toBuy.reduce((sum, hub) => sum + hub.price, 0) + 1;
    this.relaxed = clusters.map(() => new Map());
    this.drawings = clusters.map(() => new Map());
    const standing = standingOn(known);
    const limit = brief?.wifi?.clientLimit;
    this.clientsLeft = limit === undefined ? null : limit - (brief?.wifi?.clientsNow ?? 0) - standing.wifi;
    for (const hub of known.job.catalogue.hubs)
      this.hubLeft.set(hub.id, Math.max(0, hub.deviceLimit - (standing.onHub.get(hub.id) ?? 0)));
  }

  run(): Solved {
    this.decideHub(
      0,
      this.toBuy.map(() => true),
      0,
    );
    const { ways, value, exact: found } = this.best ?? { ways: [], value: 0, exact: true };
    const exact = found && this.looked <= MOST_HUB_SETS;
    const served = ways.reduce((sum, way) => sum + way.served, 0);
    const total = value + served * this.perPlace;
    return {
      ways,
      served,
      cost: total,
      exact,
      bound: exact ? total : Math.min(total, this.bound + served * this.perPlace),
    };
  }

  /**
   * @param open hubs that may be used, the first `at` of them decided; those that are not may be had for
   * nothing, which is a bound
   */
  private decideHub(at: number, open: readonly boolean[], price: number): void {
    const usable = new Set([
      ...this.owned,
      ...this.toBuy.filter((_, which) => open[which]).map((hub) => hub.id),
    ]);
    const picks = this.clusters.map((cluster, which) => this.leastOf(cluster, which, usable));
    const relaxed = picks.reduce((sum, pick) => sum + pick.value, price);
    if (relaxed >= (this.best?.value ?? Number.POSITIVE_INFINITY)) return;
    this.looked += 1;
    if (this.looked > MOST_HUB_SETS) {
      // What was not looked at is at least this good: the plan found so far stands, with the gap to it.
      this.bound = Math.min(this.bound, relaxed);
      return;
    }
    const hub = this.toBuy[at];
    if (!hub) {
      this.withHubs(usable, picks, price, relaxed);
      return;
    }
    this.decideHub(at + 1, open.with(at, false), price);
    this.decideHub(at + 1, open, price + hub.price);
  }

  private worth(usable: ReadonlySet<string>): Worth {
    return (way) => {
      for (const hub of way.onHub.keys()) if (!usable.has(hub)) return null;
      return way.cost - way.served * this.perPlace;
    };
  }

  private leastOf(cluster: Cluster, which: number, usable: ReadonlySet<string>): Picked {
    const key = hubKey(cluster, usable);
    let pick = this.relaxed[which]?.get(key);
    if (!pick) {
      pick = cluster.best(this.worth(usable));
      this.relaxed[which]?.set(key, pick);
    }
    return pick;
  }

  private optionsOf(
    cluster: Cluster,
    which: number,
    usable: ReadonlySet<string>,
    resources: readonly string[],
  ): readonly Drawing[] {
    const key = `${hubKey(cluster, usable)};${resources.join()}`;
    let options = this.drawings[which]?.get(key);
    if (!options) {
      options = cluster.options(this.worth(usable), (way) =>
        resources.map((resource) => drawn(way, resource)),
      );
      this.drawings[which]?.set(key, options);
    }
    return options;
  }

  private withHubs(
    usable: ReadonlySet<string>,
    picks: readonly Picked[],
    price: number,
    relaxed: number,
  ): void {
    const clients = this.toBuy.filter((hub) => hub.client && usable.has(hub.id)).length;
    if (this.clientsLeft !== null && clients > 0 && clients > this.clientsLeft) return;
    const limits = new Map<string, number>([...this.hubLeft].filter(([hub]) => usable.has(hub)));
    if (this.clientsLeft !== null) limits.set(ROUTER, Math.max(0, this.clientsLeft - clients));
    const found = withinLimits(picks, limits, (resources) =>
      this.clusters.map((cluster, which) => this.optionsOf(cluster, which, usable, resources)),
    );
    if (!found.exact) this.bound = Math.min(this.bound, relaxed);
    const value = found.picks.reduce((sum, pick) => sum + pick.value, price);
    if (value < (this.best?.value ?? Number.POSITIVE_INFINITY))
      this.best = {
        ways: found.picks.flatMap((pick) => pick.ways.filter((way) => way !== undefined)),
        value,
        exact: found.exact,
      };
  }
}

/** Which of the cluster's hubs may be used, as a sum of powers of two. */
function hubKey(cluster: Cluster, usable: ReadonlySet<string>): number {
  let key = 0;
  for (let at = 0; at < cluster.hubs.length; at++) if (usable.has(cluster.hubs[at] as string)) key += 2 ** at;
  return key;
}

const ROUTER = 'the router';

function drawn(way: Option, resource: string): number {
  return resource === ROUTER ? way.wifi : (way.onHub.get(resource) ?? 0);
}

function drawnBy(picks: readonly Picked[], resource: string): number {
  return picks.reduce(
    (sum, pick) => sum + pick.ways.reduce((own, way) => own + (way ? drawn(way, resource) : 0), 0),
    0,
  );
}

/**
 * Starts without limits and takes in, one after the other, those that the answer breaks. Serving nothing is
 * always within them.
 *
 * @param optionsFor of every cluster, the least for each amount drawn of these resources
 */
function withinLimits(
  free: readonly Picked[],
  limits: ReadonlyMap<string, number>,
  optionsFor: (resources: readonly string[]) => readonly (readonly Drawing[])[],
): { picks: readonly Picked[]; exact: boolean } {
  const short: string[] = [];
  let picks = free;
  for (;;) {
    const broken = [...limits].find(([resource, limit]) => drawnBy(picks, resource) > limit);
    if (!broken) return { picks, exact: true };
    short.push(broken[0]);
    const sizes = short.map((resource) => (limits.get(resource) ?? 0) + 1);
    if (sizes.reduce((product, size) => product * size, 1) > MOST_STATES)
      return { picks: repaired(optionsFor([...limits.keys()]), [...limits.values()]), exact: false };
    picks = overStates(optionsFor(short), sizes);
  }
}

/** The least value for every amount drawn so far of what is short, cluster by cluster. */
function overStates(options: readonly (readonly Drawing[])[], sizes: readonly number[]): Picked[] {
  const strides = sizes.map((_, at) => sizes.slice(0, at).reduce((product, size) => product * size, 1));
  const states = sizes.reduce((product, size) => product * size, 1);
  const used = sizes.map((size, at) =>
    Uint16Array.from({ length: states }, (_, state) => Math.floor(state / (strides[at] ?? 1)) % size),
  );
  const stepOf = (draws: readonly number[]) =>
    draws.reduce((sum, draw, at) => sum + draw * (strides[at] ?? 0), 0);
  let values = new Float64Array(states).fill(Number.POSITIVE_INFINITY);
  values[0] = 0;
  const picked: Uint16Array[] = [];
  for (const own of options) {
    const next = new Float64Array(states).fill(Number.POSITIVE_INFINITY);
    const pick = new Uint16Array(states);
    own.forEach(({ value: worth, draws }, which) => {
      const step = stepOf(draws);
      for (let state = 0; state + step < states; state++) {
        const value = (values[state] as number) + worth;
        if (value >= (next[state + step] as number)) continue;
        if (draws.some((draw, at) => (used[at]?.[state] ?? 0) + draw >= (sizes[at] ?? 0))) continue;
        next[state + step] = value;
        pick[state + step] = which;
      }
    });
    values = next;
    picked.push(pick);
  }
  let state = values.reduce((best, value, at) => (value < (values[best] as number) ? at : best), 0);
  const picks: Picked[] = [];
  for (let at = options.length - 1; at >= 0; at--) {
    const pick = options[at]?.[picked[at]?.[state] ?? 0] as Drawing;
    picks.unshift(pick);
    state -= stepOf(pick.draws);
  }
  return picks;
}

/**
 * Steps from the cheapest plan to one within the limits, by the change that costs least for what it frees.
 */
function repaired(options: readonly (readonly Drawing[])[], limits: readonly number[]): Drawing[] {
  const drawing = (pick: Drawing, at: number) => pick.draws[at] ?? 0;
  const picks = options.map((own) => own.reduce((least, pick) => (pick.value < least.value ? pick : least)));
  for (;;) {
    const over = limits.map((limit, at) => picks.reduce((sum, pick) => sum + drawing(pick, at), 0) > limit);
    if (!over.includes(true)) return picks;
    let best: { at: number; pick: Drawing; price: number } | undefined;
    options.forEach((own, at) => {
      const now = picks[at] as Drawing;
      for (const pick of own) {
        if (limits.some((_, resource) => drawing(pick, resource) > drawing(now, resource))) continue;
        const frees = over.reduce(
          (sum, short, resource) => sum + (short ? drawing(now, resource) - drawing(pick, resource) : 0),
          0,
        );
        const price = (pick.value - now.value) / frees;
        if (frees > 0 && (!best || price < best.price)) best = { at, pick, price };
      }
    });
    if (!best)
      return options.map((own) => own.find((pick) => pick.ways.every((way) => way === undefined)) as Drawing);
    picks[best.at] = best.pick;
  }
}

/** What stands whatever is planned, on the router and on each hub. */
export function standingOn(known: JobLookup): { wifi: number; onHub: ReadonlyMap<string, number> } {
  const onHub = new Map<string, number>();
  let wifi = 0;
  for (const { deviceId } of known.job.selections) {
    const device = known.devices.get(deviceId ?? '');
    if (device?.radio === 'wifi') wifi += 1;
    if (device?.hubId) onHub.set(device.hubId, (onHub.get(device.hubId) ?? 0) + 1);
  }
  return { wifi, onHub };
}
