// Speeds the product promises, each against its bound and against a reference measured in the same run: the reference takes out
// how fast this machine happens to be. `npm run benchmark [rounds] [boxes]`.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { assessBoxes, type Box, identifyBox, lookup, matchJob } from '@inventario/core';
import { demoCatalogue } from '@inventario/demo';
import Fastify from 'fastify';
import { conflictsOf } from '../core/src/identify/conflicts.js';
import { gradesOf } from '../core/src/identify/grades.js';
import { everyTest, nextTests } from '../core/src/identify/next-tests.js';
import { type Posterior, posteriorOf } from '../core/src/identify/posterior.js';
import { problemOf } from '../core/src/identify/problem.js';
import { type HiddenBox, hiddenBox, wideBox } from '../core/src/test-support/hidden-box.js';
import { Random } from '../core/src/test-support/random.js';
import { manyDevices, randomHouse } from '../core/src/test-support/random-house.js';
import { build } from '../server/src/app.js';
import { folderPhotos } from '../server/src/photos/photo-store.js';
import { httpSite } from '../server/src/site/site-client.js';
import { connect } from '../server/src/storage/database.js';
import { JobStore } from '../server/src/storage/job-store.js';
import { migrate } from '../server/src/storage/migrations.js';
import { freePort, startDatabase } from './database.js';

interface Row {
  what: string;
  median: number;
  bound: number;
  reference: string;
  referenceMs: number;
}

const rounds = Number(process.argv[2] ?? 15);

async function median(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let round = -3; round < rounds; round++) {
    const begun = performance.now();
    await work();
    if (round >= 0) times.push(performance.now() - begun);
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)] as number;
}

/** A million floating-point steps: what this machine does in about a millisecond or few. */
function steps(): number {
  let value = 0.5;
  for (let step = 0; step < 1_000_000; step++) value = 3.7 * value * (1 - value);
  return value;
}

async function engines(): Promise<Row[]> {
  const random = new Random(60);
  const catalogue = demoCatalogue();
  const house = randomHouse(random, 60, { ...catalogue, devices: manyDevices(random, catalogue.devices, 200) });
  const referenceMs = await median(steps);
  const reference = 'a million float steps';
  // A fresh copy each time: nothing remembered from the round before.
  const copy = () => JSON.parse(JSON.stringify(house)) as typeof house;
  const copyMs = await median(copy);
  return [
    { what: 'fill, 60 boxes', median: (await median(() => assessBoxes(copy(), 'found'))) - copyMs, bound: 20, reference, referenceMs },
    { what: 'match, 60 places x 200 devices', median: (await median(() => matchJob(copy()))) - copyMs, bound: 150, reference, referenceMs },
  ];
}

/** Roles and next tests of a box of four switches, and how far the proposals are ahead of a fixed sequence. */
async function identification(): Promise<Row[]> {
  const { job, box } = wideBox();
  const known = lookup(job);
  const referenceMs = await median(steps);
  const reference = 'a million float steps';
  const roles = () => {
    const { problem, wiring } = problemOf(box, known);
    const posterior = posteriorOf(problem, wiring) as Posterior;
    const conflicts = conflictsOf(problem, posterior);
    return { problem, posterior, grades: gradesOf(problem, posterior, conflicts) };
  };
  const done = roles();
  const open = new Set(done.problem.cores.keys());
  return [
    { what: 'identify roles, 4 switches, 20 readings', median: await median(roles), bound: 50, reference, referenceMs },
    {
      what: 'identify next tests, the same box',
      median: await median(() => nextTests(done.problem, done.posterior, done.grades, open)),
      bound: 300,
      reference,
      referenceMs,
    },
  ];
}

