import { type Edit, type Job, newJob, setParts } from '@inventario/core';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { QueryClient } from '@tanstack/react-query';
import { Kept, Server, Stream } from '../test-support/one-job-server.js';
import { JobSession } from './job-session.js';
import type { PendingLog } from './pending-log.js';

const NOTHING = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
const room = (name: string) => ({ id: 'r1', name, floor: 0, order: 1 });

let server: Server;
let kept: Kept;
let sessions: JobSession[];

beforeEach(() => {
  jest.useFakeTimers();
  localStorage.clear();
  server = new Server({ ...newJob('j', 'Job', 'us', '2023', NOTHING), rooms: [room('Hall')] });
  kept = new Kept();
  sessions = [];
  globalThis.fetch = server.fetch as typeof fetch;
  globalThis.EventSource = Object.assign(Stream, { CLOSED: 2 }) as unknown as typeof EventSource;
});
afterEach(() => {
  for (const session of sessions) session.close();
  jest.useRealTimers();
});

async function opened(device = 'd1'): Promise<JobSession> {
  const session = await JobSession.open('j', kept as unknown as PendingLog, device, new QueryClient());
  session.start();
  sessions.push(session);
  await pass(0);
  return session;
}
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
const named = (session: JobSession) => session.state().job.rooms[0]?.name;
const rename = (session: JobSession, name: string, mergeKey?: string) =>
  session.apply(setParts('room', 'r1', session.state().job.rooms[0] as Job['rooms'][number], { name }), `Call it ${name}`, mergeKey);
const note = (session: JobSession, name: string) =>
  session.apply(setParts('job', 'j', session.state().job, { address: name }), `At ${name}`);

test('an edit shows at once, is kept, and is gone from the log when the server has it', async () => {
  const session = await opened();
  rename(session, 'Porch');
  expect([named(session), session.state().pending, kept.stored.size]).toEqual(['Porch', 1, 1]);
  await pass(500);
  expect([named(session), session.state().pending, kept.stored.size]).toEqual(['Porch', 0, 0]);
  expect(server.job.rooms[0]?.name).toBe('Porch');
  expect(kept.base_?.sequence).toBe(1);
});

test('keystrokes on one field become one edit, and one undo takes all of them back', async () => {
  const session = await opened();
  for (const name of ['P', 'Po', 'Por', 'Porch']) rename(session, name, 'r1/name');
  expect(session.state().pending).toBe(1);
  session.undo();
  expect(named(session)).toBe('Hall');
  await pass(3000);
  expect(server.job.rooms[0]?.name).toBe('Hall');
  expect(session.state().undoLabel).toBeNull();
});

test('undo is an edit of its own that the server sees; undo of the undo is not offered', async () => {
  const session = await opened();
  rename(session, 'Porch');
  await pass(500);
  note(session, 'Quay');
  await pass(500);
  expect(session.state().undoLabel).toBe('At Quay');
  session.undo();
  await pass(500);
  expect(session.state().undoLabel).toBe('Call it Porch');
  session.undo();
  await pass(500);
  expect([server.job.rooms[0]?.name, server.job.address, session.state().undoLabel]).toEqual(['Hall', undefined, null]);
  expect(server.taken).toHaveLength(4);
});

test('without the server edits wait in order, outlive the page, and are sent once it is back', async () => {
  let session = await opened();
  server.away = true;
  rename(session, 'Porch');
  await pass(500);
  note(session, 'Quay');
  await pass(500);
  expect(session.state()).toMatchObject({ pending: 2, reached: false });
  session.close();
  session = await opened();
  expect([named(session), session.state().job.address, session.state().reached]).toEqual(['Porch', 'Quay', false]);
  server.away = false;
  await pass(3000);
  expect(session.state()).toMatchObject({ pending: 0, reached: true });
  expect(server.taken.map((edit) => edit.label)).toEqual(['Call it Porch', 'At Quay']);
});

test('a device that never saw the job and cannot reach the server says so', async () => {
  server.away = true;
  await expect(JobSession.open('j', kept as unknown as PendingLog, 'd1', new QueryClient())).rejects.toThrow('The server is not reached.');
});

