import { readFileSync } from 'node:fs';
import { buildSite } from './app.js';
import { startBroker } from './broker.js';
import { Scenario } from './scenario.js';

const { env } = process;

/** What the house is like: a scenario file where one is named. */
function scenario(): Scenario {
  const file = env.INVENTARIO_SITE_SCENARIO;
  if (!file) return Scenario.parse({});
  const read = Scenario.safeParse(JSON.parse(readFileSync(file, 'utf8')));
  if (read.success) return read.data;
  const [first] = read.error.issues;
  throw new Error(`INVENTARIO_SITE_SCENARIO: /${first?.path.join('/')} in ${file}: ${first?.message}`);
}

const app = buildSite(scenario());
const broker = await startBroker(app.site, Number(env.INVENTARIO_BROKER_PORT ?? 0));
app.brokerAt = broker.url;
const end = () => void Promise.all([app.close(), broker.close()]).then(() => process.exit(0));
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, end);
// Whoever started this site is gone: nobody would ever end it.
if (process.send) process.once('disconnect', end);
await app.listen({ host: '127.0.0.1', port: Number(env.INVENTARIO_SITE_PORT ?? 4182) });
