import { readFileSync } from 'node:fs';
import { demoJobs } from '@inventario/demo';
import { build } from './app.js';
import { folderPhotos } from './photos/photo-store.js';
import { httpSite } from './site/site-client.js';
import { connect, type DatabaseAddress } from './storage/database.js';
import { JobStore } from './storage/job-store.js';
import { migrate } from './storage/migrations.js';

const env = process.env;
const address = JSON.parse(env.INVENTARIO_DATABASE ?? '{}') as DatabaseAddress;
const port = Number(env.INVENTARIO_PORT ?? 4180);

const sequelize = connect(address);
await migrate(sequelize);
const store = new JobStore(sequelize);
if ((await store.ids()).length === 0)
  for (const [order, job] of demoJobs().entries()) await store.replace(job, new Date(Date.now() + order));

const app = await build({
  store,
  site: httpSite(env.INVENTARIO_SITE ?? 'http://127.0.0.1:4182'),
  photos: folderPhotos(env.INVENTARIO_PHOTOS ?? '.data/photos'),
  ...(env.INVENTARIO_WEB ? { webFolder: env.INVENTARIO_WEB } : {}),
  ...(env.INVENTARIO_TLS_CERT && env.INVENTARIO_TLS_KEY
    ? { https: { cert: readFileSync(env.INVENTARIO_TLS_CERT), key: readFileSync(env.INVENTARIO_TLS_KEY) } }
    : {}),
  ...(env.INVENTARIO_LOG ? { logLevel: env.INVENTARIO_LOG } : {}),
});
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(
    signal,
    () =>
      void app
        .close()
        .then(() => sequelize.close())
        .then(() => process.exit(0)),
  );
await app.listen({ host: env.INVENTARIO_HOST ?? '127.0.0.1', port });
process.send?.('ready');
