// The whole of Inventario as running processes: database, stand-in site, server. Used by ./start, the
// journeys and the screenshots.
import { type ChildProcess, spawn } from 'node:child_process';
import { join, resolve } from 'node:path';
import { finishRestore } from './backup/switch-over.js';
import { buildAll } from './build.js';
import type { Tls } from './certificate.js';
import { portIsFree, type RunningDatabase, startDatabase } from './database.js';
import { ended, Household } from './household.js';
import { takeFolder } from './running.js';
import { StartError } from './start-error.js';

export interface SystemOptions {
  dataFolder: string;
  host: string;
  port: number;
  databasePort: number;
  sitePort: number;
  /** Names the server answers to beside its own, with commas. */
  hosts?: string;
  tls?: Tls | undefined;
  forTests?: boolean;
}

export interface RunningSystem {
  url: string;
  /** Where the stand-in site answers, for what plays the house. */
  siteUrl: string;
  server: ChildProcess;
  /** Ends the server alone, as a crash or a pulled plug would. */
  killServer(): Promise<void>;
  startServer(): Promise<void>;
  stop(): Promise<void>;
}

/** A database that dies so often in a minute is not started again. */
const MOST_DEATHS = 5;

/**
 * @param household what has to end with the system; given from outside, it can be ended in the middle of
 * starting
 */
export async function startSystem(
  options: SystemOptions,
  household = new Household(),
): Promise<RunningSystem> {
  try {
    return await startAll(options, household);
  } catch (error) {
    await household.end();
    throw error;
  }
}

async function startAll(options: SystemOptions, household: Household): Promise<RunningSystem> {
  const giveBack = takeFolder(options.dataFolder, 'is running on this data');
  await household.add(async () => giveBack());
  await finishRestore(options.dataFolder);
  await freePorts(options);
  household.goOn();
  await buildAll();
  household.goOn();
  const database = await keepDatabase(options, household);
  const site = launch('standin/dist/main.mjs', {
    INVENTARIO_SITE_PORT: String(options.sitePort),
    // Behind the plates of the demo hides what its record tells of.
    INVENTARIO_SITE_SCENARIO:
      process.env.INVENTARIO_SITE_SCENARIO ?? resolve('standin/scenarios/heron-house.json'),
  });
  await household.add(() => ended(site));
  const { tls } = options;
  const name = options.host === '0.0.0.0' || options.host === '::' ? '127.0.0.1' : options.host;
  const url = `${tls ? 'https' : 'http'}://${name.includes(':') ? `[${name}]` : name}:${options.port}`;
  const startServer = async () => {
    const child = launch('server/dist/main.mjs', {
      INVENTARIO_PORT: String(options.port),
      INVENTARIO_HOST: options.host,
      INVENTARIO_HOSTS: options.hosts ?? '',
      INVENTARIO_SITE: `http://127.0.0.1:${options.sitePort}`,
      INVENTARIO_DATABASE: JSON.stringify(database.address),
      INVENTARIO_WEB: resolve('web/dist'),
      INVENTARIO_PHOTOS: resolve(options.dataFolder, 'photos'),
      ...(tls ? { INVENTARIO_TLS_CERT: tls.certificate, INVENTARIO_TLS_KEY: tls.key } : {}),
    });
    running.server = child;
    await new Promise<void>((ready, failed) => {
      child.on('message', (word) => {
        if (word === 'ready') ready();
        else if (typeof word === 'object' && word !== null && 'failed' in word)
          failed(new StartError(String(word.failed)));
      });
      child.once('exit', (code) =>
        failed(new StartError(`The server ended with code ${code} before it was ready.`)),
      );
    });
  };
  const running: RunningSystem = {
    url,
    siteUrl: `http://127.0.0.1:${options.sitePort}`,
    server: site,
    startServer,
    killServer: () => ended(running.server, 'SIGKILL'),
    stop: () => household.end(),
  };
  await household.add(() => ended(running.server));
  await startServer();
  household.goOn();
  return running;
}

async function freePorts({ host, port, sitePort }: SystemOptions): Promise<void> {
  for (const [taken, at, variable] of [
    [port, host, 'INVENTARIO_PORT'],
    [sitePort, '127.0.0.1', 'INVENTARIO_SITE_PORT'],
  ] as const)
    if (!(await portIsFree(taken, at)))
      throw new StartError(`Port ${taken} is taken; free it or set ${variable}.`);
}

/** The database, started again when it dies while everything else goes on. */
async function keepDatabase(
  { dataFolder, databasePort, forTests }: SystemOptions,
  household: Household,
): Promise<RunningDatabase> {
  const start = () => startDatabase(join(dataFolder, 'database'), databasePort, forTests);
  let database = await start();
  const first = database;
  await household.add(() => database.stop());
  const deaths: number[] = [];
  const watch = (one: RunningDatabase) =>
    one.process.once('exit', () => {
      if (household.isEnding) return;
      deaths.push(Date.now());
      if (deaths.filter((death) => death > Date.now() - 60_000).length > MOST_DEATHS) {
        console.error('inventario: the database dies again and again; its log is in the data folder.');
        return;
      }
      console.error('inventario: the database died and is started again.');
      start().then(
        (next) => {
          database = next;
          if (household.isEnding) void next.stop();
          else watch(next);
        },
        (error: unknown) =>
          console.error(`inventario: ${error instanceof Error ? error.message : String(error)}`),
      );
    });
  watch(database);
  return first;
}

/**
 * In a process group of its own, so that Ctrl-C reaches only the parent, which then ends everything in order.
 */
function launch(file: string, env: Record<string, string>): ChildProcess {
  return spawn(process.execPath, ['--enable-source-maps', file], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    detached: true,
  });
}
