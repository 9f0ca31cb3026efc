import { type Edit, type Job, newJob, putPart, removePart, setParts } from '@inventario/core';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { device, Server, Stream, toolsOf } from '../../test-support/one-job-server.js';
import { ApiError, UnreachableError } from '../api.js';
import { JobSession } from './job-session.js';

const NOTHING = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
const room = (name: string) => ({ id: 'r1', name, floor: 0, order: 1 });

let server: Server;
let phone: ReturnType<typeof device>;
let sessions: JobSession[] = [];

beforeEach(() => {
  // The store's turns are turns of the same clock.
  globalThis.setImmediate = ((work: () => void) => setTimeout(work, 0)) as unknown as typeof setImmediate;
  jest.useFakeTimers({ doNotFake: ['setImmediate'] });
  server = new Server({ ...newJob('j', 'Job', 'us', '2023', NOTHING), rooms: [room('Hall')] });
  phone = device();
  sessions = [];
});
afterEach(() => {
  for (const session of sessions) session.close();
  jest.useRealTimers();
});

/** Lets time pass until a promise is settled: what the store does takes turns of the clock. */
async function during<Result>(work: Promise<Result>): Promise<Result> {
  let done = false;
  const end = () => {
    done = true;
  };
  work.then(end, end);
  while (!done) await jest.advanceTimersByTimeAsync(1);
  return work;
}
async function opened(tools = toolsOf(server, phone)): Promise<JobSession> {
  const session = await during(JobSession.open('j', tools));
  session.start();
  sessions.push(session);
  await pass(20);
  return session;
}
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);
const kept = () => during(phone.kept.job('j'));
const named = (session: JobSession) => session.state().job.rooms[0]?.name;
const rename = (session: JobSession, name: string, mergeKey?: string) =>
  session.apply(
    setParts('room', 'r1', session.state().job.rooms[0] as Job['rooms'][number], { name }),
    `Call it ${name}`,
    mergeKey,
  );
const note = (session: JobSession, name: string) =>
  session.apply(setParts('job', 'j', session.state().job, { address: name }), `At ${name}`);
let serial = 0;
const theirs = (parts: Edit['parts']): Edit => {
  serial += 1;
  const based = parts.map((part) => ({ ...part, base: server.sequence }));
  return {
    id: `theirs-${serial}`,
    deviceId: 'd2',
    n: serial,
    at: '2026-05-04T09:00:00Z',
    label: 'theirs',
    parts: based,
  };
};
const theyCallIt = (name: string) =>
  theirs(setParts('room', 'r1', server.job.rooms[0] as Job['rooms'][number], { name }));
const conflictOn = (edits: Edit[], name: string) => ({
  status: 200,
  body: {
    results: edits.map((edit, index) =>
      index === 0
        ? {
            editId: edit.id,
            outcome: 'conflict',
            conflicts: [
              {
                part: 0,
                kind: 'room',
                id: 'r1',
                field: 'name',
                was: 'Hall',
                theirs: name,
                yours: edit.parts[0]?.set?.name?.now,
              },
            ],
          }
        : { editId: edit.id, outcome: 'applied', sequence: server.take(edit).sequence },
    ),
    sequence: server.sequence,
  },
});

test('an edit shows at once, is kept, and is gone from the device when the server has it', async () => {
  const session = await opened();
  rename(session, 'Porch');
  expect([named(session), session.state().pending]).toEqual(['Porch', 1]);
  await during(session.settled());
  expect((await kept()).pending).toHaveLength(1);
  await pass(500);
  expect([named(session), session.state().pending, (await kept()).pending]).toEqual(['Porch', 0, []]);
  expect(server.job.rooms[0]?.name).toBe('Porch');
  expect((await kept()).base).toMatchObject({ sequence: 1, generation: 'g1' });
});

test('keystrokes on one field become one edit, and one undo takes all of them back', async () => {
  const session = await opened();
  for (const name of ['P', 'Po', 'Por', 'Porch']) rename(session, name, 'r1/name');
  expect(session.state().pending).toBe(1);
  await during(session.settled());
  expect((await kept()).pending.map((row) => row.edit.parts[0]?.set?.name)).toEqual([
    { was: 'Hall', now: 'Porch' },
  ]);
  session.undo();
  expect(named(session)).toBe('Hall');
  await pass(3000);
  expect(server.job.rooms[0]?.name).toBe('Hall');
  expect(session.state()).toMatchObject({ undoLabel: null, redoLabel: 'Call it Porch' });
});

