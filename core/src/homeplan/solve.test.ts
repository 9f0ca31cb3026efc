import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { exampleJob } from '../test-support/examples.js';
import { Random } from '../test-support/random.js';
import { Cluster } from './clusters.js';
import { fewestFamilies } from './families.js';
import { solve } from './solve.js';
import type { Unit } from './units.js';
import type { Option } from './vocabulary.js';

const HUBS = ['h1', 'h2', 'h3', 'h4'];

/** A job that is nothing but hubs, a router and what is owned. */
function market(random: Random): Job {
  const job = exampleJob('pantry');
  job.selections = [];
  job.money = { currency: 'USD', labourPerHour: random.pick([0, 60, 7000]) };
  job.catalogue.hubs = HUBS.map((id) => ({
    id,
    name: id,
    price: random.int(0, 40),
    radio: 'mesh',
    platforms: [],
    deviceLimit: random.int(1, 5),
    wired: random.chance(0.5),
  }));
  job.brief = {
    hubsOwned: HUBS.filter(() => random.chance(0.3)),
    ...(random.chance(0.7) ? { wifi: { clientsNow: 5, clientLimit: 5 + random.int(-1, 4) } } : {}),
  };
  return job;
}

/** Every way of a unit serves as many places: a group is served whole or not at all. */
function way(random: Random, at: number, rate: number, served: number): Option {
  const hub = random.chance(0.6) ? random.pick(HUBS) : undefined;
  const devices = random.int(5, 40);
  const minutes = random.int(10, 20);
  return {
    choices: [{ boxId: 'pantry', position: at + 1, deviceId: 'pw-20', strategy: 'single', with: [] }],
    served,
    devices,
    parts: 0,
    minutes,
    cost: 60 * devices + minutes * rate,
    wifi: hub ? 0 : 1,
    onHub: new Map(hub ? [[hub, random.int(1, 2)]] : []),
    families: new Set([random.pick(['a', 'b', 'c'])]),
    radios: new Set([hub ? 'mesh' : 'wifi']),
  };
}

/** Boxes that bear everything, and tell every way from every other. */
const BEARS_ALL = () =>
  ({ bears: () => true, alike: (choice: { position: number }) => String(choice.position) }) as never;

/** Every combination of ways: the most served, then the least cost, of those the router and the hubs bear. */
function plain(units: readonly Unit[], job: Job, admits: (way: Option) => boolean) {
  let best = { served: 0, cost: 0 };
  const owned = new Set(job.brief?.hubsOwned);
  const wifi = job.brief?.wifi;
  const descend = (at: number, chosen: readonly Option[]) => {
    if (at < units.length) {
      descend(at + 1, chosen);
      for (const own of units[at]?.ways ?? []) if (admits(own)) descend(at + 1, [...chosen, own]);
      return;
    }
    const onHub = (id: string) => chosen.reduce((sum, own) => sum + (own.onHub.get(id) ?? 0), 0);
    const used = job.catalogue.hubs.filter((hub) => chosen.some((own) => own.onHub.has(hub.id)));
    if (used.some((hub) => onHub(hub.id) > hub.deviceLimit)) return;
    const bought = used.filter((hub) => !owned.has(hub.id));
    const clients =
      chosen.reduce((sum, own) => sum + own.wifi, 0) + bought.filter((hub) => !hub.wired).length;
    if (wifi?.clientLimit !== undefined && clients > 0 && (wifi.clientsNow ?? 0) + clients > wifi.clientLimit)
      return;
    const served = chosen.reduce((sum, own) => sum + own.served, 0);
    const cost =
      chosen.reduce((sum, own) => sum + own.cost, 0) + bought.reduce((sum, hub) => sum + 60 * hub.price, 0);
    if (served > best.served || (served === best.served && cost < best.cost)) best = { served, cost };
  };
  descend(0, []);
  return best;
}

describe.each(Array.from({ length: 60 }, (_, at) => at + 1))(
  'hubs, the router and their limits against every combination (seed %i)',
  (seed) => {
    const random = new Random(seed);
    const job = market(random);
    const rate = job.money?.labourPerHour ?? 0;
    const units: Unit[] = Array.from({ length: 6 }, (_, at) => {
      const served = random.pick([1, 1, 2]);
      return {
        places: [{ boxId: 'pantry', position: at + 1, smart: true }],
        ways: Array.from({ length: random.int(0, 4) }, () => way(random, at, rate, served)),
      };
    });
    const known = lookup(job);
    const clusters = [units.slice(0, 1), units.slice(1, 3), units.slice(3)].map((own) =>
      Cluster.of(own, BEARS_ALL),
    );

    test('the least cost', () => {
      const solved = solve(clusters, () => true, known);
      expect({ seed, served: solved.served, cost: solved.cost, exact: solved.exact }).toEqual({
        seed,
        ...plain(units, job, () => true),
        exact: true,
      });
    });

    test('without hubs', () => {
      const noHub = (own: Option) => own.onHub.size === 0;
      const solved = solve(clusters, noHub, known);
      expect({ seed, served: solved.served, cost: solved.cost }).toEqual({
        seed,
        ...plain(units, job, noHub),
      });
    });

    test('the fewest families, then the least cost', () => {
      const cheapest = solve(clusters, () => true, known);
      const sets = [[], ['a'], ['b'], ['c'], ['a', 'b'], ['a', 'c'], ['b', 'c'], ['a', 'b', 'c']];
      const fitting = sets
        .map((set) => ({
          size: set.length,
          ...plain(units, job, (own) => [...own.families].every((family) => set.includes(family))),
        }))
        .filter((entry) => entry.served === cheapest.served);
      const size = Math.min(...fitting.map((entry) => entry.size));
      const cost = Math.min(...fitting.filter((entry) => entry.size === size).map((entry) => entry.cost));
      const solved = fewestFamilies(clusters, cheapest, known);
      expect({ seed, served: solved.served, cost: solved.cost }).toEqual({
        seed,
        served: cheapest.served,
        cost,
      });
    });
  },
);

test('a house that needs many families finds them without trying every set', () => {
  const job = exampleJob('pantry');
  job.brief = {};
  job.selections = [];
  const unit = (at: number, families: string[]): Unit => ({
    places: [{ boxId: 'pantry', position: at, smart: true }],
    ways: families.map((family, price) => ({
      choices: [{ boxId: 'pantry', position: at, deviceId: 'pw-20', strategy: 'single', with: [] }],
      served: 1,
      devices: 10 + price,
      parts: 0,
      minutes: 0,
      cost: 60 * (10 + price),
      wifi: 1,
      onHub: new Map(),
      families: new Set([family]),
      radios: new Set(['wifi']),
    })),
  });
  // Sixteen places that only one family of its own serves, and eight that one family they share serves:
  // seventeen families of twenty-six.
  const units = [
    ...Array.from({ length: 16 }, (_, at) => unit(at + 1, [`own ${at}`])),
    ...Array.from({ length: 8 }, (_, at) =>
      unit(at + 17, [`spare ${at}`, 'shared', ...(at > 5 ? ['other'] : [])]),
    ),
  ];
  const known = lookup(job);
  const clusters = units.map((own) => Cluster.of([own], BEARS_ALL));
  const cheapest = solve(clusters, () => true, known);
  const solved = fewestFamilies(clusters, cheapest, known);
  expect({
    exact: solved.exact,
    served: solved.served,
    families: new Set(solved.ways.flatMap((own) => [...own.families])).size,
  }).toEqual({
    exact: true,
    served: 24,
    families: 17,
  });
});
