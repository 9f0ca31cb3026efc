import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Broker, buildSite, startBroker } from '@inventario/standin';
import type { FastifyInstance } from 'fastify';
import { QueryTypes, type Sequelize } from 'sequelize';
import { type AppOptions, build } from '../app.js';
import { folderPhotos } from '../photos/photo-store.js';
import { httpSite } from '../site/site-client.js';
import { connect, type DatabaseAddress } from '../storage/database.js';
import { JobStore } from '../storage/job-store.js';
import { migrate } from '../storage/migrations.js';

export interface TestApp {
  app: FastifyInstance;
  store: JobStore;
  sequelize: Sequelize;
  address: DatabaseAddress;
  photoFolder: string;
  site: ReturnType<typeof buildSite>;
  /** Starts the site's MQTT broker, which the server then looks for. */
  startBroker(): Promise<Broker>;
  close(): Promise<void>;
}

/** The server on a fresh database of its own, with a stand-in site that hurries. */
export async function testApp(
  options: Pick<AppOptions, 'requestsPerMinute' | 'logLevel' | 'logTo'> = {},
): Promise<TestApp> {
  const address = await freshDatabase();
  const sequelize = connect(address);
  await migrate(sequelize);
  const store = new JobStore(sequelize);
  const site = buildSite({ speed: 50 });
  const siteAddress = await site.listen({ host: '127.0.0.1', port: 0 });
  const photoFolder = mkdtempSync(join(tmpdir(), 'inventario-photos-'));
  const app = await build({
    store,
    photos: folderPhotos(photoFolder),
    site: httpSite(siteAddress),
    logLevel: 'fatal',
    hosts: ['cellar.lan'],
    ...options,
  });
  const brokers: Broker[] = [];
  const close = async () => {
    await app.close();
    for (const broker of brokers) await broker.close();
    await site.close();
    await sequelize.close();
    rmSync(photoFolder, { recursive: true, force: true });
  };
  const start = async () => {
    const broker = await startBroker(site.site, 0);
    site.brokerAt = broker.url;
    brokers.push(broker);
    return broker;
  };
  return { app, store, sequelize, address, photoFolder, site, startBroker: start, close };
}

/** An empty database on the server of the tests. */
export async function freshDatabase(): Promise<DatabaseAddress> {
  const root = JSON.parse(process.env.INVENTARIO_TEST_DATABASE ?? '{}') as DatabaseAddress;
  const name = `inventario_${randomBytes(6).toString('hex')}`;
  const outer = connect({ ...root, database: '' });
  await outer.query(`CREATE DATABASE ${name}`, { type: QueryTypes.RAW });
  await outer.close();
  return { ...root, database: name };
}
