// Speeds the product promises, each against its bound and against a reference measured in the same run: the reference takes out
// how fast this machine happens to be. `npm run benchmark [rounds]`.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { assessBoxes, matchJob } from '@inventario/core';
import { demoCatalogue } from '@inventario/demo';
import Fastify from 'fastify';
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

const rows = [...(await engines()), await wholeJob()];
console.log('what                                 median ms   bound ms   ratio   to');
for (const row of rows)
  console.log(
    `${row.what.padEnd(36)} ${row.median.toFixed(2).padStart(9)} ${row.bound.toFixed(1).padStart(10)} ${(row.median / row.referenceMs).toFixed(2).padStart(7)}   ${row.reference} (${row.referenceMs.toFixed(2)} ms)${row.median > row.bound ? '  OVER' : ''}`,
  );