test('what the server confirms is here already: the job stays the very object it was', async () => {
  const session = await opened();
  note(session, 'Mole 3');
  rename(session, 'Long hall');
  const { job } = session.state();
  await pass(5_000);
  expect(session.state().pending).toBe(0);
  expect(server.job.rooms[0]?.name).toBe('Long hall');
  expect(session.state().job).toBe(job);
});

describe('undo and redo', () => {
  test('are edits of their own that the server sees', async () => {
    const session = await opened();
    rename(session, 'Porch');
    await pass(500);
    note(session, 'Quay');
    await pass(500);
    expect(session.state().undoLabel).toBe('At Quay');
    session.undo();
    session.undo();
    await pass(500);
    expect([server.job.rooms[0]?.name, server.job.address, session.state().undoLabel]).toEqual([
      'Hall',
      undefined,
      null,
    ]);
    session.redo();
    await pass(500);
    expect([server.job.rooms[0]?.name, server.job.address, session.state().redoLabel]).toEqual([
      'Porch',
      undefined,
      'At Quay',
    ]);
    session.undo();
    note(session, 'Elsewhere');
    expect(session.state().redoLabel).toBeNull();
  });

  test('survive a reload', async () => {
    let session = await opened();
    rename(session, 'Porch');
    note(session, 'Quay');
    await pass(500);
    session.undo();
    await pass(500);
    session.close();
    session = await opened();
    expect(session.state()).toMatchObject({ undoLabel: 'Call it Porch', redoLabel: 'At Quay' });
    session.undo();
    session.redo();
    session.redo();
    await pass(500);
    expect([server.job.rooms[0]?.name, server.job.address]).toEqual(['Porch', 'Quay']);
  });

  test('leave what others changed since, and name it', async () => {
    const session = await opened();
    rename(session, 'Porch');
    await pass(500);
    Stream.last.say('change', server.take(theyCallIt('Lobby')));
    await pass(20);
    expect(session.undo()).toMatchObject([{ kind: 'room', field: 'name', theirs: 'Lobby' }]);
    expect([named(session), session.state().undoLabel]).toEqual(['Lobby', null]);
  });
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
  expect([named(session), session.state().job.address, session.state().reached]).toEqual([
    'Porch',
    'Quay',
    false,
  ]);
  server.away = false;
  await pass(10_000);
  expect(session.state()).toMatchObject({ pending: 0, reached: true });
  expect(server.taken.map((edit) => edit.label)).toEqual(['Call it Porch', 'At Quay']);
});

test.each<[string, Error]>([
  ['no network', new UnreachableError('The server is not reached.')],
  ['a database that is away', new ApiError(503, 'database-unreachable', 'The database does not answer.')],
  ['too many requests', new ApiError(429, 'too-many-requests', 'Wait.')],
  ['a fault', new ApiError(500, 'internal', 'A fault of the program.')],
])(
  'with %s a job that was opened here before opens from what is kept; one never seen says what is wrong',
  async (_, trouble) => {
    const tools = () => ({
      ...toolsOf(server, phone),
      api: { ...toolsOf(server, phone).api, job: () => Promise.reject(trouble) },
    });
    await expect(during(JobSession.open('j', tools()))).rejects.toThrow(trouble.message);
    (await opened()).close();
    const session = await during(JobSession.open('j', tools()));
    expect([named(session), session.state().reached]).toEqual(['Hall', false]);
  },
);

test('a job that cannot be opened leaves no line to other tabs open', async () => {
  const tools = toolsOf(server, phone);
  const close = jest.spyOn(tools.line, 'close');
  server.gone = true;
  await expect(during(JobSession.open('j', tools))).rejects.toThrow('No job has this id.');
  expect(close).toHaveBeenCalledTimes(1);
});

test('the base of an edit is what had come from the server when it was made, whatever became of the one before it', async () => {
  const session = await opened();
  server.away = true;
  rename(session, 'Porch');
  await pass(400);
  server.away = false;
  for (const each of [1, 2, 3])
    server.take(theirs(setParts('job', 'j', server.job, { address: `Quay ${each}` })));
  rename(session, 'Big porch');
  // Each goes alone, so that the second is sent after the first was answered.
  server.nextAnswers.push((edits) => {
    const results = edits
      .slice(0, 1)
      .map((edit) => ({ editId: edit.id, outcome: 'applied', sequence: server.take(edit).sequence }));
    return { status: 200, body: { results, sequence: server.sequence } };
  });
  await pass(5000);
  expect(server.taken.slice(-2).map((edit) => [edit.label, edit.parts[0]?.base])).toEqual([
    ['Call it Porch', 0],
    ['Call it Big porch', 0],
  ]);
  expect(session.state().pending).toBe(0);
});

