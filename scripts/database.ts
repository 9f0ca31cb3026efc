// Starts a MariaDB of our own on loopback, closed to everybody but us, makes its database and users, and
// stops it again.
import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { randomBytes, randomInt } from 'node:crypto';
import {
  accessSync,
  chmodSync,
  chownSync,
  constants,
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import * as mariadb from 'mariadb';
import { ended } from './household.js';
import { StartError } from './start-error.js';

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

/** Less room than this and a database cannot be set up, bytes. */
const LEAST_ROOM = 300_000_000;
/** So long a database may take to answer, tries of 100 ms: after a crash it may have much to put right. */
const MOST_TRIES = 3000;

const asRoot = process.getuid?.() === 0;

export function portIsFree(port: number, host = '127.0.0.1'): Promise<boolean> {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, host, () => probe.close(() => done(true)));
  });
}

/**
 * A port to start something on, now or later: out of those the system does not deal out by itself, so that
 * nothing but another caller of this, drawing the same number, can take it meanwhile.
 */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(15_000, 32_000);
    if (await portIsFree(port)) return port;
  }
}

/**
 * @param folder holds the data, the socket and the generated passwords; nobody else may enter it
 * @param forTests gives up surviving a power cut for speed
 */
export async function startDatabase(
  folder: string,
  port: number,
  forTests = false,
): Promise<RunningDatabase> {
  const home = resolve(folder);
  const data = join(home, 'data');
  const socket = join(home, 'db.sock');
  if (socket.length > 107)
    throw new StartError(
      `The folder name ${home} is too long for the database's socket; use a shorter one (INVENTARIO_DATA).`,
    );
  prepareFolder(home);
  const runAs = whoRuns(home);
  await endOrphan(home, data);
  makeTemporary(home, runAs);
  if (!existsSync(join(home, 'installed')) || !existsSync(data)) install(home, data, runAs);
  handOver(home, data, runAs);
  if (!(await portIsFree(port)))
    throw new StartError(`Port ${port} for the database is taken; free it or set INVENTARIO_DB_PORT.`);

  const address: DatabaseAddress = {
    host: '127.0.0.1',
    port,
    user: 'inventario',
    password: secretOf(home, 'password'),
    database: 'inventario',
  };
  const server = runAs.spawn('mariadbd', [
    ...serverOptions({ home, data, socket, port }),
    `--init-file=${writeInitFile(home, address, runAs)}`,
    ...(forTests ? ['--innodb-flush-log-at-trx-commit=0', '--skip-log-bin'] : WRITTEN_BEFORE_SEEN),
  ]);
  await answers(server, address, join(home, 'db.log'));
  return { address, process: server, stop: () => ended(server) };
}

/** Waits until the database answers. */
async function answers(server: ChildProcess, address: DatabaseAddress, log: string): Promise<void> {
  let gone = false;
  for (const event of ['exit', 'error'] as const)
    server.once(event, () => {
      gone = true;
    });
  for (let tries = 0; ; tries++) {
    if (gone || tries > MOST_TRIES) {
      await ended(server);
      throw new StartError(`The database does not start: ${lastWord(log)} (its log is ` + `${log}).`);
    }
    try {
      const connection = await mariadb.createConnection({ ...address, connectTimeout: 30_000 });
      await connection.end();
      return;
    } catch {
      await new Promise((done) => setTimeout(done, 100));
    }
  }
}

/**
 * A database that starts removes the temporary tables it finds in its folder for them: in a shared one those
 * of every other database of the same user, at work or just being set up. Told from the data on, where it
 * works: the set-up splits an option at a space, and a list of such folders is split at a colon.
 */
const TEMPORARY_BESIDE_DATA = '--tmpdir=../temporary';

function makeTemporary(home: string, { uid, gid }: RunAs): void {
  const path = join(home, 'temporary');
  mkdirSync(path, { recursive: true });
  if (uid !== undefined && gid !== undefined) chownSync(path, uid, gid);
}

function serverOptions(at: { home: string; data: string; socket: string; port: number }): string[] {
  return [
    '--no-defaults',
    `--datadir=${at.data}`,
    TEMPORARY_BESIDE_DATA,
    `--socket=${at.socket}`,
    `--port=${at.port}`,
    `--pid-file=${join(at.home, 'db.pid')}`,
    `--log-error=${join(at.home, 'db.log')}`,
    '--bind-address=127.0.0.1',
    '--skip-name-resolve',
    '--local-infile=0',
    '--max-allowed-packet=64M',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--default-time-zone=+00:00',
  ];
}

