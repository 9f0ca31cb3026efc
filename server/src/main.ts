import { readFileSync } from 'node:fs';
import { demoJobs } from '@inventario/demo';
import { build } from './app.js';
import { emptyBinDaily } from './jobs/bin.js';
import { folderPhotos } from './photos/photo-store.js';
import { httpSite } from './site/site-client.js';
import { connect, type DatabaseAddress } from './storage/database.js';
import { JobStore } from './storage/job-store.js';
import { migrate } from './storage/migrations.js';

const env = process.env;

/** Everything from the database to the open port. */
async function serve(): Promise<void> {
  const sequelize = connect(JSON.parse(env.INVENTARIO_DATABASE ?? '{}') as DatabaseAddress);
  await migrate(sequelize);
  const store = new JobStore(sequelize);
  await store.fill(demoJobs(), new Date());

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
  const end = () => {
    clearInterval(emptying);
    void app
      .close()
      .then(() => sequelize.close())
      .then(() => process.exit(0));
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, end);
  // Whoever started this server is gone: nobody would ever end it.
  if (process.send) process.once('disconnect', end);
  await app.listen({ host: env.INVENTARIO_HOST ?? '127.0.0.1', port: Number(env.INVENTARIO_PORT ?? 4180) });
  process.send?.('ready');
}

serve().catch((error: unknown) => {
  const [line = 'it failed without saying why'] = (
    error instanceof Error ? error.message : String(error)
  ).split('\n');
  // Said by whoever started this server; alone, it says so itself.
  if (process.send) process.send({ failed: line }, () => process.exit(3));
  else {
    console.error(`inventario: ${line}`);
    process.exit(3);
  }
});
