// Runs Inventario until Ctrl-C.
import { StartError } from './database.js';
import { type RunningSystem, startSystem } from './system.js';

const env = process.env;
const number = (name: string, usual: number): number => {
  const value = Number(env[name] ?? usual);
  if (!Number.isInteger(value) || value < 1 || value > 65_535)
    throw new StartError(`${name} must be a port from 1 to 65535, not "${env[name]}".`);
  return value;
};

let system: RunningSystem | undefined;
let stopping = false;
const stop = async () => {
  if (stopping) return;
  stopping = true;
  await system?.stop();
  process.exit(0);
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('SIGHUP', stop);

try {
  const started = Date.now();
  system = await startSystem({
    dataFolder: env.INVENTARIO_DATA ?? '.data',
    host: env.INVENTARIO_HOST ?? '127.0.0.1',
    port: number('INVENTARIO_PORT', 4180),
    databasePort: number('INVENTARIO_DB_PORT', 4181),
    sitePort: number('INVENTARIO_SITE_PORT', 4182),
  });
  if (stopping) await system.stop();
  console.log(`Inventario is at ${system.url} (up in ${((Date.now() - started) / 1000).toFixed(1)} s). Ctrl-C stops it.`);
  system.server.once('exit', (code) => {
    if (stopping) return;
    console.error(`inventario: the server ended with code ${code}.`);
    process.exitCode = 1;
    void stop();
  });
} catch (error) {
  if (!(error instanceof StartError)) throw error;
  console.error(`inventario: ${error.message}`);
  process.exit(1);
}