test('an answer lost on the way is asked for again, and the edit is not made twice', async () => {
  const tools = toolsOf(server, phone);
  let lost = false;
  const session = await opened({
    ...tools,
    api: {
      ...tools.api,
      sendEdits: async (id, edits) => {
        const answer = await tools.api.sendEdits(id, edits);
        if (lost) return answer;
        lost = true;
        throw new TypeError('the line went dead after sending');
      },
    },
  });
  rename(session, 'Porch');
  await pass(10_000);
  expect([server.taken.length, session.state().pending, named(session)]).toEqual([1, 0, 'Porch']);
});

test('what is answered and still stands over the word of another hides it: an edit made then is as old as that', async () => {
  const tools = toolsOf(server, phone);
  let line: 'breaks after sending' | 'down' | 'good' = 'breaks after sending';
  let whole: Promise<unknown> = Promise.resolve();
  const session = await opened({
    ...tools,
    api: {
      ...tools.api,
      job: async (id, known) => {
        await whole;
        return tools.api.job(id, known);
      },
      sendEdits: async (id, edits) => {
        if (line === 'down') throw new UnreachableError('The server is not reached.');
        const answer = await tools.api.sendEdits(id, edits);
        if (line === 'good') return answer;
        line = 'down';
        throw new UnreachableError('The server is not reached.');
      },
    },
  });
  rename(session, 'Porch');
  await pass(500);
  server.take(theyCallIt('Lobby'));
  // The whole job has Porch behind it and says Lobby; that Porch came through is not known here yet.
  Stream.last.say('generation', { generation: 'g1', sequence: 0 });
  await pass(100);
  expect([named(session), (await kept()).base?.sequence]).toEqual(['Porch', 2]);
  whole = new Promise((done) => setTimeout(done, 20_000));
  line = 'good';
  globalThis.dispatchEvent(new Event('online'));
  await pass(500);
  expect([named(session), (await kept()).pending]).toMatchObject(['Porch', [{ answered: 1 }]]);
  rename(session, 'Big porch');
  await pass(30_000);
  expect(server.taken.at(-1)).toMatchObject({ label: 'Call it Big porch', parts: [{ base: 0 }] });
});

test('a room taken out while my own word for it hides theirs is as old as my word, and so is asked about', async () => {
  const session = await opened();
  server.away = true;
  rename(session, 'Porch');
  await pass(400);
  Stream.last.say('change', server.take(theyCallIt('Lobby')));
  await pass(400);
  expect([named(session), (await kept()).base?.sequence]).toEqual(['Porch', 1]);
  session.apply([removePart('room', 'r1')], 'Take it out');
  await during(session.settled());
  const sent = (await kept()).pending.map(({ edit }) => [edit.label, edit.parts[0]?.base]);
  expect(sent).toEqual([
    ['Call it Porch', 0],
    ['Take it out', 0],
  ]);
});

test('what another device changed shows up; a gap in the stream is read anew', async () => {
  const session = await opened();
  Stream.last.say('change', server.take(theyCallIt('Porch')));
  await pass(20);
  expect(named(session)).toBe('Porch');
  server.take(theyCallIt('Lobby'));
  Stream.last.say('change', server.take(theyCallIt('Vestibule')));
  await pass(20);
  expect([named(session), (await kept()).base?.sequence]).toEqual(['Vestibule', 3]);
});

test('a whole job that was asked for earlier and comes late does not take the screen back', async () => {
  const tools = toolsOf(server, phone);
  let late: Promise<unknown> = Promise.resolve();
  const session = await opened({
    ...tools,
    api: {
      ...tools.api,
      job: async (id, known) => {
        const given = await tools.api.job(id, known);
        await late;
        return given;
      },
    },
  });
  late = new Promise((done) => setTimeout(done, 1500));
  Stream.last.say('generation', { generation: 'g1', sequence: 0 });
  rename(session, 'Porch');
  await pass(1000);
  expect([session.state().pending, named(session)]).toEqual([0, 'Porch']);
  await pass(2000);
  expect([named(session), (await kept()).base?.sequence]).toEqual(['Porch', 1]);
});

