import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { get as httpsGet } from 'node:https';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from '@jest/globals';
import { freePort, portIsFree } from './database.js';
import { testFolder } from './test-folder.js';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = testFolder('start');
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const ports = async () => ({
  INVENTARIO_PORT: String(await freePort()),
  INVENTARIO_DB_PORT: String(await freePort()),
  INVENTARIO_SITE_PORT: String(await freePort()),
});

/** Runs ./start until it ends, or until it says where it is. */
function start(env: Record<string, string>): {
  child: ChildProcess;
  said: Promise<string>;
  /** Everything said so far. */
  printed: () => string;
  ended: Promise<{ code: number | null; stderr: string }>;
} {
  const child = spawn('./start', {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let stdout = '';
  let stderr = '';
  child.stderr.on('data', (piece) => {
    stderr += piece;
  });
  const ended = new Promise<{ code: number | null; stderr: string }>((done) =>
    child.on('close', (code) => done({ code, stderr })),
  );
  const said = new Promise<string>((done, failed) => {
    child.stdout.on('data', (piece) => {
      stdout += piece;
      const address = /Inventario is at (\S+)/.exec(stdout)?.[1];
      if (address) done(address);
    });
    void ended.then(({ code }) => failed(new Error(`ended with ${code}: ${stderr}`)));
  });
  said.catch(() => {});
  return { child, said, ended, printed: () => stdout };
}

describe('./start says in one line what hinders it and ends with an exit code', () => {
  const one = async (env: Record<string, string>, says: RegExp) => {
    const { code, stderr } = await start(env).ended;
    expect(stderr).toMatch(says);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(code).toBe(1);
  };

  test('a taken port', async () => {
    const taken = createServer().listen(0, '127.0.0.1');
    await new Promise((done) => taken.once('listening', done));
    const { port } = taken.address() as { port: number };
    await one(
      { ...(await ports()), INVENTARIO_PORT: String(port), INVENTARIO_DATA: join(folder, 'a') },
      new RegExp(`Port ${port} is taken.*INVENTARIO_PORT`),
    );
    taken.close();
  });

  test('a port that is none', async () => {
    await one(
      { INVENTARIO_PORT: 'high', INVENTARIO_DATA: join(folder, 'b') },
      /INVENTARIO_PORT must be a port/,
    );
  });

  test.each<[string, Record<string, string>, RegExp]>([
    [
      'a certificate without its key',
      { INVENTARIO_TLS_CERT: 'cert.pem' },
      /INVENTARIO_TLS_CERT is given without INVENTARIO_TLS_KEY/,
    ],
    [
      'a key without its certificate',
      { INVENTARIO_TLS_KEY: 'key.pem' },
      /INVENTARIO_TLS_KEY is given without INVENTARIO_TLS_CERT/,
    ],
    [
      'files that are none',
      { INVENTARIO_TLS_CERT: 'package.json', INVENTARIO_TLS_KEY: 'package.json' },
      /INVENTARIO_TLS_CERT and INVENTARIO_TLS_KEY are not/,
    ],
    [
      'a file that is not there',
      { INVENTARIO_TLS_CERT: 'gone', INVENTARIO_TLS_KEY: 'gone' },
      /gone of INVENTARIO_TLS_CERT cannot be read/,
    ],
    [
      'a host that is no address',
      { INVENTARIO_HOST: 'somewhere.example' },
      /INVENTARIO_HOST must be an address/,
    ],
    [
      'a host of another machine',
      { INVENTARIO_HOST: '203.0.113.7' },
      /INVENTARIO_HOST is 203.0.113.7, which is no address of this machine/,
    ],
    [
      'one port for two',
      { INVENTARIO_PORT: '4999', INVENTARIO_SITE_PORT: '4999' },
      /INVENTARIO_PORT and INVENTARIO_SITE_PORT are both 4999/,
    ],
  ])('%s', async (_, env, says) => {
    await one({ INVENTARIO_DATA: join(folder, 'c'), ...env }, says);
  });

  test('a folder that cannot be written', async () => {
    writeFileSync(join(folder, 'file'), '');
    await one(
      { ...(await ports()), INVENTARIO_DATA: join(folder, 'file', 'below') },
      /cannot be written.*INVENTARIO_DATA/,
    );
  });

  test('a half-made data folder, which is left alone', async () => {
    const data = join(folder, 'half', 'database', 'data');
    mkdirSync(data, { recursive: true });
    writeFileSync(join(data, 'ibdata1'), 'kept');
    await one({ ...(await ports()), INVENTARIO_DATA: join(folder, 'half') }, /is half made.*move it away/);
    expect(readFileSync(join(data, 'ibdata1'), 'utf8')).toBe('kept');
  });

  test('a missing package manager', () => {
    const path = join(folder, 'path');
    mkdirSync(path);
    for (const name of ['sh', 'dirname', 'node', 'cat', 'id'])
      symlinkSync(spawnSync('which', [name], { encoding: 'utf8' }).stdout.trim(), join(path, name));
    const run = (script: string) =>
      spawnSync('sh', ['-c', `. scripts/install.sh; ${script}`], {
        cwd: root,
        encoding: 'utf8',
        env: { PATH: path },
      });
    expect(run('need_node')).toMatchObject({
      status: 1,
      stderr: expect.stringMatching(/^inventario: npm is missing[^\n]*\n$/),
    });
    expect(run('need_program mariadbd mariadb-server')).toMatchObject({
      status: 1,
      stderr: expect.stringMatching(/^inventario: mariadbd is missing and there is no apt-get[^\n]*\n$/),
    });
  });
});

/** No process of a data folder is left; a database may still be writing what it has. */
async function expectNobody(data: string): Promise<void> {
  for (
    let tries = 0;
    tries < 1200 && spawnSync('pgrep', ['-f', data], { encoding: 'utf8' }).stdout !== '';
    tries++
  )
    await new Promise((done) => setTimeout(done, 100));
  expect(spawnSync('pgrep', ['-af', data], { encoding: 'utf8' }).stdout).toBe('');
}

test('a signal at any moment of starting ends all of it, and the next start works', async () => {
  const data = join(folder, 'cut');
  const env = { ...(await ports()), INVENTARIO_DATA: data };
  for (const [index, after] of [300, 900, 1400, 1900, 2600, 3400, 4400].entries()) {
    const cut = start(env);
    await new Promise((done) => setTimeout(done, after));
    cut.child.kill(index % 2 === 0 ? 'SIGTERM' : 'SIGINT');
    const { code, stderr } = await cut.ended;
    expect(stderr.trim().split('\n').length).toBeLessThanOrEqual(1);
    expect([0, 1, null]).toContain(code);
    await expectNobody(data);
  }
  const last = start(env);
  expect((await fetch(`${await last.said}/api/ready`)).status).toBe(200);
  last.child.kill('SIGTERM');
  expect((await last.ended).code).toBe(0);
  await expectNobody(data);
});

test('a second start on the same data says so; one that was killed is taken over; a database that dies is started again', async () => {
  const data = join(folder, 'shared');
  const env = { ...(await ports()), INVENTARIO_DATA: data };
  const first = start(env);
  const address = await first.said;
  const second = await start({ ...(await ports()), INVENTARIO_DATA: data }).ended;
  expect([second.code, second.stderr]).toEqual([
    1,
    expect.stringMatching(/^inventario: Inventario is running on this data already \(process \d+\)[^\n]*\n$/),
  ]);

  const pid = Number(readFileSync(join(data, 'database', 'db.pid'), 'utf8'));
  process.kill(pid, 'SIGKILL');
  const health = async () => (await fetch(`${address}/api/health`)).json() as Promise<{ database: string }>;
  await until(async () => readFileSync(join(data, 'database', 'db.pid'), 'utf8').trim() !== String(pid));
  await until(async () => (await health()).database === 'ok');
  expect((await fetch(`${address}/api/jobs/quillon-point`)).status).toBe(200);

  first.child.kill('SIGKILL');
  await first.ended.catch(() => {});
  const next = start(env);
  expect((await fetch(`${await next.said}/api/ready`)).status).toBe(200);
  next.child.kill('SIGTERM');
  expect((await next.ended).code).toBe(0);
  await expectNobody(data);
});

async function until(holds: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 6000; tries++) {
    if (await holds().catch(() => false)) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error('it never came to hold');
}

test('a certificate is made on request, its fingerprint said, and the next start shows the same', async () => {
  const env = { ...(await ports()), INVENTARIO_DATA: join(folder, 'tls'), INVENTARIO_TLS: 'make' };
  const seen: string[] = [];
  for (let turn = 0; turn < 2; turn++) {
    const secure = start(env);
    const address = await secure.said;
    expect(address).toMatch(/^https:/);
    const ca = readFileSync(join(folder, 'tls', 'tls', 'certificate.pem'), 'utf8');
    const status = await new Promise((done, failed) =>
      httpsGet(`${address}/api/ready`, { ca, agent: false }, (response) => {
        response.resume();
        done(response.statusCode);
      }).on('error', failed),
    );
    expect(status).toBe(200);
    await until(async () => /SHA-256 (?:[0-9A-F]{2}:){31}[0-9A-F]{2}/.test(secure.printed()));
    seen.push(/SHA-256 ([0-9A-F:]+)/.exec(secure.printed())?.[1] as string);
    secure.child.kill('SIGTERM');
    await secure.ended;
  }
  expect(seen[0]).toBe(seen[1]);
});

test('Ctrl-C leaves no process behind, and a second start finds the first one’s data', async () => {
  const env = { ...(await ports()), INVENTARIO_DATA: join(folder, 'run') };
  const first = start(env);
  const address = await first.said;
  const made = await fetch(`${address}/api/jobs/quillon-point`);
  const job = { ...((await made.json()) as object), id: 'kept' };
  expect(
    (
      await fetch(`${address}/api/jobs`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(job),
      })
    ).status,
  ).toBe(201);
  first.child.kill('SIGINT');
  expect((await first.ended).code).toBe(0);
  for (const port of [env.INVENTARIO_PORT, env.INVENTARIO_DB_PORT, env.INVENTARIO_SITE_PORT])
    expect(await portIsFree(Number(port))).toBe(true);
  expect(spawnSync('pgrep', ['-f', join(folder, 'run')], { encoding: 'utf8' }).stdout).toBe('');

  const second = start(env);
  const again = await second.said;
  const jobs = (await (await fetch(`${again}/api/jobs`)).json()) as { id: string }[];
  expect(jobs.map((entry) => entry.id).sort()).toEqual([
    'heron-house',
    'kept',
    'quillon-point',
    'saffron-terrace-3',
    'tern-house',
    'wherry-cottage',
  ]);
  second.child.kill('SIGINT');
  expect((await second.ended).code).toBe(0);
});
