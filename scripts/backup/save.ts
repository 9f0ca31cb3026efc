import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, mkdtempSync, openSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as mariadb from 'mariadb';
import { type DatabaseAddress, startDatabase } from '../database.js';
import type { Household } from '../household.js';
import { isTaken, takeFolder } from '../running.js';
import type { Settings } from '../settings.js';
import { StartError } from '../start-error.js';
import { DUMP, FORMAT, VERSION, writeContainer } from './container.js';
import { finishRestore } from './switch-over.js';

/** Saves everything of a data folder to one file, with the program running or not. */
export async function save(
  file: string,
  { dataFolder, databasePort }: Settings,
  household: Household,
): Promise<void> {
  const home = join(dataFolder, 'database');
  if (!existsSync(join(dataFolder))) throw new StartError(`The data folder ${dataFolder} is not there.`);
  const running = isTaken(dataFolder);
  if (!running) {
    const giveBack = takeFolder(dataFolder, 'is saving this data');
    await household.add(async () => giveBack());
    await finishRestore(dataFolder);
  }
  if (!existsSync(join(home, 'installed'))) throw new StartError(`There are no data in ${dataFolder} yet.`);
  const address = running ? addressOf(home, databasePort) : await started(home, databasePort, household);
  const folder = mkdtempSync(join(tmpdir(), 'inventario-backup-'));
  await household.add(async () => rmSync(folder, { recursive: true, force: true }));
  const migrations = await migrationsOf(address, dataFolder);
  const dump = join(folder, DUMP);
  writeDump(address, dump);
  household.goOn();
  await writeContainer(
    file,
    { format: FORMAT, version: VERSION, at: new Date().toISOString(), migrations },
    dump,
    join(dataFolder, 'photos'),
  );
}

async function started(home: string, port: number, household: Household): Promise<DatabaseAddress> {
  const database = await startDatabase(home, port);
  await household.add(() => database.stop());
  return database.address;
}

function addressOf(home: string, port: number): DatabaseAddress {
  return {
    host: '127.0.0.1',
    port,
    user: 'inventario',
    password: readFileSync(join(home, 'password'), 'utf8').trim(),
    database: 'inventario',
  };
}

async function migrationsOf(address: DatabaseAddress, dataFolder: string): Promise<string[]> {
  const connection = await mariadb.createConnection({ ...address, connectTimeout: 30_000 }).catch(() => {
    throw new StartError(
      `The database of ${dataFolder} does not answer on port ${address.port}; INVENTARIO_DB_PORT says ` +
        'where it is.',
    );
  });
  try {
    const rows = (await connection.query('SELECT name FROM sequelize_meta ORDER BY name')) as {
      name: string;
    }[];
    return rows.map((row) => row.name);
  } finally {
    await connection.end();
  }
}

/** All tables as of one moment. */
function writeDump({ host, port, user, password, database }: DatabaseAddress, path: string): void {
  const file = openSync(path, 'w', 0o600);
  const args = ['--no-defaults', '--protocol=tcp', `--host=${host}`, `--port=${port}`, `--user=${user}`];
  const what = [
    '--single-transaction',
    '--skip-lock-tables',
    '--hex-blob',
    '--skip-comments',
    '--max-allowed-packet=64M',
  ];
  const done = spawnSync('mariadb-dump', [...args, ...what, '--default-character-set=utf8mb4', database], {
    stdio: ['ignore', file, 'pipe'],
    env: { ...process.env, MYSQL_PWD: password },
    encoding: 'utf8',
  });
  closeSync(file);
  if (done.status !== 0)
    throw new StartError(
      'The database cannot be read out: ' +
        `${(done.stderr || done.error?.message || '').trim().split('\n').at(-1)}`,
    );
}
