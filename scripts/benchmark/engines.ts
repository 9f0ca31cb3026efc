import {
  assessBoxes,
  homePlans,
  type Job,
  lookup,
  matchJob,
  wiringOfHouse,
  wiringPicture,
} from '@inventario/core';
import { demoCatalogue } from '@inventario/demo';
import { nextTests } from '../../core/src/identify/asking/next-tests.js';
import { conflictsOf } from '../../core/src/identify/judging/conflicts.js';
import { gradesOf } from '../../core/src/identify/judging/grades.js';
import { problemOf } from '../../core/src/identify/problem/problem.js';
import { type Posterior, posteriorOf } from '../../core/src/identify/weighing/posterior.js';
import { closeTheLoop, someRealBox } from '../../core/src/test-support/closed-loop.js';
import { wideBox } from '../../core/src/test-support/hidden-box.js';
import { troubles } from '../../core/src/test-support/plain-wiring.js';
import { singleChanges } from '../../core/src/test-support/plan-changes.js';
import { Random } from '../../core/src/test-support/random.js';
import { gangedHouse, manyDevices, randomHouse } from '../../core/src/test-support/random-house.js';
import { trueHouse } from '../../core/src/test-support/true-house.js';
import { prove } from '../../core/src/wire/proof/prove.js';
import { layWiring } from '../../web/src/drawings/wiring/layout.js';
import { median, type Row, STEPS, steps } from './measure.js';

/** Fill and match of a house of 60 boxes. */
export async function houseEngines(): Promise<Row[]> {
  const random = new Random(60);
  const catalogue = demoCatalogue();
  const house = randomHouse(random, 60, {
    ...catalogue,
    devices: manyDevices(random, catalogue.devices, 200),
  });
  const referenceMs = await median(steps);
  // A fresh copy each time: nothing remembered from the round before.
  const copy = () => JSON.parse(JSON.stringify(house)) as typeof house;
  const copyMs = await median(copy);
  return [
    {
      what: 'fill, 60 boxes',
      median: (await median(() => assessBoxes(copy(), 'found'))) - copyMs,
      bound: 20,
      reference: STEPS,
      referenceMs,
    },
    {
      what: 'match, 60 places x 200 devices',
      median: (await median(() => matchJob(copy()))) - copyMs,
      bound: 150,
      reference: STEPS,
      referenceMs,
    },
  ];
}

/** A box of four devices planned and proved, a house of sixty, and a box's drawing laid out. */
export async function wirings(): Promise<Row[]> {
  const referenceMs = await median(steps);
  const wide = trueHouse(new Random(WIDE_SEED)).job;
  const houses = Array.from({ length: 60 }, (_, at) => trueHouse(new Random(at + 1)).job);
  const copy = (job: Job) => JSON.parse(JSON.stringify(job)) as Job;
  const plan = (job: Job) => wiringOfHouse(lookup(copy(job)), () => []);
  const pictures = plan(wide).map((wiring) => wiringPicture(wiring, lookup(wide)));
  const row = { reference: STEPS, referenceMs };
  return [
    {
      what: 'wiring planned and proved, 4 positions',
      median: await median(() => plan(wide)),
      bound: 100,
      ...row,
    },
    {
      what: 'wiring of 60 boxes and more',
      median: await median(() => houses.map(plan)),
      bound: 2000,
      ...row,
    },
    {
      what: 'wiring drawn, 4 positions',
      median: await median(() => pictures.map((picture) => layWiring(picture, () => ['1 neutral', '3 in']))),
      bound: 200,
      ...row,
    },
  ];
}

/** A seed whose house is one box of four switches, all of them chosen. */
const WIDE_SEED = 266;

/**
 * Plans of made-up houses tried on their true copper, and every single change to them: which of those that
 * break it the proof lets through.
 */
