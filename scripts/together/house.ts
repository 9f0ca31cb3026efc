// The two servers and the database the devices of a model run work with; each can be killed and comes back on
// the same data.
import { type ChildProcess, spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { build } from 'esbuild';
import { freePort, type RunningDatabase, startDatabase } from '../database.js';
import { testFolder } from '../test-folder.js';

export interface House {
  /** Addresses of the servers. */
  servers: readonly string[];
  killServer(index: number): Promise<void>;
  killDatabase(): Promise<void>;
  close(): Promise<void>;
}

/** Starts a database that survives being killed, and two servers on it. */
export async function startHouse(): Promise<House> {
  const bundle = await bundleServer();
  const folder = testFolder('model');
  const databasePort = await freePort();
  let database: RunningDatabase = await startDatabase(join(folder, 'database'), databasePort);
  const ports = [await freePort(), await freePort()];
  const launch = (port: number) =>
    spawn(process.execPath, [bundle], {
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        INVENTARIO_PORT: String(port),
        INVENTARIO_DATABASE: JSON.stringify(database.address),
        INVENTARIO_PHOTOS: join(folder, 'photos'),
        INVENTARIO_LOG: 'fatal',
      },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
  const ready = (child: ChildProcess) =>
    new Promise<ChildProcess>((done, failed) => {
      child.once('message', () => done(child));
      child.once('exit', (code) => failed(new Error(`the server ended with ${code} before it was ready`)));
    });
  const children: ChildProcess[] = [];
  for (const port of ports) children.push(await ready(launch(port)));
  return {
    servers: ports.map((port) => `http://127.0.0.1:${port}`),
    killServer: async (index) => {
      await killed(children[index] as ChildProcess);
      children[index] = await ready(launch(ports[index] as number));
    },
    killDatabase: async () => {
      await killed(database.process);
      database = await startDatabase(join(folder, 'database'), databasePort);
    },
    close: async () => {
      await Promise.all(children.map(killed));
      await database.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

function killed(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((done) => {
    child.once('exit', () => done());
    child.kill('SIGKILL');
  });
}

/**
 * The server as it is delivered, bundled into a folder of its own: other tests may build the real one at the
 * same time.
 */
async function bundleServer(): Promise<string> {
  const outdir = resolve('scripts/dist/model');
  await build({
    entryPoints: ['server/src/main.ts', 'server/src/heavy/heavy-worker.ts'],
    outdir,
    entryNames: '[name]',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    logLevel: 'error',
    plugins: [
      {
        name: 'packages-stay',
        setup: ({ onResolve }) =>
          onResolve({ filter: /^[^./]/ }, ({ path }) =>
            path.startsWith('@inventario/') ? undefined : { path, external: true },
          ),
      },
    ],
  });
  return join(outdir, 'main.mjs');
}
