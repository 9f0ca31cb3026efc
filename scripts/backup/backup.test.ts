import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Job } from '@inventario/core';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { freePort } from '../database.js';
import { testFolder } from '../test-folder.js';

const root = join(import.meta.dirname, '..', '..');
const COMMAND = join(root, 'inventario-backup');
const folder = testFolder('backup-test');
const data = join(folder, 'data');
const file = join(folder, 'house.backup');
let env: Record<string, string>;
let running: ChildProcess | undefined;

beforeAll(async () => {
  env = {
    INVENTARIO_PORT: String(await freePort()),
    INVENTARIO_DB_PORT: String(await freePort()),
    INVENTARIO_SITE_PORT: String(await freePort()),
    INVENTARIO_DATA: data,
  };
});
afterAll(async () => {
  await stop();
  rmSync(folder, { recursive: true, force: true });
});

const api = () => `http://127.0.0.1:${env.INVENTARIO_PORT}/api`;

async function start(): Promise<void> {
  const child = spawn(join(root, 'start'), {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  running = child;
  await new Promise<void>((done, failed) => {
    child.stdout?.on('data', (piece) => String(piece).includes('Inventario is at') && done());
    child.once('exit', (code) => failed(new Error(`./start ended with ${code}`)));
  });
}
async function stop(): Promise<void> {
  const child = running;
  running = undefined;
  if (!child || child.exitCode !== null) return;
  const gone = new Promise((done) => child.once('exit', done));
  child.kill('SIGTERM');
  await gone;
}
const backup = (...words: string[]) => {
  const { status, stderr } = spawnSync(COMMAND, words, {
    cwd: root,
    env: { ...process.env, ...env },
    encoding: 'utf8',
  });
  return { status, line: stderr };
};
async function name(text: string): Promise<void> {
  const response = await fetch(`${api()}/jobs/quillon-point`);
  const job = {
    ...((await response.json()) as Job),
    name: text,
    photos: [{ id: 'p1', boxId: 'kitchen-door' }],
  };
  const taken = await fetch(`${api()}/jobs?existing=replace`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(job),
  });
  expect(taken.status).toBe(201);
}
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAwAAAAICAIAAABChommAAAAEUlEQVR42mPIjvYiiBhGFQEACP1mAdGRi5kAAAAASUVORK5CYII=',
  'base64',
);
/** What the program shows: the job's name and whether its photograph is there. */
const state = async () => {
  const job = (await (await fetch(`${api()}/jobs/quillon-point`)).json()) as Job;
  return [job.name, (await fetch(`${api()}/jobs/quillon-point/photos/p1`)).status];
};
const refused = (says: RegExp) => ({
  status: 2,
  line: expect.stringMatching(new RegExp(`^inventario: [^\n]*${says.source}[^\n]*\n$`)),
});

describe('a backup', () => {
  test('is saved while the program runs, and holds jobs and photographs', async () => {
    await start();
    await name('Before');
    const put = await fetch(`${api()}/jobs/quillon-point/photos/p1`, {
      method: 'PUT',
      headers: { 'content-type': 'image/png' },
      body: PICTURE,
    });
    expect(put.status).toBe(200);
    expect(backup('save', file)).toEqual({ status: 0, line: '' });
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect(gunzipSync(readFileSync(file)).subarray(0, 11).toString()).toBe('backup.json');
    expect(backup('restore', file, '--yes')).toEqual(refused(/running/));
    await name('After');
    await fetch(`${api()}/jobs/quillon-point/photos/p1`, { method: 'DELETE' });
    expect(await state()).toEqual(['After', 404]);
    await stop();
  });

  test.each<[string, () => string[], RegExp]>([
    ['no word', () => [], /Say "save FILE"/],
    ['no --yes and no terminal', () => ['restore', file], /--yes/],
    ['a file that is not there', () => ['restore', join(folder, 'gone'), '--yes'], /There is no file/],
    ['a folder that is not there', () => ['save', join(folder, 'gone', 'x')], /is not there/],
    ['something else', () => ['restore', join(root, 'package.json'), '--yes'], /damaged|not a backup/],
    ['one that was cut', () => ['restore', cut(), '--yes'], /cut off/],
    ['one with a bit turned', () => ['restore', turned(), '--yes'], /damaged/],
    ['one of a later version', () => ['restore', newer(), '--yes'], /later version/],
  ])('%s is refused in one line, and nothing is changed', (_, words, says) => {
    const before = readdirSync(data).sort();
    expect(backup(...words())).toEqual(refused(says));
    expect(readdirSync(data).sort()).toEqual(before);
  });

  test('comes back whole; saved without the program running it is the same', async () => {
    const second = join(folder, 'second.backup');
    expect(backup('restore', file, '--yes')).toEqual({ status: 0, line: '' });
    expect(backup('save', second)).toEqual({ status: 0, line: '' });
    await start();
    expect(await state()).toEqual(['Before', 200]);
    await stop();
    expect(readdirSync(data).sort()).toEqual(['database', 'photos']);
  });
});

