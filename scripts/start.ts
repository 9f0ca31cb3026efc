// Runs Inventario until Ctrl-C.
import { fingerprintOf } from './certificate.js';
import { Household } from './household.js';
import { readSettings, readTls } from './settings.js';
import { lineOf, StoppedError } from './start-error.js';
import { startSystem } from './system.js';

const household = new Household();
let code = 0;
let starting: Promise<unknown> = Promise.resolve();
/** What is just being started is waited for: it ends itself as soon as it can be ended. */
const stop = async () => {
  await household.end();
  await starting.catch(() => {});
  process.exit(code);
};
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void stop());

async function begin(): Promise<void> {
  const started = Date.now();
  const settings = readSettings(process.env);
  const tls = await readTls(process.env, settings);
  const system = await startSystem({ ...settings, tls }, household);
  console.log(
    `Inventario is at ${system.url} (up in ${((Date.now() - started) / 1000).toFixed(1)} s). Ctrl-C ` +
      'stops it.',
  );
  if (tls && process.env.INVENTARIO_TLS === 'make')
    console.log(
      `Its certificate is ${tls.certificate}; trust it on each device after comparing SHA-256 ` +
        `${fingerprintOf(tls)}.`,
    );
  system.server.once('exit', (status) => {
    if (household.isEnding) return;
    console.error(`inventario: the server ended with code ${status}.`);
    code = 1;
    void stop();
  });
}

starting = begin();
starting.catch((error: unknown) => {
  if (!(error instanceof StoppedError)) {
    console.error(`inventario: ${lineOf(error)}`);
    code = 1;
  }
  void stop();
});
