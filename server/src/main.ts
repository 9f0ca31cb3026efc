import { readFileSync } from 'node:fs';
import { demoJobs } from '@inventario/demo';
import { build } from './app.js';
import { emptyBinDaily } from './jobs/bin.js';
import { folderPhotos } from './photos/photo-store.js';
import { httpSite } from './site/site-client.js';
import { connect, type DatabaseAddress } from './storage/database.js';
import { JobStore } from './storage/job-store.js';
import { LaterDatabaseError, migrate } from './storage/migrations.js';

const env = process.env;
const address = JSON.parse(env.INVENTARIO_DATABASE ?? '{}') as DatabaseAddress;
const port = Number(env.INVENTARIO_PORT ?? 4180);

const sequelize = connect(address);
try {
  await migrate(sequelize);
} catch (error) {
  if (!(error instanceof LaterDatabaseError)) throw error;
  console.error(`inventario: ${error.message}`);
  process.exit(3);
}
const store = new JobStore(sequelize);
if (await store.isEmpty()) for (const [order, job] of demoJobs().entries()) await store.replace(job, new Date(Date.now() + order));

const photos = folderPhotos(env.INVENTARIO_PHOTOS ?? '.data/photos');
const app = await build({
  store,
  site: httpSite(env.INVENTARIO_SITE ?? 'http://127.0.0.1:4182'),
  photos,
  hosts: [env.INVENTARIO_HOST ?? '', ...(env.INVENTARIO_HOSTS ?? '').split(',')],
  ...(env.INVENTARIO_WEB ? { webFolder: env.INVENTARIO_WEB } : {}),
  ...(env.INVENTARIO_TLS_CERT && env.INVENTARIO_TLS_KEY
    ? { https: { cert: readFileSync(env.INVENTARIO_TLS_CERT), key: readFileSync(env.INVENTARIO_TLS_KEY) } }
    : {}),
  ...(env.INVENTARIO_LOG ? { logLevel: env.INVENTARIO_LOG } : {}),
});
const emptying = emptyBinDaily(store, photos);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => {
    clearInterval(emptying);
    void app
      .close()
      .then(() => sequelize.close())
      .then(() => process.exit(0));
  });
await app.listen({ host: env.INVENTARIO_HOST ?? '127.0.0.1', port });
process.send?.('ready');