test('an answer lost on the way is asked for again, and the edit is not made twice', async () => {
  const session = await opened();
  const real = server.fetch;
  let lost = false;
  globalThis.fetch = (async (address: unknown, init?: RequestInit) => {
    const response = await real(address, init);
    if (String(address).endsWith('/edits') && !lost) {
      lost = true;
      throw new TypeError('the line went dead after sending');
    }
    return response;
  }) as typeof fetch;
  rename(session, 'Porch');
  await pass(4000);
  expect([server.taken.length, session.state().pending, named(session)]).toEqual([1, 0, 'Porch']);
});

test('what another device changed shows up; a gap in the stream is read anew', async () => {
  const session = await opened();
  const theirs = (name: string, n: number): Edit => ({
    id: `theirs-${n}`,
    deviceId: 'd2',
    n,
    at: '2026-05-04T09:00:00Z',
    label: name,
    parts: setParts('room', 'r1', server.job.rooms[0] as Job['rooms'][number], { name }).map((part) => ({
      ...part,
      base: server.sequence,
    })),
  });
  Stream.last.say('change', server.take(theirs('Porch', 1)));
  await pass(0);
  expect(named(session)).toBe('Porch');
  server.take(theirs('Lobby', 2));
  Stream.last.say('change', server.take(theirs('Vestibule', 3)));
  await pass(0);
  expect([named(session), kept.base_?.sequence]).toEqual(['Vestibule', 3]);
});

test('our own edit may come over the stream before its answer: it is ours once', async () => {
  const session = await opened();
  rename(session, 'Porch');
  const [edit] = await kept.edits();
  Stream.last.say('change', server.take(edit as Edit));
  await pass(1000);
  expect([session.state().pending, named(session), server.taken.length]).toEqual([0, 'Porch', 1]);
});

test.each(['mine', 'theirs'] as const)('a clash is a question; with %s it is settled', async (choice) => {
  const session = await opened();
  rename(session, 'Porch');
  const [edit] = await kept.edits();
  server.nextAnswer = () => {
    server.job = { ...server.job, rooms: [room('Lobby')] };
    const conflicts = [{ part: 0, kind: 'room', id: 'r1', field: 'name', theirs: 'Lobby', yours: 'Porch' }];
    return { status: 200, body: { results: [{ editId: edit?.id, outcome: 'conflict', conflicts }], sequence: server.sequence } };
  };
  await pass(500);
  expect(session.state()).toMatchObject({ pending: 0, questions: [{ edit: { id: edit?.id } }] });
  session.settle(edit?.id as string, choice);
  expect(session.state().questions).toEqual([]);
  expect(session.state().pending).toBe(choice === 'mine' ? 1 : 0);
});

test('a batch the server will never take becomes questions, and nothing of it is lost silently', async () => {
  const session = await opened();
  server.nextAnswer = () => ({
    status: 422,
    body: { error: { code: 'bad-request', message: 'No.', problems: [{ path: '/edits/0', message: 'is odd' }] } },
  });
  rename(session, 'Porch');
  await pass(500);
  expect(session.state().questions[0]?.answer).toMatchObject({ outcome: 'refused', problems: [{ path: '/edits/0' }, { message: 'No.' }] });
});

test('a fault of the server is waited out', async () => {
  const session = await opened();
  server.nextAnswer = () => ({ status: 503, body: { error: { code: 'database-unreachable', message: 'The database does not answer.' } } });
  rename(session, 'Porch');
  await pass(500);
  expect(session.state()).toMatchObject({ pending: 1, reached: false, questions: [] });
  await pass(3000);
  expect(session.state()).toMatchObject({ pending: 0, reached: true });
});

test('what the job as shown does not allow is told, and changes nothing', async () => {
  const session = await opened();
  const part = { kind: 'room' as const, id: 'gone', base: null, set: { name: { was: 'Attic', now: 'Loft' } } };
  expect(session.apply([part], 'A room that is gone')).not.toBeNull();
  expect(session.state()).toMatchObject({ pending: 0, undoLabel: null });
});
