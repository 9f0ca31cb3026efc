// The whole of Inventario as running processes: database, stand-in site, server. Used by ./start, the journeys and the screenshots.
import { type ChildProcess, spawn } from 'node:child_process';
import { join, resolve } from 'node:path';
import { buildAll } from './build.js';
import { portIsFree, type RunningDatabase, StartError, startDatabase } from './database.js';

export interface SystemOptions {
  dataFolder: string;
  host: string;
  port: number;
  databasePort: number;
  sitePort: number;
  forTests?: boolean;
}

export interface RunningSystem {
  url: string;
  server: ChildProcess;
  /** Ends the server alone, as a crash or a pulled plug would. */
  killServer(): Promise<void>;
  startServer(): Promise<void>;
  stop(): Promise<void>;
}

export async function startSystem(options: SystemOptions): Promise<RunningSystem> {
  for (const [port, variable] of [
    [options.port, 'INVENTARIO_PORT'],
    [options.sitePort, 'INVENTARIO_SITE_PORT'],
  ] as const)
    if (!(await portIsFree(port))) throw new StartError(`Port ${port} is taken; free it or set ${variable}.`);
  const [database] = await Promise.all([
    startDatabase(join(options.dataFolder, 'database'), options.databasePort, options.forTests),
    buildAll(),
  ]).catch(async (error) => {
    throw error;
  });
  const children: ChildProcess[] = [];
  try {
    const site = launch('standin/dist/main.mjs', { INVENTARIO_SITE_PORT: String(options.sitePort) });
    children.push(site);
    return await withServer(options, database, site);
  } catch (error) {
    for (const child of children) await end(child, 'SIGTERM');
    await database.stop();
    throw error;
  }
}

async function withServer(options: SystemOptions, database: RunningDatabase, site: ChildProcess): Promise<RunningSystem> {
  const secure = process.env.INVENTARIO_TLS_CERT !== undefined && process.env.INVENTARIO_TLS_KEY !== undefined;
  const url = `${secure ? 'https' : 'http'}://${options.host === '0.0.0.0' ? '127.0.0.1' : options.host}:${options.port}`;
  const startServer = async () => {
    const child = launch('server/dist/main.mjs', {
      INVENTARIO_PORT: String(options.port),
      INVENTARIO_HOST: options.host,
      INVENTARIO_SITE: `http://127.0.0.1:${options.sitePort}`,
      INVENTARIO_DATABASE: JSON.stringify(database.address),
      INVENTARIO_WEB: resolve('web/dist'),
      INVENTARIO_PHOTOS: resolve(options.dataFolder, 'photos'),
    });
    running.server = child;
    await new Promise<void>((ready, failed) => {
      child.once('message', () => ready());
      child.once('exit', (code) => failed(new StartError(`The server ended with code ${code} before it was ready.`)));
    });
  };
  const running: RunningSystem = {
    url,
    server: site,
    startServer,
    killServer: () => end(running.server, 'SIGKILL'),
    stop: async () => {
      await Promise.all([end(running.server, 'SIGTERM'), end(site, 'SIGTERM')]);
      await database.stop();
    },
  };
  await startServer();
  return running;
}

/** In a process group of its own, so that Ctrl-C reaches only the parent, which then ends everything in order. */
function launch(file: string, env: Record<string, string>): ChildProcess {
  return spawn(process.execPath, ['--enable-source-maps', file], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  });
}

function end(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((done) => {
    const hurry = setTimeout(() => child.kill('SIGKILL'), 5000);
    child.once('exit', () => {
      clearTimeout(hurry);
      done();
    });
    child.kill(signal);
  });
}
