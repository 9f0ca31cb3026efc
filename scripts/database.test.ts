import { spawnSync } from 'node:child_process';
import { chmodSync, chownSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from '@jest/globals';
import * as mariadb from 'mariadb';
import { freePort, type RunningDatabase, startDatabase } from './database.js';
import { testFolder } from './test-folder.js';

const folder = testFolder('db');
const running: RunningDatabase[] = [];
afterAll(async () => {
  for (const database of running) await database.stop();
  rmSync(folder, { recursive: true, force: true });
});
const asRoot = process.getuid?.() === 0;

async function started(name: string): Promise<{ database: RunningDatabase; home: string }> {
  const home = join(folder, name);
  const database = await startDatabase(home, await freePort(), true);
  running.push(database);
  return { database, home };
}

/** Nobody gets in but our own user with its password, and root by the socket with its own. */
async function expectClosed({ database, home }: { database: RunningDatabase; home: string }): Promise<void> {
  const { port } = database.address;
  const tries = [
    { host: '127.0.0.1', port, user: 'root' },
    {
      host: '127.0.0.1',
      port,
      user: 'root',
      password: readFileSync(join(home, 'root-password'), 'utf8').trim(),
    },
    { host: '127.0.0.1', port, user: 'inventario' },
    { host: '127.0.0.1', port, user: '' },
    { host: '127.0.0.1', port, user: 'mysql' },
    { socketPath: join(home, 'db.sock'), user: 'root' },
    { socketPath: join(home, 'db.sock'), user: 'old-friend' },
  ];
  for (const way of tries)
    await expect(mariadb.createConnection({ ...way, connectTimeout: 60_000 })).rejects.toThrow();
  const root = await mariadb.createConnection({
    socketPath: join(home, 'db.sock'),
    user: 'root',
    password: readFileSync(join(home, 'root-password'), 'utf8').trim(),
  });
  const accounts = (await root.query(
    "SELECT User, Host, JSON_VALUE(Priv, '$.authentication_string') AS secret FROM mysql.global_priv",
  )) as {
    User: string;
    Host: string;
    secret: string | null;
  }[];
  await root.end();
  expect(accounts.map(({ User, Host }) => `${User}@${Host}`).sort()).toEqual([
    'inventario@127.0.0.1',
    'mariadb.sys@localhost',
    'root@localhost',
  ]);
  for (const { User, secret } of accounts)
    if (User !== 'mariadb.sys') expect(secret).toMatch(/^\*[0-9A-F]{40}$/);
  for (const path of [home, join(home, 'data')]) expect(statSync(path).mode & 0o077).toBe(0);
  expect(statSync(join(home, 'password')).mode & 0o077).toBe(0);
  const status = readFileSync(`/proc/${database.process.pid}/status`, 'utf8');
  expect(/^Uid:\s+(\d+)/m.exec(status)?.[1]).not.toBe('0');
  expect(/^Name:\s+(\S+)/m.exec(status)?.[1]).toBe('mariadbd');
}

test('a new database is closed to everybody but us, and does not run as root', async () => {
  await expectClosed(await started('new'));
});

test('one that starts leaves alone what another works with in the folder for temporary files', async () => {
  const another = join(tmpdir(), `#sql-temptable-${process.pid}-1-1.MAD`);
  writeFileSync(another, 'rows of another database');
  const { uid, gid } = statSync((await started('beside')).home);
  chownSync(another, uid, gid);
  await started('and: another');
  expect(readFileSync(another, 'utf8')).toBe('rows of another database');
  rmSync(another);
});

(asRoot ? test : test.skip)(
  'one under a folder only root may enter does not run as root either, and comes up when that folder is opened',
  async () => {
    mkdirSync(join(folder, 'private'), { mode: 0o700 });
    const closed = await started('private/below');
    await expectClosed(closed);
    expect(statSync(join(folder, 'private')).mode & 0o007).toBe(0);
    await closed.database.stop();
    chmodSync(join(folder, 'private'), 0o755);
    await expectClosed(await started('private/below'));
  },
);

(asRoot ? test : test.skip)(
  'one that an earlier version set up and ran as root is put right, with its data',
  async () => {
    const home = join(folder, 'old');
    const data = join(home, 'data');
    mkdirSync(home);
    chmodSync(home, 0o755);
    const made = spawnSync('mariadb-install-db', [
      '--no-defaults',
      '--user=root',
      `--datadir=${data}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      '--skip-name-resolve',
    ]);
    expect(made.status).toBe(0);
    writeFileSync(join(home, 'password'), 'old-password', { mode: 0o600 });
    writeFileSync(join(home, 'installed'), '1\n');
    const sql = [
      'CREATE DATABASE inventario',
      'CREATE TABLE inventario.kept (word VARCHAR(20))',
      "INSERT INTO inventario.kept VALUES ('still here')",
      "CREATE USER 'inventario'@'127.0.0.1' IDENTIFIED BY 'another'",
      "CREATE USER 'old-friend'@'%'",
    ];
    const first = spawnSync(
      'mariadbd',
      ['--no-defaults', '--user=root', `--datadir=${data}`, '--bootstrap'],
      {
        input: ['USE mysql', 'FLUSH PRIVILEGES', ...sql].map((line) => `${line};`).join('\n'),
      },
    );
    expect(first.status).toBe(0);
    const old = await started('old');
    await expectClosed(old);
    const connection = await mariadb.createConnection(old.database.address);
    expect(await connection.query('SELECT word FROM kept')).toMatchObject([{ word: 'still here' }]);
    await connection.end();
  },
);

test('one left running by a start that was killed is ended and its data taken up', async () => {
  const home = join(folder, 'left');
  const first = await startDatabase(home, await freePort());
  const connection = await mariadb.createConnection(first.address);
  await connection.query('CREATE TABLE kept (word VARCHAR(20))');
  await connection.query("INSERT INTO kept VALUES ('still here')");
  await connection.end();
  const { database } = await started('left');
  expect(first.process.exitCode !== null || first.process.signalCode !== null).toBe(true);
  const again = await mariadb.createConnection(database.address);
  expect(await again.query('SELECT word FROM kept')).toMatchObject([{ word: 'still here' }]);
  await again.end();
});
