import { describe, expect, test } from '@jest/globals';
import { lookup, placeKey, wantsSmart } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { PracticeId, Strategy } from '../job/schema/primitives.js';
import { ALONE, IN_GROUP } from '../match/candidate.js';
import { placeFacts } from '../match/place.js';
import { PlaceJudge } from '../match/place-judge.js';
import { exampleJob } from '../test-support/examples.js';
import { Random } from '../test-support/random.js';
import { smallHouse } from '../test-support/small-house.js';
import { homePlans } from './home-plans.js';
import { fewestRules } from './unserved.js';
import type { PlanChoice, School } from './vocabulary.js';

/** A way of serving a unit, with the place whose device feeds the load first. */
interface PlainWay {
  main: PlanChoice;
  partners: { boxId: string; position: number; deviceId: string | null }[];
  served: number;
}

/** Rules that look at what else is planned; every other one says the same in any plan. */
const OF_THE_PLAN = new Set(['gangs', 'rating', 'fill', 'packing', 'plate', 'hub', 'router']);

/** Fewer combinations than this are all tried. */
const TRIED = 1200;

/** The house with so few places left to decide that every plan can be tried. */
function tractable(job: Job): { job: Job; ways: PlainWay[][] } {
  for (;;) {
    const ways = plainWays(job);
    if (ways.reduce((product, own) => product * (own.length + 1), 1) <= TRIED) return { job, ways };
    const positions = job.boxes.flatMap((box) => box.positions.filter(wantsSmart));
    const last = positions.at(-1);
    if (last) last.need = { smart: false };
  }
}

/** Every way of every unit, judged by the match alone. */
function plainWays(job: Job): PlainWay[][] {
  const known = lookup(job);
  const ways: PlainWay[][] = [];
  const groups = new Set<unknown>();
  for (const box of job.boxes)
    for (const position of box.positions) {
      if (!wantsSmart(position)) continue;
      const group = known.groups.get(placeKey(box.id, position.index));
      if (group && groups.has(group)) continue;
      if (group) groups.add(group);
      const places = group?.places ?? [{ boxId: box.id, position: position.index }];
      const served = places.filter((place) => {
        const at = known.boxes.get(place.boxId)?.positions.find((entry) => entry.index === place.position);
        return at && wantsSmart(at);
      }).length;
      const own: PlainWay[] = [];
      for (const place of places)
        for (const device of job.catalogue.devices)
          for (const strategy of group ? IN_GROUP : ALONE)
            for (const partner of partnersOf(job, device, strategy)) {
              const found = judged(withPartner(job, device, strategy, partner), place, device.id, strategy);
              const feeds = device.terminals.some((terminal) => terminal.role === 'load');
              if (!found || (group && !feeds)) continue;
              if (
                found.reasons.some(
                  (reason) => ['block', 'unproved'].includes(reason.outcome) && !OF_THE_PLAN.has(reason.rule),
                )
              )
                continue;
              // Of two devices alike at both ends only the end with the load feeds it.
              if (
                group &&
                found.partners.some((entry) => entry.deviceId !== null && entry.deviceId !== partner)
              )
                continue;
              const family = (id: string | null) =>
                id === null ? device.family : known.devices.get(id)?.family;
              if (found.partners.some((entry) => family(entry.deviceId) !== device.family)) continue;
              const main = { ...place, deviceId: device.id, strategy, with: found.with };
              own.push({ main, partners: [...found.partners], served });
            }
      ways.push(own);
    }
  return ways;
}

function partnersOf(job: Job, device: Device, strategy: string): (string | null)[] {
  const listed = device.multiLocation?.find((entry) => entry.strategy === strategy)?.partnerIds ?? [];
  return listed.length > 0
    ? listed.filter((id) => job.catalogue.devices.some((other) => other.id === id))
    : [null];
}

/** The same job in which this device has only this partner. */
function withPartner(job: Job, device: Device, strategy: string, partner: string | null): Job {
  if (partner === null) return job;
  const multiLocation = (device.multiLocation ?? []).map((entry) =>
    entry.strategy === strategy ? { ...entry, partnerIds: [partner] } : entry,
  );
  const devices = job.catalogue.devices.map((other) =>
    other.id === device.id ? { ...device, multiLocation } : other,
  );
  return { ...job, catalogue: { ...job.catalogue, devices } };
}

