import { assessBoxes, homePlans, lookup, matchJob } from '@inventario/core';
import { demoCatalogue } from '@inventario/demo';
import { conflictsOf } from '../../core/src/identify/conflicts.js';
import { gradesOf } from '../../core/src/identify/grades.js';
import { nextTests } from '../../core/src/identify/next-tests.js';
import { type Posterior, posteriorOf } from '../../core/src/identify/posterior.js';
import { problemOf } from '../../core/src/identify/problem.js';
import { wideBox } from '../../core/src/test-support/hidden-box.js';
import { Random } from '../../core/src/test-support/random.js';
import { gangedHouse, manyDevices, randomHouse } from '../../core/src/test-support/random-house.js';
import { median, type Row, STEPS, steps } from './measure.js';

/** Fill and match of a house of 60 boxes. */
export async function houseEngines(): Promise<Row[]> {
  const random = new Random(60);
  const catalogue = demoCatalogue();
  const house = randomHouse(random, 60, { ...catalogue, devices: manyDevices(random, catalogue.devices, 200) });
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

/** Every school's plan of a house of 60 places in boxes of one to three, with 200 devices on 8 hubs and a router that is nearly full. */
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
  const house = gangedHouse(randomHouse(random, 60, { ...catalogue, devices, hubs }), [2, 2, 3, 2, 2, 3, 2, 2, 3, 2, 2, 4]);
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

/** Roles and next tests of a box of four switches. */
export async function identification(): Promise<Row[]> {
  const { job, box } = wideBox();
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
    { what: 'identify roles, 4 switches, 20 readings', median: await median(roles), bound: 50, reference: STEPS, referenceMs },
    {
      what: 'identify next tests, the same box',
      median: await median(() => nextTests(done.problem, done.posterior, done.grades, open)),
      bound: 300,
      reference: STEPS,
      referenceMs,
    },
  ];
}