test('a server put back from a backup is followed back, and what came after asks', async () => {
  const session = await opened();
  rename(session, 'Porch');
  await pass(1000);
  Object.assign(server, { job: { ...server.job, rooms: [room('Hall')] }, sequence: 0 });
  Stream.last.say('generation', { generation: 'g1', sequence: 0 });
  await pass(1000);
  expect(named(session)).toBe('Hall');
});

test('our own edit may come over the stream before its answer: it is ours once', async () => {
  const session = await opened();
  rename(session, 'Porch');
  await during(session.settled());
  const [row] = (await kept()).pending;
  Stream.last.say('change', server.take(row?.edit as Edit));
  await pass(1000);
  expect([session.state().pending, named(session), server.taken.length]).toEqual([0, 'Porch', 1]);
});

describe('a question', () => {
  async function asked() {
    const session = await opened();
    rename(session, 'Porch');
    server.take(theyCallIt('Lobby'));
    server.nextAnswers.push((edits) => conflictOn(edits, 'Lobby'));
    await pass(500);
    await pass(500);
    return session;
  }

  test('survives the page, and is not all sent', async () => {
    (await asked()).close();
    const session = await opened();
    expect(session.state()).toMatchObject({
      pending: 0,
      questions: [{ edit: { label: 'Call it Porch' }, answer: { outcome: 'conflict' } }],
    });
    expect(named(session)).toBe('Lobby');
  });

  test('answered with mine puts mine on top of what is there, as an edit that can be undone', async () => {
    const session = await asked();
    const [question] = session.state().questions;
    session.settle(question?.edit.id as string, 'mine');
    expect([named(session), session.state().questions]).toEqual(['Porch', []]);
    await pass(1000);
    expect(server.job.rooms[0]?.name).toBe('Porch');
    expect((await kept()).questions).toEqual([]);
    session.undo();
    expect(named(session)).toBe('Hall');
  });

  test('answered with mine as I write it now', async () => {
    const session = await asked();
    const [question] = session.state().questions;
    session.settle(question?.edit.id as string, 'mine', [
      { kind: 'room', id: 'r1', base: 0, set: { name: { was: 'Hall', now: 'Porch and lobby' } } },
    ]);
    await pass(1000);
    expect(server.job.rooms[0]?.name).toBe('Porch and lobby');
  });

  test('answered with what no room can be called, it says so, and the question stays', async () => {
    const session = await asked();
    const [question] = session.state().questions;
    const hindrance = session.settle(question?.edit.id as string, 'mine', [
      { kind: 'room', id: 'r1', base: 0, set: { name: { was: 'Hall', now: null } } },
    ]);
    expect(hindrance?.problems).toMatchObject([
      { kind: 'room', id: 'r1', field: 'name', message: expect.stringContaining('is missing') },
    ]);
    expect(session.state()).toMatchObject({ pending: 0, questions: [question] });
  });

  test('answered with theirs drops mine, and undo brings it through after all', async () => {
    const session = await asked();
    const [question] = session.state().questions;
    session.settle(question?.edit.id as string, 'theirs');
    expect(session.state()).toMatchObject({ pending: 0, questions: [], undoLabel: 'Dropped: Call it Porch' });
    session.undo();
    await pass(1000);
    expect(server.job.rooms[0]?.name).toBe('Porch');
  });

  test('holds back later edits of the same thing only; they go when it is answered', async () => {
    const session = await asked();
    rename(session, 'Big porch');
    note(session, 'Quay');
    await pass(1000);
    expect([server.job.address, server.job.rooms[0]?.name, session.state().pending]).toEqual([
      'Quay',
      'Lobby',
      1,
    ]);
    expect(named(session)).toBe('Big porch');
    session.settle(session.state().questions[0]?.edit.id as string, 'mine');
    await pass(1000);
    expect(server.taken.slice(-2).map((edit) => edit.parts[0]?.set?.name?.now)).toEqual([
      'Porch',
      'Big porch',
    ]);
    expect([named(session), session.state().pending]).toEqual(['Big porch', 0]);
  });

  test('holds back what was made on top of what it holds back, in one batch with it or after, so that edits keep their order', async () => {
    const session = await opened();
    server.away = true;
    rename(session, 'Porch');
    const both = [
      ...setParts('room', 'r1', session.state().job.rooms[0] as Job['rooms'][number], { order: 7 }),
      ...setParts('job', 'j', session.state().job, { address: 'Quay' }),
    ];
    session.apply(both, 'Move it');
    note(session, 'Pier');
    await pass(1000);
    server.away = false;
    let batch: string[] = [];
    server.nextAnswers.push((edits) => {
      batch = edits.map((edit) => edit.label);
      const results = edits.map((edit) => ({
        editId: edit.id,
        outcome: 'conflict',
        conflicts: [{ part: 0, kind: 'room', id: 'r1' }],
      }));
      return { status: 200, body: { results, sequence: server.sequence } };
    });
    await pass(10_000);
    expect(batch).toEqual(['Call it Porch', 'Move it', 'At Pier']);
    session.apply(setParts('job', 'j', session.state().job, { name: 'A name' }), 'Name the job');
    await pass(1000);
    // One question, and the three after it wait: the last two only because they are about what the second is
    // about.
    expect([session.state().questions.map(({ edit }) => edit.label), session.state().pending]).toEqual([
      ['Call it Porch'],
      3,
    ]);
    expect((await kept()).pending.map(({ heldBy }) => heldBy)).toEqual(
      Array(3).fill(session.state().questions[0]?.edit.id),
    );
    session.settle(session.state().questions[0]?.edit.id as string, 'mine');
    await pass(2000);
    expect(server.taken.map((edit) => edit.label)).toEqual([
      'Call it Porch',
      'Move it',
      'At Pier',
      'Name the job',
    ]);
    expect([server.job.address, server.job.rooms[0]]).toMatchObject(['Pier', { name: 'Porch', order: 7 }]);
  });

  test('that is answered with theirs leaves a later edit as old as the one that hid theirs when it was made', async () => {
    const tools = toolsOf(server, phone);
    let sends: (edits: Edit[]) => unknown = () =>
      Promise.reject(new UnreachableError('The server is not reached.'));
    const session = await opened({
      ...tools,
      api: { ...tools.api, sendEdits: async (_, edits) => sends([...edits]) as never },
    });
    rename(session, 'Porch');
    await pass(400);
    Stream.last.say('change', server.take(theyCallIt('Lobby')));
    rename(session, 'Big porch');
    await pass(400);
    expect(named(session)).toBe('Big porch');
    const sent: Edit[] = [];
    sends = async (edits) => {
      sent.push(...edits.slice(0, 1));
      return conflictOn(edits.slice(0, 1), 'Lobby').body;
    };
    await pass(10_000);
    session.settle(session.state().questions[0]?.edit.id as string, 'theirs');
    await pass(10_000);
    // At that base the server sees that others changed the name since, and asks instead of writing over it.
    expect(sent.map((edit) => [edit.label, edit.parts[0]?.base])).toEqual([
      ['Call it Porch', 0],
      ['Call it Big porch', 0],
    ]);
    expect(session.state().questions).toHaveLength(1);
  });

  test('against a removal: mine brings the record back', async () => {
    const session = await opened();
    rename(session, 'Porch');
    server.take(theirs([removePart('room', 'r1')]));
    server.nextAnswers.push((edits) => ({
      status: 200,
      body: {
        results: [
          {
            editId: edits[0]?.id,
            outcome: 'conflict',
            conflicts: [{ part: 0, kind: 'room', id: 'r1', theirs: null }],
          },
        ],
        sequence: server.sequence,
      },
    }));
    Stream.last.say('change', { sequence: 1, at: '', edit: server.taken[0] });
    await pass(1000);
    expect(session.state().job.rooms).toEqual([]);
    session.settle(session.state().questions[0]?.edit.id as string, 'mine');
    await pass(1000);
    expect(server.job.rooms).toEqual([{ ...room('Porch') }]);
  });
});