function judged(job: Job, place: { boxId: string; position: number }, deviceId: string, strategy: Strategy) {
  const known = lookup(job);
  const box = known.boxes.get(place.boxId);
  const position = box?.positions.find((entry) => entry.index === place.position);
  const device = known.devices.get(deviceId);
  return box && position && device
    ? new PlaceJudge(placeFacts(box, position, known)).candidate(device, strategy)
    : undefined;
}

interface PlainPlan {
  choices: readonly PlanChoice[];
  served: number;
  total: number;
  families: number;
  schools: Set<School>;
}

/** Every combination of ways, judged again with all of it in place. */
function combinations(job: Job, ways: readonly PlainWay[][]): PlainPlan[] {
  const known = lookup(job);
  const plans: PlainPlan[] = [];
  const pick = (at: number, chosen: readonly PlainWay[]) => {
    if (at < ways.length) {
      pick(at + 1, chosen);
      for (const way of ways[at] ?? []) pick(at + 1, [...chosen, way]);
      return;
    }
    const choices = chosen.flatMap((way) => [
      way.main,
      ...way.partners.map((partner) => ({ ...partner, strategy: way.main.strategy, with: [] as string[] })),
    ]);
    if (!pinsAndBansHold(job, choices)) return;
    const selections = choices.map((choice) => ({ ...choice, with: [...choice.with] }));
    const bears = chosen.every((way) => {
      const device = known.devices.get(way.main.deviceId ?? '') as Device;
      const partner = way.partners.find((entry) => entry.deviceId !== null)?.deviceId ?? null;
      const house = { ...withPartner(job, device, way.main.strategy, partner), selections };
      const verdict = judged(house, way.main, device.id, way.main.strategy)?.verdict;
      return verdict === 'fits' || verdict === 'fits-with';
    });
    if (bears) plans.push(summed(job, chosen, choices));
  };
  pick(0, []);
  return plans;
}

function pinsAndBansHold(job: Job, choices: readonly PlanChoice[]): boolean {
  return choices.every((choice) => {
    const here = (entry: { boxId?: string | undefined; position?: number | undefined }) =>
      (entry.boxId ?? choice.boxId) === choice.boxId &&
      (entry.position ?? choice.position) === choice.position;
    return (
      !(job.brief?.bans ?? []).some((ban) => ban.deviceId === choice.deviceId && here(ban)) &&
      (job.brief?.pins ?? []).every((pin) => !here(pin) || pin.deviceId === choice.deviceId)
    );
  });
}

function summed(job: Job, chosen: readonly PlainWay[], choices: readonly PlanChoice[]): PlainPlan {
  const known = lookup(job);
  const devices = choices.flatMap((choice) => known.devices.get(choice.deviceId ?? '') ?? []);
  const hubs = new Set(devices.flatMap((device) => device.hubId ?? []));
  const bought = [...hubs]
    .filter((id) => !job.brief?.hubsOwned?.includes(id))
    .reduce((sum, id) => sum + (known.hubs.get(id)?.price ?? 0), 0);
  const musts = (job.brief?.platforms ?? []).filter((platform) => platform.want === 'must').length;
  const minutes = devices.reduce(
    (sum, device) => sum + 12 + (device.radio === 'none' ? 0 : (device.hubId ? 3 : 4) + musts),
    0,
  );
  const parts = choices
    .flatMap((choice) => choice.with)
    .reduce((sum, id) => sum + (job.catalogue.parts.find((part) => part.id === id)?.price ?? 0), 0);
  const radio = devices.filter((device) => device.radio !== 'none');
  const schools = new Set<School>(['lowest-cost', 'fewest-families']);
  if (hubs.size === 0) schools.add('no-hub');
  if (radio.every((device) => device.radio === 'mesh' && device.hubId) && hubs.size <= 1)
    schools.add('one-mesh-hub');
  if (radio.every((device) => device.radio === 'maker')) schools.add('makers-hub');
  return {
    choices,
    served: chosen.reduce((sum, way) => sum + way.served, 0),
    total:
      devices.reduce((sum, device) => sum + device.price, 0) +
      parts +
      bought +
      Math.round((minutes * (job.money?.labourPerHour ?? 0)) / 60),
    families: new Set(devices.map((device) => device.family)).size,
    schools,
  };
}