export function wiringsProved(count: number, changedHouses: number): string {
  let proved = 0;
  let misbehaved = 0;
  let broken = 0;
  let missed = 0;
  for (let seed = 1; seed <= count; seed++) {
    const house = trueHouse(new Random(seed));
    const known = lookup(house.job);
    const wired = wiringOfHouse(known, () => []);
    if (!wired.every(({ ok }) => ok)) continue;
    proved += 1;
    const printed = (of: typeof wired) => of.map(({ boxId, plan }) => ({ boxId, ...plan }));
    if (troubles(house, printed(wired)).length > 0) misbehaved += 1;
    if (seed > changedHouses) continue;
    for (const wiring of wired)
      for (const { plan } of singleChanges(wiring.plan)) {
        const changed = wired.map((other) => (other === wiring ? { ...other, plan } : other));
        if (troubles(house, printed(changed)).length === 0) continue;
        broken += 1;
        const entries = changed.map((other) => ({
          box: other.box,
          places: other.places,
          out: other.plan.wired.out,
          plan: other.plan,
        }));
        if (prove(entries, known).length === 0) missed += 1;
      }
  }
  return [
    `${count} houses with true wiring: ${proved} plans proved, ${misbehaved} of them misbehave;`,
    `${broken} single changes that break the copper, ${missed} of them not caught`,
  ].join(' ');
}

/**
 * Every school's plan of a house of 60 places in boxes of one to three, with 200 devices on 8 hubs and a
 * router that is nearly full.
 */
export async function homePlan(): Promise<Row> {
  const random = new Random(61);
  const catalogue = demoCatalogue();
  const hubs = Array.from({ length: 8 }, (_, at) => ({
    ...(catalogue.hubs[at % catalogue.hubs.length] as (typeof catalogue.hubs)[number]),
    id: `hub-${at}`,
    price: random.int(3000, 9000),
    deviceLimit: random.int(8, 40),
  }));
  const devices = manyDevices(random, catalogue.devices, 200).map((device, at) => ({
    ...device,
    family: `family-${at % 6}`,
    ...(device.hubId ? { hubId: random.pick(hubs).id } : {}),
  }));
  const house = gangedHouse(
    randomHouse(random, 60, { ...catalogue, devices, hubs }),
    [2, 2, 3, 2, 2, 3, 2, 2, 3, 2, 2, 4],
  );
  house.brief = { ...house.brief, wifi: { clientsNow: 40, clientLimit: 64 } };
  const copy = () => JSON.parse(JSON.stringify(house)) as typeof house;
  const referenceMs = await median(steps);
  return {
    what: 'home plans, all schools, 60 x 200 x 8 hubs',
    median: await median(() => homePlans(copy())),
    bound: 2000,
    reference: STEPS,
    referenceMs,
  };
}

/** Roles and next tests of two boxes of four switches. */
export async function identification(): Promise<Row[]> {
  return [
    ...(await identificationOf(wideBox(), '4 switches, 6 cables', { roles: 50, next: 300 })),
    ...(await identificationOf(wideBox(3), '4 switches, 8 cables', { roles: 200, next: 500 })),
  ];
}

async function identificationOf(
  { job, box }: ReturnType<typeof wideBox>,
  what: string,
  bounds: { roles: number; next: number },
): Promise<Row[]> {
  const known = lookup(job);
  const referenceMs = await median(steps);
  const roles = () => {
    const { problem, wiring } = problemOf(box, known);
    const posterior = posteriorOf(problem, wiring) as Posterior;
    const conflicts = conflictsOf(problem, posterior);
    return { problem, posterior, grades: gradesOf(problem, posterior, conflicts) };
  };
  const done = roles();
  const open = new Set(done.problem.cores.keys());
  return [
    {
      what: `identify roles, ${what}`,
      median: await median(roles),
      bound: bounds.roles,
      reference: STEPS,
      referenceMs,
    },
    {
      what: `identify next tests, ${what}`,
      median: await median(() => nextTests(done.problem, done.posterior, done.grades, open)),
      bound: bounds.next,
      reference: STEPS,
      referenceMs,
    },
  ];
}

/** Boxes whose every proposed test is answered truly by a resistor network, in every situation in turn. */
export function closedLoops(boxes: number): string {
  const loops = Array.from({ length: boxes }, (_, at) => closeTheLoop(someRealBox(at + 1)));
  const count = (is: (loop: (typeof loops)[number]) => boolean) => loops.filter(is).length;
  const steps = loops.reduce((sum, loop) => sum + loop.steps, 0) / boxes;
  return [
    `${boxes} boxes answered by a resistor network: ${count(({ wrong }) => wrong.length > 0)} with a wrong`,
    `role confirmed, ${count(({ leftBehind }) => leftBehind.length > 0)} left short of what the evidence`,
    `allows, ${count(({ asked }) => asked > 2)} asked something a third time,`,
    `${count(({ conflict }) => conflict)} with a conflict among true readings,`,
    `${steps.toFixed(1)} tests a box`,
  ].join(' ');
}