describe('an edit the server cannot take', () => {
  const refusal = (status: number) => () => ({
    status,
    body: {
      error: { code: 'bad-request', message: 'No.', problems: [{ path: '/edits/0', message: 'is odd' }] },
    },
  });

  test.each([400, 413])(
    '(%d) becomes a question with its reason, and everything behind it goes on',
    async (status) => {
      const session = await opened();
      rename(session, 'Porch');
      note(session, 'Quay');
      server.nextAnswers.push(refusal(status), refusal(status));
      await pass(2000);
      expect(session.state()).toMatchObject({
        pending: 0,
        questions: [
          {
            edit: { label: 'Call it Porch' },
            answer: { outcome: 'refused', problems: [{ path: '/edits/0' }, { message: 'No.' }] },
          },
        ],
      });
      expect(server.job.address).toBe('Quay');
    },
  );

  test('with a fault of its own each time, while the server serves, becomes one after five', async () => {
    const session = await opened();
    rename(session, 'Porch');
    note(session, 'Quay');
    const fault = (edits: Edit[]) => ({
      status: edits.some((edit) => edit.label === 'Call it Porch') ? 500 : 200,
      body: edits.some((edit) => edit.label === 'Call it Porch')
        ? { error: { code: 'internal', message: 'A fault.' } }
        : {
            results: edits.map((edit) => ({
              editId: edit.id,
              outcome: 'applied',
              sequence: server.take(edit).sequence,
            })),
            sequence: 1,
          },
    });
    for (let turn = 0; turn < 12; turn++) server.nextAnswers.push(fault);
    await pass(200_000);
    expect(session.state()).toMatchObject({
      pending: 0,
      questions: [{ answer: { outcome: 'refused', problems: [{ message: 'A fault.' }] } }],
    });
    expect([server.job.address, server.job.rooms[0]?.name]).toEqual(['Quay', 'Hall']);
  });

  test('a database that is away for an hour makes no question of anything', async () => {
    const tools = toolsOf(server, phone);
    const session = await opened({
      ...tools,
      api: { ...tools.api, ready: () => Promise.reject(new Error('not ready')) },
    });
    for (let turn = 0; turn < 70; turn++)
      server.nextAnswers.push(() => ({
        status: 503,
        body: { error: { code: 'database-unreachable', message: 'Away.' } },
      }));
    rename(session, 'Porch');
    await pass(3_600_000);
    expect(session.state()).toMatchObject({ pending: 1, reached: false, questions: [] });
    expect(server.batches).toBeLessThan(70);
    server.nextAnswers.length = 0;
    await pass(61_000);
    expect(session.state()).toMatchObject({ pending: 0, reached: true });
  });
});

