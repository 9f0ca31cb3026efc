// Starts a MariaDB of our own on loopback, makes its database and a user with a generated password, and stops it again.
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import {
  accessSync,
  chmodSync,
  chownSync,
  constants,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import * as mariadb from 'mariadb';

export interface DatabaseAddress {
  host: string;
  port: number;
  user: string;
  password: string;
  database: string;
}

export interface RunningDatabase {
  address: DatabaseAddress;
  process: ChildProcess;
  stop(): Promise<void>;
}

/** Something a person can put right, said in one line. */
export class StartError extends Error {}

const asRoot = process.getuid?.() === 0;

export function portIsFree(port: number): Promise<boolean> {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}

export async function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

/**
 * @param folder holds the data, the socket and the generated password
 * @param forTests gives up surviving a power cut for speed
 */
export async function startDatabase(folder: string, port: number, forTests = false): Promise<RunningDatabase> {
  const home = resolve(folder);
  const data = join(home, 'data');
  prepareFolder(home);
  const asUser = asRoot ? [`--user=${rootMayHandOver(home) ? 'mysql' : 'root'}`] : [];
  if (!existsSync(join(home, 'installed')) || !existsSync(data)) install(home, data, asUser);
  const socket = join(home, 'db.sock');
  if (socket.length > 107)
    throw new StartError(`The folder name ${home} is too long for the database's socket; use a shorter one (INVENTARIO_DATA).`);
  if (!(await portIsFree(port))) throw new StartError(`Port ${port} for the database is taken; free it or set INVENTARIO_DB_PORT.`);

  const server = spawn(
    'mariadbd',
    [
      '--no-defaults',
      ...asUser,
      `--datadir=${data}`,
      `--socket=${socket}`,
      `--port=${port}`,
      `--pid-file=${join(home, 'db.pid')}`,
      `--log-error=${join(home, 'db.log')}`,
      '--bind-address=127.0.0.1',
      '--skip-name-resolve',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--default-time-zone=+00:00',
      ...(forTests ? ['--innodb-flush-log-at-trx-commit=0', '--skip-log-bin'] : ['--innodb-flush-log-at-trx-commit=1']),
    ],
    { stdio: 'ignore', detached: true },
  );
  let gone = false;
  server.once('exit', () => {
    gone = true;
  });
  server.once('error', () => {
    gone = true;
  });
  const address: DatabaseAddress = { host: '127.0.0.1', port, user: 'inventario', password: passwordOf(home), database: 'inventario' };
  for (let tries = 0; ; tries++) {
    if (gone || tries > 3000) throw new StartError(`The database does not start; its log is ${join(home, 'db.log')}.`);
    try {
      await prepareUser(socket, address);
      break;
    } catch {
      await new Promise((done) => setTimeout(done, 100));
    }
  }
  const stop = () =>
    new Promise<void>((done) => {
      if (gone) return done();
      server.once('exit', () => done());
      server.kill('SIGTERM');
    });
  return { address, process: server, stop };
}

function prepareFolder(home: string): void {
  try {
    mkdirSync(home, { recursive: true });
    accessSync(home, constants.W_OK);
  } catch {
    throw new StartError(`The data folder ${home} cannot be written; choose another with INVENTARIO_DATA.`);
  }
}

/**
 * Whether the database can run as its own user, `mysql`, when we are root: that user has to pass through every folder above its data.
 * Under a folder only root may enter (a temporary one, say) it runs as root instead.
 */
function rootMayHandOver(home: string): boolean {
  for (let above = dirname(home); above !== dirname(above); above = dirname(above)) if ((statSync(above).mode & 0o001) === 0) return false;
  const { uid, gid } = databaseUser();
  chownSync(home, uid, gid);
  chmodSync(home, 0o755);
  return true;
}

function databaseUser(): { uid: number; gid: number } {
  const line = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((entry) => entry.startsWith('mysql:'));
  const [, , uid, gid] = line?.split(':') ?? [];
  if (uid === undefined || gid === undefined)
    throw new StartError('The user "mysql" is missing; install the Debian package mariadb-server.');
  return { uid: Number(uid), gid: Number(gid) };
}

/**
 * Makes the data folder beside its place and moves it there when it is whole, so that being stopped halfway leaves nothing that
 * looks like data. Data without the mark of a finished set-up is somebody's to look at, never ours to throw away.
 */
function install(home: string, data: string, asUser: readonly string[]): void {
  if (existsSync(data))
    throw new StartError(`The data folder ${data} is half made (its set-up was never finished); move it away and start again.`);
  const making = `${data}.making`;
  rmSync(making, { recursive: true, force: true });
  const made = spawnSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      ...asUser,
      `--datadir=${making}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      '--skip-name-resolve',
    ],
    { encoding: 'utf8' },
  );
  if (made.status !== 0) {
    rmSync(making, { recursive: true, force: true });
    throw new StartError(
      `The database cannot be set up in ${data}: ${(made.stderr || made.error?.message || 'unknown reason').trim().split('\n').at(-1)}`,
    );
  }
  writeFileSync(join(home, 'password'), randomBytes(18).toString('base64url'), { mode: 0o600 });
  writeFileSync(join(home, 'installed'), '1\n');
  renameSync(making, data);
}

function passwordOf(home: string): string {
  try {
    return readFileSync(join(home, 'password'), 'utf8').trim();
  } catch {
    throw new StartError(`The data folder ${home} is incomplete (no password file); move it away and start again.`);
  }
}

async function prepareUser(socketPath: string, address: DatabaseAddress): Promise<void> {
  const connection = await mariadb.createConnection({ socketPath, user: 'root', connectTimeout: 30_000 });
  try {
    await connection.query(`CREATE DATABASE IF NOT EXISTS ${address.database}`);
    await connection.query(`CREATE USER IF NOT EXISTS '${address.user}'@'127.0.0.1' IDENTIFIED BY '${address.password}'`);
    await connection.query(`GRANT ALL ON \`${address.database}%\`.* TO '${address.user}'@'127.0.0.1'`);
  } finally {
    await connection.end();
  }
}
