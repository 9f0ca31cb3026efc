import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Job } from '@inventario/core';
import { demoCatalogue, demoJobs } from '@inventario/demo';
import Fastify from 'fastify';
import { Random } from '../../core/src/test-support/random.js';
import { randomHouse } from '../../core/src/test-support/random-house.js';
import { build } from '../../server/src/app.js';
import { folderPhotos } from '../../server/src/photos/photo-store.js';
import { httpSite } from '../../server/src/site/site-client.js';
import { connect } from '../../server/src/storage/database.js';
import { JobStore } from '../../server/src/storage/job-store.js';
import { migrate } from '../../server/src/storage/migrations.js';
import { freePort, startDatabase } from '../database.js';
import { median, type Row } from './measure.js';

/**
 * The read of a whole job against a bare route that returns the same bytes, and a list of a thousand jobs
 * against a bare one.
 */
export async function wholeJob(): Promise<Row[]> {
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
  bare.get('/nothing', (_, reply) => reply.send([]));
  const [ours, theirs] = [
    await app.listen({ host: '127.0.0.1', port: 0 }),
    await bare.listen({ host: '127.0.0.1', port: 0 }),
  ];
  const read = async (address: string) => (await fetch(address)).arrayBuffer();
  const referenceMs = await median(() => read(`${theirs}/bytes`));
  const row = {
    what: `whole job over HTTP, ${Math.round(bytes.length / 1024)} kB`,
    median: await median(() => read(`${ours}/api/jobs/house`)),
    bound: 3 * referenceMs,
    reference: 'a bare route, the same bytes',
    referenceMs,
  };
  const small = demoJobs().at(-1) as Job;
  for (let index = 0; index < 1000; index++)
    await store.replace({ ...small, id: `many-${index}`, name: `House ${index}` }, new Date());
  const pages = async () => {
    const first = await fetch(`${ours}/api/jobs?limit=500`);
    const next = /<([^>]+)>/.exec(String(first.headers.get('link')))?.[1];
    const second = await fetch(`${ours}${next}`);
    return ((await first.json()) as unknown[]).length + ((await second.json()) as unknown[]).length;
  };
  if ((await pages()) !== 1000) throw new Error('the two pages do not hold a thousand jobs');
  const nothing = await median(() => read(`${theirs}/nothing`));
  const list = {
    what: 'list of 1,000 jobs, two pages',
    median: await median(pages),
    bound: nothing + 100,
    reference: 'a bare route, nothing in it',
    referenceMs: nothing,
  };
  await Promise.all([app.close(), bare.close()]);
  await sequelize.close();
  await database.stop();
  rmSync(folder, { recursive: true, force: true });
  return [row, list];
}