/** Boxes of one device with hidden wiring, answered truly: tests until nothing more can be told, by proposal and by the textbook's order. */
function testsUsed(boxes: number): string {
  const used = { proposed: 0, textbook: 0 };
  let [confirmed, needed, wrong] = [0, 0, 0];
  for (let seed = 0; seed < boxes; seed++) {
    const random = new Random(9000 + seed);
    const hidden = hiddenBox(random, random.pick(['us', 'us', 'gb', 'modular'] as const), 1, random.chance(0.7));
    const look = (box: Box) => identifyBox(box, lookup({ ...hidden.job, boxes: [box, ...hidden.job.boxes.slice(1)] }));
    let { box } = hidden;
    let result = look(box);
    for (let step = 0; step < 60 && result.next[0]; step++) {
      box = { ...box, readings: [...box.readings, hidden.answer(result.next[0], `m${step}`)] };
      result = look(box);
    }
    used.proposed += box.readings.length;
    const goal = new Set(result.conductors.filter((conductor) => conductor.grade === 'confirmed').map((conductor) => conductor.id));
    for (const [id, role] of hidden.truth) {
      const said = result.conductors.find((conductor) => conductor.id === id);
      if (role === 'line' || role === 'load' || role === 'neutral') needed += 1;
      if (said?.grade !== 'confirmed') continue;
      confirmed += 1;
      if (said.role !== role) wrong += 1;
    }
    used.textbook += textbook(hidden, look, goal);
  }
  return `${boxes} boxes of one device with hidden wiring: ${(used.proposed / boxes).toFixed(1)} tests a box as proposed, ${(used.textbook / boxes).toFixed(1)} by the textbook's order to the same; ${confirmed} roles confirmed (${needed} lines, loads and neutrals), ${wrong} wrong`;
}

/** Lamps first, then every conductor in turn: volts on, volts off, ohms; until as much is confirmed. */
function textbook(hidden: HiddenBox, look: (box: Box) => ReturnType<typeof identifyBox>, goal: ReadonlySet<string>): number {
  const order = { lamp: 0, indicator: 1, 'volts-low-z': 2, volts: 2, ohms: 3, breaker: 4 };
  const all = everyTest(problemOf(hidden.box, lookup(hidden.job)).problem).sort((a, b) => order[a.tool] - order[b.tool]);
  const readings = all.map((test, at) => hidden.answer(test, `t${at}`));
  const enough = (count: number): boolean => {
    const { conductors } = look({ ...hidden.box, readings: readings.slice(0, count) });
    return conductors.filter((conductor) => conductor.grade === 'confirmed' && goal.has(conductor.id)).length >= goal.size;
  };
  // Doubling, then halving: more readings of a true box hardly ever confirm less.
  let high = Math.min(8, readings.length);
  while (high < readings.length && !enough(high)) high = Math.min(2 * high, readings.length);
  let low = high <= 8 ? 0 : high / 2;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (enough(middle)) high = middle;
    else low = middle;
  }
  return high;
}

async function wholeJob(): Promise<Row> {
  const folder = mkdtempSync(join(tmpdir(), 'inventario-benchmark-'));
  const database = await startDatabase(folder, await freePort(), true);
  const sequelize = connect(database.address);
  await migrate(sequelize);
  const store = new JobStore(sequelize);
  const random = new Random(61);
  const job = randomHouse(random, 60, demoCatalogue());
  await store.replace(job, new Date());
  const app = await build({
    store,
    site: httpSite('http://127.0.0.1:9'),
    photos: folderPhotos(join(folder, 'photos')),
    requestsPerMinute: 1_000_000,
  });
  const bare = Fastify();
  const bytes = JSON.stringify(job);
  bare.get('/bytes', (_, reply) => reply.type('application/json; charset=utf-8').send(bytes));
  const [ours, theirs] = [await app.listen({ host: '127.0.0.1', port: 0 }), await bare.listen({ host: '127.0.0.1', port: 0 })];
  const read = async (address: string) => (await fetch(address)).arrayBuffer();
  const referenceMs = await median(() => read(`${theirs}/bytes`));
  const row = {
    what: `whole job over HTTP, ${Math.round(bytes.length / 1024)} kB`,
    median: await median(() => read(`${ours}/api/jobs/house`)),
    bound: 3 * referenceMs,
    reference: 'a bare route, the same bytes',
    referenceMs,
  };
  await Promise.all([app.close(), bare.close()]);
  await sequelize.close();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
  return row;
}

const rows = [...(await engines()), ...(await identification()), await wholeJob()];
console.log('what                                       median ms   bound ms   ratio   to');
for (const row of rows)
  console.log(
    `${row.what.padEnd(42)} ${row.median.toFixed(2).padStart(9)} ${row.bound.toFixed(1).padStart(10)} ${(row.median / row.referenceMs).toFixed(2).padStart(7)}   ${row.reference} (${row.referenceMs.toFixed(2)} ms)${row.median > row.bound ? '  OVER' : ''}`,
  );
// 500 boxes say most, and take a quarter of an hour.
console.log(testsUsed(Number(process.argv[3] ?? 40)));