describe('against every plan of a small house', () => {
  const met = new Map<PracticeId, number[]>();
  const seeds = (practice: PracticeId, count: number) =>
    Array.from({ length: count }, (_, at) => [practice, at + 1] as const);
  test.each([...seeds('us', 30), ...seeds('ca', 12), ...seeds('modular', 16), ...seeds('gb', 4)])(
    '%s, seed %i',
    (practice, seed) => {
      const { job, ways } = tractable(smallHouse(new Random(seed), practice));
      const plain = combinations(job, ways);
      for (const plan of homePlans(job)) {
        const own = plain.filter((entry) => entry.schools.has(plan.school));
        const served = Math.max(...own.map((entry) => entry.served));
        const most = own.filter((entry) => entry.served === served);
        const families = Math.min(...most.map((entry) => entry.families));
        const fair =
          plan.school === 'fewest-families' ? most.filter((entry) => entry.families === families) : most;
        expect({
          seed,
          school: plan.school,
          served: plan.served,
          total: plan.total,
          proof: plan.proof,
        }).toEqual({
          seed,
          school: plan.school,
          served,
          total: Math.min(...fair.map((entry) => entry.total)),
          proof: 'optimal',
        });
        if (plan.school === 'fewest-families')
          expect({ seed, families: plan.families.length }).toEqual({ seed, families });
        expect(plan.devices + plan.hubs + plan.parts + plan.labour).toBe(plan.total);
        expect(plan.unserved.every((place) => place.why !== '')).toBe(true);
        if (plan.school === 'lowest-cost') met.set(practice, [...(met.get(practice) ?? []), plan.served]);
      }
    },
  );

  test('which are no empty houses: places are served in every practice, and two or more of one box together', () => {
    expect(
      Object.fromEntries(
        [...met].map(([practice, served]) => [practice, Math.max(...served) >= (practice === 'gb' ? 1 : 2)]),
      ),
    ).toEqual({
      us: true,
      ca: true,
      modular: true,
      gb: true,
    });
  });
});

test('the smallest set of rules that stops every device', () => {
  const stops = (...rules: string[][]) => rules.map((own) => new Set(own));
  expect(fewestRules(stops(['neutral', 'depth'], ['neutral'], ['neutral', 'fill']))).toEqual(['neutral']);
  expect(fewestRules(stops(['neutral'], ['depth', 'fill'], ['fill', 'plate']))).toEqual(['fill', 'neutral']);
});

test('a place that nothing can serve names the rule', () => {
  const job = exampleJob('pantry');
  job.brief = { ...job.brief, platforms: [{ name: 'Nowhere', want: 'must' }] };
  expect(homePlans(job)[0]).toMatchObject({
    served: 0,
    total: 0,
    unserved: [{ boxId: 'pantry', position: 1, why: 'platform' }],
  });
});

test('a pinned place that cannot be served says what stops the pinned device; pins at odds say so', () => {
  const job = exampleJob('shed');
  job.brief = { ...job.brief, pins: [{ boxId: 'shed', position: 2, deviceId: 'pw-15' }] };
  expect(homePlans(job)[0]?.unserved).toEqual([{ boxId: 'shed', position: 2, why: 'rating' }]);
  job.brief.pins?.push({ boxId: 'shed', position: 2, deviceId: 'ha-1000' });
  expect(homePlans(job)[0]?.unserved).toEqual([{ boxId: 'shed', position: 2, why: 'pin' }]);
  expect(
    homePlans({ ...job, brief: {}, catalogue: { ...job.catalogue, devices: [] } })[0]?.unserved,
  ).toHaveLength(2);
});