describe('two tabs of one browser', () => {
  test('share what is on its way, and send it once', async () => {
    const [left, right] = [await opened(), await opened()];
    rename(left, 'Porch');
    await pass(50);
    expect(named(right)).toBe('Porch');
    note(right, 'Quay');
    await pass(2000);
    expect(server.taken.map((edit) => edit.label)).toEqual(['Call it Porch', 'At Quay']);
    expect([left.state().pending, right.state().pending, left.state().job.address, named(right)]).toEqual([
      0,
      0,
      'Quay',
      'Porch',
    ]);
    expect(new Set(server.taken.map((edit) => edit.tab)).size).toBe(2);
  });

  test('name what they were made on of each other, so that a tab takes back what another did without being asked', async () => {
    const [left, right] = [await opened(), await opened()];
    server.away = true;
    left.apply([putPart('room', 'r2', { ...room('Loft'), id: 'r2' })], 'Add the loft');
    note(left, 'Quay');
    await pass(50);
    right.apply([removePart('room', 'r2')], 'No loft');
    rename(right, 'Porch');
    await pass(50);
    server.away = false;
    await pass(10_000);
    const [add, , remove, named] = server.taken;
    expect([add, remove].map((edit) => [edit?.label, edit?.on])).toEqual([
      ['Add the loft', undefined],
      ['No loft', [add?.id]],
    ]);
    expect([named?.label, named?.on]).toEqual(['Call it Porch', undefined]);
  });

  test('a question asked in one is seen and answered in the other', async () => {
    const [left, right] = [await opened(), await opened()];
    rename(left, 'Porch');
    server.take(theyCallIt('Lobby'));
    server.nextAnswers.push((edits) => conflictOn(edits, 'Lobby'));
    await pass(1000);
    expect(right.state().questions).toHaveLength(1);
    right.settle(right.state().questions[0]?.edit.id as string, 'theirs');
    await pass(1000);
    expect([left.state().questions, left.state().undoLabel]).toEqual([[], 'Dropped: Call it Porch']);
  });
});