describe('killed in the middle', () => {
  const killedAfter = async (ms: number, ...words: string[]) => {
    const child = spawn(COMMAND, words, {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: 'ignore',
      detached: true,
    });
    const gone = new Promise((done) => child.once('exit', done));
    await Promise.race([gone, new Promise((done) => setTimeout(done, ms))]);
    try {
      process.kill(-(child.pid as number), 'SIGKILL');
    } catch {
      // It was done already.
    }
    await gone;
    spawnSync('pkill', ['-KILL', '-f', data]);
  };

  test('a restore leaves the state before or that of the backup, whole', async () => {
    await start();
    await name('Now');
    await fetch(`${api()}/jobs/quillon-point/photos/p1`, { method: 'DELETE' });
    await stop();
    const kept = join(folder, 'kept');
    cpSync(data, kept, { recursive: true });
    const seen = new Set<string>();
    for (const ms of [900, 1800, 2600, 3400, 4300, 60_000]) {
      await killedAfter(ms, 'restore', file, '--yes');
      await start();
      const now = await state();
      expect([
        ['Now', 404],
        ['Before', 200],
      ]).toContainEqual(now);
      seen.add(String(now));
      await stop();
      expect(readdirSync(data).sort()).toEqual(['database', 'photos']);
      if (now[0] === 'Before') {
        rmSync(data, { recursive: true, force: true });
        cpSync(kept, data, { recursive: true });
      }
    }
    expect(seen.size).toBe(2);
  });

  test('a save leaves a whole file or none under its name, and the data as they were', async () => {
    const target = join(folder, 'cut.backup');
    for (const ms of [700, 1500, 2500, 60_000]) {
      rmSync(target, { force: true });
      await killedAfter(ms, 'save', target);
      if (existsSync(target)) expect(gunzipSync(readFileSync(target)).length).toBeGreaterThan(10_000);
    }
    expect(existsSync(target)).toBe(true);
    await start();
    expect(await state()).toEqual(['Now', 404]);
    await stop();
  });
});

function cut(): string {
  const path = join(folder, 'cut-off');
  cpSync(file, path);
  truncateSync(path, Math.trunc(statSync(file).size / 2));
  return path;
}

/** Another letter in the middle of what is packed, packed again. */
function turned(): string {
  const path = join(folder, 'turned');
  const bytes = gunzipSync(readFileSync(file));
  const at = Math.trunc(bytes.length / 2);
  bytes[at] = (bytes[at] as number) ^ 1;
  writeFileSync(path, gzipSync(bytes));
  return path;
}

function newer(): string {
  const path = join(folder, 'newer');
  mkdirSync(folder, { recursive: true });
  const bytes = gunzipSync(readFileSync(file));
  const text = bytes.toString('latin1').replace('"version":1', '"version":9');
  writeFileSync(path, gzipSync(Buffer.from(text, 'latin1')));
  return path;
}