/**
 * InnoDB by itself shows a change to others a moment before it is on the disk: somebody could be told of it
 * and a crash take it back. With the log of changes synced first, nobody ever sees what a crash could take.
 */
const WRITTEN_BEFORE_SEEN = [
  '--innodb-flush-log-at-trx-commit=1',
  '--log-bin=log-of-changes',
  '--server-id=1',
  '--sync-binlog=1',
  '--binlog-format=ROW',
  '--expire-logs-days=1',
  '--max-binlog-size=64M',
];

/** Who the database runs as, and how something is run so. Never root. */
interface RunAs {
  uid: number | undefined;
  gid: number | undefined;
  spawn(command: string, args: readonly string[]): ChildProcess;
  run(command: string, args: readonly string[]): { status: number | null; said: string };
}

/** Not as root: as whoever starts it. As root: as `mysql`, without any right of root's. */
function whoRuns(home: string): RunAs {
  const plain = (
    wrap: (command: string, args: readonly string[]) => [string, string[]],
    ids: { uid?: number; gid?: number },
  ): RunAs => ({
    uid: ids.uid,
    gid: ids.gid,
    spawn: (command, args) => spawn(...wrap(command, args), { stdio: 'ignore', detached: true, cwd: '/' }),
    run: (command, args) => {
      const done = spawnSync(...wrap(command, args), { encoding: 'utf8', cwd: '/' });
      const lines = (done.stderr || done.error?.message || 'unknown reason').trim().split('\n');
      return {
        status: done.status,
        said: lines.find((line) => line.includes('ERROR')) ?? lines.at(-1) ?? '',
      };
    },
  });
  if (!asRoot) return plain((command, args) => [command, [...args]], {});
  const ids = databaseUser();
  const runAs = plain(
    (command, args) => [
      'setpriv',
      ['--reuid', String(ids.uid), '--regid', String(ids.gid), '--clear-groups', command, ...args],
    ],
    ids,
  );
  if (runAs.run('test', ['-d', home]).status !== 0) letPass(home);
  if (runAs.run('test', ['-d', home]).status === 0) return runAs;
  throw new StartError(
    'The database never runs as root, and its user "mysql" cannot pass through the folders above ' +
      `${home}; choose another with INVENTARIO_DATA.`,
  );
}

/**
 * Only root may enter a folder above the data (a clone in a private temporary folder, say): the database's
 * user, and nobody else, may pass through it from now on. It can neither list nor read what is there.
 */