describe('generations', () => {
  test('an import over the job shows the new one, and an edit of the old one is asked about, not swallowed', async () => {
    const session = await opened();
    server.away = true;
    rename(session, 'Porch');
    await pass(1000);
    server.away = false;
    Object.assign(server, {
      job: { ...server.job, name: 'Another', rooms: [room('Lobby')] },
      generation: 'g2',
      sequence: 0,
    });
    server.nextAnswers.push((edits) => {
      expect(edits[0]?.generation).toBe('g1');
      return conflictOn(edits, 'Lobby');
    });
    Stream.last.say('generation', { generation: 'g2', sequence: 0 });
    await pass(70_000);
    expect(session.state()).toMatchObject({ pending: 0, questions: [{ edit: { label: 'Call it Porch' } }] });
    expect([session.state().job.name, named(session)]).toEqual(['Another', 'Lobby']);
  });

  test('a job removed elsewhere while edits wait can still be opened, with them in it', async () => {
    let session = await opened();
    server.away = true;
    rename(session, 'Porch');
    await pass(1000);
    session.close();
    Object.assign(server, { away: false, gone: true });
    session = await opened();
    expect(session.state()).toMatchObject({ removed: true, pending: 1 });
    expect(named(session)).toBe('Porch');
    await during(session.forget());
    await expect(during(JobSession.open('j', toolsOf(server, phone)))).rejects.toThrow('No job has this id.');
  });
});

test('what the device cannot keep is said at once, still sent, and kept as soon as it can', async () => {
  const session = await opened();
  server.away = true;
  const write = phone.kept.write.bind(phone.kept);
  phone.kept.write = () => Promise.reject(new DOMException('no room', 'QuotaExceededError'));
  rename(session, 'Porch');
  await pass(50);
  expect(session.state()).toMatchObject({ unkept: 1, pending: 1 });
  expect(named(session)).toBe('Porch');
  phone.kept.write = write;
  note(session, 'Quay');
  await pass(50);
  expect([session.state().unkept, (await kept()).pending.length]).toEqual([0, 2]);
  phone.kept.write = () => Promise.reject(new DOMException('no room', 'QuotaExceededError'));
  server.away = false;
  await pass(10_000);
  expect([server.job.rooms[0]?.name, server.job.address]).toEqual(['Porch', 'Quay']);
});

test('a job made here without a network is brought to the server with what was recorded in it', async () => {
  server.away = true;
  const job = { ...newJob('j', 'Made here', 'us', '2023', NOTHING), rooms: [room('Hall')] };
  await during(phone.kept.write('j', { base: { job, sequence: 0, generation: null } }));
  const session = await opened();
  rename(session, 'Porch');
  await pass(1000);
  expect(session.state()).toMatchObject({ made: true, pending: 1 });
  server.away = false;
  await pass(70_000);
  expect(session.state()).toMatchObject({ made: false, pending: 0 });
  expect([server.job.name, server.job.rooms[0]?.name]).toEqual(['Made here', 'Porch']);
});

test('one the server does not take stays here and is brought again now and then, not in a rush', async () => {
  const job = { ...newJob('j', 'Made here', 'us', '2023', NOTHING), rooms: [room('Hall')] };
  await during(phone.kept.write('j', { base: { job, sequence: 0, generation: null } }));
  const tools = toolsOf(server, phone);
  let tries = 0;
  const takeIn = () => {
    tries += 1;
    return Promise.reject(new ApiError(422, 'unusable-job', 'The job file has errors.'));
  };
  const session = await opened({ ...tools, api: { ...tools.api, takeIn } });
  rename(session, 'Porch');
  await pass(600_000);
  expect(session.state()).toMatchObject({ made: true, pending: 1, questions: [] });
  expect(tries).toBeGreaterThan(3);
  expect(tries).toBeLessThan(25);
});

test('what the job as shown does not allow is told, and changes nothing', async () => {
  const session = await opened();
  const part = {
    kind: 'room' as const,
    id: 'gone',
    base: null,
    set: { name: { was: 'Attic', now: 'Loft' } },
  };
  expect(session.apply([part], 'A room that is gone')).not.toBeNull();
  expect(session.state()).toMatchObject({ pending: 0, undoLabel: null });
});

test('a record put over one that is there is sent field by field', async () => {
  const session = await opened();
  session.apply([putPart('room', 'r1', { ...room('Porch'), kind: 'hall' })], 'Put it');
  await pass(1000);
  expect(server.taken[0]?.parts[0]).toMatchObject({
    set: { name: { was: 'Hall', now: 'Porch' }, kind: { was: null, now: 'hall' } },
  });
});
