import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { freePort, portIsFree } from './database.js';

const root = new URL('..', import.meta.url).pathname;
const folder = mkdtempSync(join(tmpdir(), 'inventario-start-'));
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
  ended: Promise<{ code: number | null; stderr: string }>;
} {
  const child = spawn('./start', { cwd: root, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  let stdout = '';
  let stderr = '';
  child.stderr.on('data', (piece) => {
    stderr += piece;
  });
  const ended = new Promise<{ code: number | null; stderr: string }>((done) => child.on('close', (code) => done({ code, stderr })));
  const said = new Promise<string>((done, failed) => {
    child.stdout.on('data', (piece) => {
      stdout += piece;
      const address = /Inventario is at (\S+)/.exec(stdout)?.[1];
      if (address) done(address);
    });
    void ended.then(({ code }) => failed(new Error(`ended with ${code}: ${stderr}`)));
  });
  said.catch(() => {});
  return { child, said, ended };
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
    await one({ INVENTARIO_PORT: 'high', INVENTARIO_DATA: join(folder, 'b') }, /INVENTARIO_PORT must be a port/);
  });

  test('a folder that cannot be written', async () => {
    writeFileSync(join(folder, 'file'), '');
    await one({ ...(await ports()), INVENTARIO_DATA: join(folder, 'file', 'below') }, /cannot be written.*INVENTARIO_DATA/);
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
      spawnSync('sh', ['-c', `. scripts/install.sh; ${script}`], { cwd: root, encoding: 'utf8', env: { PATH: path } });
    expect(run('need_node')).toMatchObject({ status: 1, stderr: expect.stringMatching(/^inventario: npm is missing[^\n]*\n$/) });
    expect(run('need_program mariadbd mariadb-server')).toMatchObject({
      status: 1,
      stderr: expect.stringMatching(/^inventario: mariadbd is missing and there is no apt-get[^\n]*\n$/),
    });
  });
});

test('Ctrl-C leaves no process behind, and a second start finds the first one’s data', async () => {
  const env = { ...(await ports()), INVENTARIO_DATA: join(folder, 'run') };
  const first = start(env);
  const address = await first.said;
  const made = await fetch(`${address}/api/jobs/quillon-point`);
  const job = { ...((await made.json()) as object), id: 'kept' };
  expect(
    (await fetch(`${address}/api/jobs`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(job) }))
      .status,
  ).toBe(201);
  first.child.kill('SIGINT');
  expect((await first.ended).code).toBe(0);
  for (const port of [env.INVENTARIO_PORT, env.INVENTARIO_DB_PORT, env.INVENTARIO_SITE_PORT])
    expect(await portIsFree(Number(port))).toBe(true);
  expect(spawnSync('pgrep', ['-f', join(folder, 'run')], { encoding: 'utf8' }).stdout).toBe('');

  const second = start(env);
  const again = await second.said;
  const jobs = (await (await fetch(`${again}/api/jobs`)).json()) as { id: string }[];
  expect(jobs.map((entry) => entry.id).sort()).toEqual(['kept', 'quillon-point', 'saffron-terrace-3', 'wherry-cottage']);
  second.child.kill('SIGINT');
  expect((await second.ended).code).toBe(0);
});
