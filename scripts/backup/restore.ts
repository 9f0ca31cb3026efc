import { spawnSync } from 'node:child_process';
import { closeSync, existsSync, mkdirSync, openSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { MIGRATIONS } from '../../server/src/storage/migrations.js';
import { type DatabaseAddress, startDatabase } from '../database.js';
import type { Household } from '../household.js';
import { takeFolder } from '../running.js';
import type { Settings } from '../settings.js';
import { StartError } from '../start-error.js';
import { DUMP, readHead, unpackContainer } from './container.js';
import { finishRestore, paths } from './switch-over.js';

/**
 * Puts a backup in the place of the data. It is prepared whole beside them first; until the one rename that
 * notes it nothing has changed, and from then on whoever comes next finishes it.
 */
export async function restore(
  file: string,
  sure: boolean,
  { dataFolder, databasePort }: Settings,
  household: Household,
): Promise<void> {
  const head = await readHead(
    file,
    MIGRATIONS.map((migration) => migration.name),
  );
  if (!sure) await ask(dataFolder, head.at);
  const giveBack = takeFolder(dataFolder, 'is running or being restored on this data');
  await household.add(async () => giveBack());
  await finishRestore(dataFolder);
  const { preparing, prepared } = paths(dataFolder);
  mkdirSync(preparing, { recursive: true, mode: 0o700 });
  await household.add(async () => {
    if (existsSync(preparing)) rmSync(preparing, { recursive: true, force: true });
  });
  await unpackContainer(file, preparing);
  mkdirSync(join(preparing, 'photos'), { recursive: true });
  household.goOn();
  const database = await startDatabase(join(preparing, 'database'), databasePort);
  await household.add(() => database.stop());
  load(database.address, join(preparing, DUMP));
  household.goOn();
  await database.stop();
  rmSync(join(preparing, DUMP));
  spawnSync('sync', ['-f', preparing]);
  renameSync(preparing, prepared);
  await finishRestore(dataFolder);
}

async function ask(dataFolder: string, at: string): Promise<void> {
  if (!process.stdin.isTTY || !process.stdout.isTTY)
    throw new StartError('A restore replaces everything; say --yes, or ask at a terminal.');
  const terminal = createInterface({ input: process.stdin, output: process.stdout });
  const word = await terminal.question(
    `Replace everything in ${dataFolder} by the backup of ${at}? Type yes: `,
  );
  terminal.close();
  if (word.trim().toLowerCase() !== 'yes') throw new StartError('Nothing was changed.');
}

function load({ host, port, user, password, database }: DatabaseAddress, dump: string): void {
  const file = openSync(dump, 'r');
  const args = [
    '--no-defaults',
    '--protocol=tcp',
    `--host=${host}`,
    `--port=${port}`,
    `--user=${user}`,
    '--max-allowed-packet=64M',
  ];
  const done = spawnSync('mariadb', [...args, '--default-character-set=utf8mb4', database], {
    stdio: [file, 'ignore', 'pipe'],
    env: { ...process.env, MYSQL_PWD: password },
    encoding: 'utf8',
  });
  closeSync(file);
  if (done.status !== 0)
    throw new StartError(
      `The backup cannot be read in: ${(done.stderr || done.error?.message || '').trim().split('\n').at(-1)}`,
    );
}