function letPass(home: string): void {
  for (let above = dirname(home); above !== dirname(above); above = dirname(above))
    if ((statSync(above).mode & 0o001) === 0) spawnSync('setfacl', ['-m', 'u:mysql:x', above]);
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

function prepareFolder(home: string): void {
  try {
    mkdirSync(home, { recursive: true });
    accessSync(home, constants.W_OK);
  } catch (error) {
    if ((error as { code?: string }).code === 'ENOSPC') throw error;
    throw new StartError(`The data folder ${home} cannot be written; choose another with INVENTARIO_DATA.`);
  }
  const { bavail, bsize } = statfsSync(home);
  if (!existsSync(join(home, 'installed')) && bavail * bsize < LEAST_ROOM)
    throw new StartError(
      `The disk under ${home} has ${Math.trunc((bavail * bsize) / 1e6)} MB left; the database needs 300 ` +
        'to begin with.',
    );
}

/**
 * Closes the folder to others, and gives what an earlier version ran as root to the database's user. The
 * folder itself comes last.
 */
function handOver(home: string, data: string, { uid, gid }: RunAs): void {
  if (uid !== undefined && gid !== undefined) {
    const give = (path: string) => {
      if (lstatSync(path).isDirectory()) for (const name of readdirSync(path)) give(join(path, name));
      if (lstatSync(path).uid !== uid) chownSync(path, uid, gid);
    };
    if (statSync(data).uid !== uid) give(data);
    for (const name of ['db.log', 'db.pid'])
      if (existsSync(join(home, name))) chownSync(join(home, name), uid, gid);
    chownSync(home, uid, gid);
  }
  chmodSync(data, 0o700);
  chmodSync(home, 0o700);
}

/**
 * Makes the data folder beside its place and moves it there when it is whole, so that being stopped halfway
 * leaves nothing that looks like data. Data without the mark of a finished set-up is somebody's to look at,
 * never ours to throw away.
 */
function install(home: string, data: string, runAs: RunAs): void {
  if (existsSync(data))
    throw new StartError(
      `The data folder ${data} is half made (its set-up was never finished); move it away and start again.`,
    );
  const making = `${data}.making`;
  rmSync(making, { recursive: true, force: true });
  if (runAs.uid !== undefined && runAs.gid !== undefined) chownSync(home, runAs.uid, runAs.gid);
  chmodSync(home, 0o700);
  const made = runAs.run('mariadb-install-db', [
    '--no-defaults',
    `--datadir=${making}`,
    TEMPORARY_BESIDE_DATA,
    '--auth-root-authentication-method=normal',
    '--skip-test-db',
    '--skip-name-resolve',
  ]);
  if (made.status !== 0) {
    rmSync(making, { recursive: true, force: true });
    throw new StartError(`The database cannot be set up in ${data}: ${made.said}`);
  }
  writeFileSync(join(home, 'password'), secret(), { mode: 0o600 });
  writeFileSync(join(home, 'installed'), '1\n');
  renameSync(making, data);
}

/**
 * What the database does before it lets anybody in: root by the socket alone and with a password, our own
 * user from loopback alone, and no other account, whatever an earlier version left.
 */
function writeInitFile(home: string, address: DatabaseAddress, { uid, gid }: RunAs): string {
  if (!existsSync(join(home, 'root-password')))
    writeFileSync(join(home, 'root-password'), secret(), { mode: 0o600 });
  const { user, password, database } = address;
  const statements = [
    "DELETE FROM mysql.global_priv WHERE NOT ((User = 'root' AND Host = 'localhost') OR (User = " +
      `'${user}' AND Host = '127.0.0.1') OR User = 'mariadb.sys')`,
    'FLUSH PRIVILEGES',
    `ALTER USER 'root'@'localhost' IDENTIFIED BY '${secretOf(home, 'root-password')}'`,
    `CREATE USER IF NOT EXISTS '${user}'@'127.0.0.1' IDENTIFIED BY '${password}'`,
    `ALTER USER '${user}'@'127.0.0.1' IDENTIFIED BY '${password}'`,
    `CREATE DATABASE IF NOT EXISTS ${database}`,
    `GRANT ALL ON \`${database}%\`.* TO '${user}'@'127.0.0.1'`,
  ];
  const path = join(home, 'first.sql');
  writeFileSync(path, `${statements.join(';\n')};\n`, { mode: 0o600 });
  chmodSync(path, 0o600);
  if (uid !== undefined && gid !== undefined) chownSync(path, uid, gid);
  return path;
}

const secret = () => randomBytes(18).toString('base64url');

function secretOf(home: string, name: 'password' | 'root-password'): string {
  try {
    return readFileSync(join(home, name), 'utf8').trim();
  } catch {
    throw new StartError(
      `The data folder ${home} is incomplete (no ${name} file); move it away and start again.`,
    );
  }
}

/**
 * Ends a database that a start before this one left running on the same data; it has written everything when
 * it is gone.
 */
export async function endOrphan(home: string, data: string): Promise<void> {
  let pid: number;
  try {
    pid = Number(readFileSync(join(home, 'db.pid'), 'utf8'));
    if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--datadir=${data}`)) return;
  } catch {
    return;
  }
  for (let tries = 0; isThere(pid); tries++) {
    try {
      if (tries % 600 === 0) process.kill(pid, tries < 1200 ? 'SIGTERM' : 'SIGKILL');
    } catch {
      return;
    }
    await new Promise((done) => setTimeout(done, 100));
  }
}

/** Whether a process is there and not only waits for its parent to notice that it ended. */
function isThere(pid: number): boolean {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return !stat.slice(stat.lastIndexOf(')') + 2).startsWith('Z');
  } catch {
    return false;
  }
}

/** The last thing a log says went wrong. */
function lastWord(log: string): string {
  try {
    const lines = readFileSync(log, 'utf8').trim().split('\n');
    const line = lines.findLast((entry) => entry.includes('[ERROR]')) ?? lines.at(-1) ?? '';
    return line.replace(/^.*\[(ERROR|Note|Warning)\]\s*/, '').slice(0, 200);
  } catch {
    return 'it says nothing';
  }
}
