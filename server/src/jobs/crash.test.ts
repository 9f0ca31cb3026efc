import { type ChildProcess, spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { type Box, type Job, putPart } from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { JobStore } from '../storage/job-store.js';
import { type TestApp, testApp } from '../test-support/test-app.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
  await server.store.replace(quillonPoint(), new Date());
});
afterAll(() => server.close());

function launch(port: number): Promise<ChildProcess> {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', fileURLToPath(new URL('../main.ts', import.meta.url))],
    {
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        INVENTARIO_PORT: String(port),
        INVENTARIO_DATABASE: JSON.stringify(server.address),
      },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    },
  );
  return new Promise((ready, failed) => {
    child.once('message', () => ready(child));
    child.once('exit', (code) => failed(new Error(`the server ended with ${code}`)));
  });
}

test('a server killed in the middle of a save leaves the old box or the new one, whole, with its selection', async () => {
  const port = 20_000 + (process.pid % 20_000);
  const old = quillonPoint();
  const at = old.boxes.findIndex((box) => box.id === 'kitchen-door');
  const outcomes: string[] = [];
  for (let round = 0; round < 6; round++) {
    const before = (await new JobStore(server.sequelize).read('quillon-point')) as {
      job: Job;
      sequence: number;
    };
    const child = await launch(port);
    const mark = `round ${round}`;
    const next: Box = { ...(before.job.boxes[at] as Box), name: mark, notes: mark.repeat(2000) };
    const edit = {
      id: `crash-${round}`,
      deviceId: 'phone',
      n: round,
      at: '2026-05-04T09:12:00Z',
      label: mark,
      parts: [
        putPart('box', next.id, next),
        putPart('selection', 'kitchen-door/1', { ...(before.job.selections[0] as object), note: mark }),
        putPart('room', 'kitchen', {
          ...(before.job.rooms.find((room) => room.id === 'kitchen') as object),
          name: mark,
        }),
      ].map((part) => ({ ...part, base: before.sequence })),
    };
    const sent = fetch(`http://127.0.0.1:${port}/api/jobs/quillon-point/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ edits: [edit] }),
    }).catch(() => undefined);
    // Later and later into the save, from before it arrives to after it is done.
    await new Promise((done) => setTimeout(done, round * 12));
    child.kill('SIGKILL');
    await Promise.all([sent, new Promise((done) => child.once('exit', done))]);
    const after = (await new JobStore(server.sequelize).read('quillon-point')) as {
      job: Job;
      sequence: number;
    };
    const marks = [
      after.job.boxes[at]?.name,
      (after.job.selections[0] as { note?: string }).note,
      after.job.rooms.find((room) => room.id === 'kitchen')?.name,
    ].map((value) => value === mark);
    expect(new Set(marks).size).toBe(1);
    if (marks[0]) expect(after.job.boxes[at]?.notes).toBe(mark.repeat(2000));
    else expect(after.job).toEqual(before.job);
    expect(after.sequence).toBe(before.sequence + (marks[0] ? 1 : 0));
    outcomes.push(marks[0] ? 'new' : 'old');
  }
  // The first is killed before anything can have been written; otherwise the test would tell nothing.
  expect(outcomes).toContain('old');
});
