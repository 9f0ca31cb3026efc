import { type Box, type Edit, type EditPart, type EditsAnswer, type Job, setParts } from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { type TestApp, testApp } from '../test-support/test-app.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
});
afterAll(() => server.close());
beforeEach(async () => {
  await server.store.replace(quillonPoint(), new Date());
});

const read = async () => {
  const response = await server.app.inject('/api/jobs/quillon-point');
  const { headers } = response;
  return {
    job: response.json<Job>(),
    sequence: Number(headers['x-job-sequence']),
    generation: String(headers['x-job-generation']),
  };
};
const boxOf = (job: Job) => job.boxes.find((box) => box.id === 'kitchen-door') as Box;
let serial = 0;
const edit = (parts: EditPart[], more: Partial<Edit> = {}): Edit => {
  serial += 1;
  return {
    id: `t-${serial}`,
    deviceId: 'phone',
    n: serial,
    at: '2026-05-04T09:12:00Z',
    label: 'test',
    parts,
    ...more,
  };
};
const change = (base: { job: Job; sequence: number }, now: Partial<Box>, by: string) =>
  edit(
    setParts('box', 'kitchen-door', boxOf(base.job), now).map((part) => ({ ...part, base: base.sequence })),
    { deviceId: by },
  );
const send = async (...edits: Edit[]) =>
  (
    await server.app.inject({ method: 'POST', url: '/api/jobs/quillon-point/edits', payload: { edits } })
  ).json<EditsAnswer>().results;

describe('two people in one box', () => {
  test('on different conductors, readings and labels both get their way, and the second is told what became of its edit', async () => {
    const base = await read();
    const box = boxOf(base.job);
    const [first, second] = box.conductors as [Box['conductors'][number], Box['conductors'][number]];
    const reading = (id: string) => ({
      id,
      at: '2026-05-04T09:12:00Z',
      tool: 'indicator' as const,
      arrangement: 'in-place' as const,
      points: [first.id],
      value: 'quiet' as const,
    });
    await send(
      change(
        base,
        {
          conductors: box.conductors.map((one) => (one === first ? { ...one, marking: 'A' } : one)),
          readings: [...box.readings, reading('m-a')],
        },
        'phone',
      ),
    );
    const [answer] = await send(
      change(
        base,
        {
          conductors: box.conductors.map((one) => (one === second ? { ...one, marking: 'B' } : one)),
          readings: [...box.readings, reading('m-b')],
        },
        'laptop',
      ),
    );
    const after = boxOf((await read()).job);
    expect(
      after.conductors
        .filter((one) => one.marking === 'A' || one.marking === 'B')
        .map((one) => one.id)
        .sort(),
    ).toEqual([first.id, second.id].sort());
    expect(after.readings.map((one) => one.id)).toEqual(expect.arrayContaining(['m-a', 'm-b']));
    expect(answer?.outcome).toBe('applied');
    expect(answer?.edit?.parts[0]?.set?.conductors?.now).toEqual(after.conductors);
    const changes = (
      await server.app.inject(`/api/jobs/quillon-point/changes?since=${base.sequence}`)
    ).json();
    expect(changes[1].edit.parts[0].set.conductors.now).toEqual(after.conductors);
  });

  test('on the same field of one conductor are asked, with what it was, theirs and mine', async () => {
    const base = await read();
    const box = boxOf(base.job);
    const [first] = box.conductors as [Box['conductors'][number]];
    const marked = (marking: string) => ({
      conductors: box.conductors.map((one) => (one === first ? { ...one, marking } : one)),
    });
    await send(change(base, marked('A'), 'phone'));
    const [answer] = await send(change(base, marked('B'), 'laptop'));
    expect(answer).toMatchObject({
      outcome: 'conflict',
      conflicts: [
        { kind: 'box', field: 'conductors', path: [first.id, 'marking'], was: null, theirs: 'A', yours: 'B' },
      ],
    });
  });

  test('are asked when what both made does not hold together', async () => {
    const base = await read();
    const box = boxOf(base.job);
    const joint = box.joints.find(({ id }) =>
      box.conductors.some((one) => one.at?.joint === id),
    ) as Box['joints'][number];
    const members = box.conductors.filter((one) => one.at?.joint === joint.id).map((one) => one.id);
    // One takes the joint apart, the other puts one more into it.
    const apart = {
      joints: box.joints.filter((one) => one !== joint),
      conductors: box.conductors.map((one) =>
        members.includes(one.id) ? { ...one, at: { capped: true as const } } : one,
      ),
    };
    const outside = box.conductors.find(
      (one) => one.at && one.at.joint !== joint.id,
    ) as Box['conductors'][number];
    const more = {
      conductors: box.conductors.map((one) => (one === outside ? { ...one, at: { joint: joint.id } } : one)),
    };
    expect(await send(change(base, apart, 'phone'))).toMatchObject([{ outcome: 'applied' }]);
    const [answer] = await send(change(base, more, 'laptop'));
    expect(answer).toMatchObject({
      outcome: 'conflict',
      conflicts: [{ field: 'conductors' }],
      problems: [{ path: expect.stringContaining('/boxes/') }],
    });
    // And two who call two conductors of one joint different things.
    await server.store.replace(quillonPoint(), new Date());
    const again = await read();
    const [left, right] = members as [string, string];
    const cleared = {
      labels: boxOf(again.job).labels.filter((label) => !members.includes(label.conductorId)),
    };
    await send(change(again, cleared, 'phone'));
    const bare = await read();
    const label = (conductorId: string, role: 'line' | 'load') => ({
      labels: [...boxOf(bare.job).labels, { conductorId, role }],
    });
    expect(await send(change(bare, label(left, 'line'), 'phone'))).toMatchObject([{ outcome: 'applied' }]);
    const [clash] = await send(change(bare, label(right, 'load'), 'laptop'));
    expect(clash).toMatchObject({
      outcome: 'conflict',
      problems: [{ message: expect.stringContaining('one joint') }],
    });
  });

  test('an edit chained on one that was merged keeps what was merged into it', async () => {
    const base = await read();
    const box = boxOf(base.job);
    const [first, second] = box.conductors as [Box['conductors'][number], Box['conductors'][number]];
    const mark = (list: Box['conductors'], id: string, marking: string) =>
      list.map((one) => (one.id === id ? { ...one, marking } : one));
    await send(change(base, { conductors: mark(box.conductors, first.id, 'theirs') }, 'laptop'));
    const once = mark(box.conductors, second.id, 'one');
    const twice = mark(once, second.id, 'two');
    const set = (was: unknown, now: unknown): EditPart => ({
      kind: 'box',
      id: box.id,
      base: base.sequence,
      set: { conductors: { was, now } },
    });
    const results = await send(edit([set(box.conductors, once)]), edit([set(once, twice)]));
    expect(results.map((result) => result.outcome)).toEqual(['applied', 'applied']);
    expect(boxOf((await read()).job).conductors).toEqual(
      mark(mark(box.conductors, first.id, 'theirs'), second.id, 'two'),
    );
  });
});

test('whoever does not know how things stood is told what became of the edit, though nobody else changed them since its base', async () => {
  const base = await read();
  const box = boxOf(base.job);
  const [first, second] = box.conductors as [Box['conductors'][number], Box['conductors'][number]];
  const marked = (one: string, other: string) =>
    box.conductors.map((conductor) => ({
      ...conductor,
      marking: conductor === first ? one : conductor === second ? other : undefined,
    }));
  await send(change(base, { conductors: marked('theirs', 'theirs too') as Box['conductors'] }, 'laptop'));
  const part = { kind: 'box' as const, id: box.id, base: base.sequence + 1 };
  const [answer] = await send(
    edit([{ ...part, set: { conductors: { was: box.conductors, now: marked('mine', '') } } }]),
  );
  const after = boxOf((await read()).job).conductors;
  expect(answer).toMatchObject({
    outcome: 'applied',
    edit: { parts: [{ set: { conductors: { now: after } } }] },
  });
});

test('what was made on top of an edit that is asked about is asked about too, where it rests on what did not come to be', async () => {
  const base = await read();
  const rename = (room: string, was: string, now: string): EditPart => ({
    kind: 'room',
    id: room,
    base: base.sequence,
    set: { name: { was, now } },
  });
  const address = (was: string, now: string): EditPart => ({
    kind: 'job',
    id: 'quillon-point',
    base: base.sequence,
    set: { address: { was, now } },
  });
  await send(edit([rename('kitchen', 'Keeper’s kitchen', 'Theirs')], { deviceId: 'laptop' }));
  const results = await send(
    edit([rename('kitchen', 'Keeper’s kitchen', 'Mine'), address('Quillon Point', 'The light')]),
    edit([address('The light', 'The old light'), rename('radio-room', 'Radio room', 'Wireless room')]),
    edit([rename('radio-room', 'Wireless room', 'Mast room')]),
    edit([rename('boat-store', 'Boat store', 'Slip')]),
    edit([
      {
        kind: 'room',
        id: 'kitchen',
        base: base.sequence,
        set: { order: { was: base.job.rooms.find((room) => room.id === 'kitchen')?.order, now: 9 } },
      },
    ]),
  );
  expect(results.map((result) => result.outcome)).toEqual([
    'conflict',
    'conflict',
    'conflict',
    'applied',
    'applied',
  ]);
  const { job } = await read();
  expect(job).toMatchObject({
    address: 'Quillon Point',
    rooms: expect.arrayContaining([expect.objectContaining({ name: 'Radio room' })]),
  });
});

test('two windows of one device do not overwrite each other in silence', async () => {
  const base = await read();
  const rename = (now: string, tab: string, was = 'Keeper’s kitchen') =>
    edit([{ kind: 'room', id: 'kitchen', base: base.sequence, set: { name: { was, now } } }], { tab });
  expect(await send(rename('One', 'tab-a'))).toMatchObject([{ outcome: 'applied' }]);
  expect(await send(rename('Two', 'tab-b'))).toMatchObject([
    { outcome: 'conflict', conflicts: [{ theirs: 'One', yours: 'Two' }] },
  ]);
  // One that had the other's unsent edit in sight was made on its value.
  expect(await send(rename('Three', 'tab-b', 'One'))).toMatchObject([{ outcome: 'applied' }]);
});

test('a window takes out what another of the same device added, when it names it; a stranger names it in vain', async () => {
  const base = await read();
  const part = { kind: 'room' as const, id: 'loft', base: base.sequence };
  const add = edit([{ ...part, put: { id: 'loft', name: 'Loft', floor: 2, order: 9 } }], { tab: 'tab-a' });
  const remove = (more: Partial<Edit>) => edit([{ ...part, remove: true }], more);
  expect(await send(add)).toMatchObject([{ outcome: 'applied' }]);
  expect(await send(remove({ tab: 'tab-b' }))).toMatchObject([{ outcome: 'conflict' }]);
  expect(await send(remove({ tab: 'tab-b', on: [add.id], deviceId: 'laptop' }))).toMatchObject([
    { outcome: 'conflict' },
  ]);
  expect(await send(remove({ tab: 'tab-b', on: [add.id] }))).toMatchObject([{ outcome: 'applied' }]);
});

describe('a job has generations', () => {
  const rename = (base: number, generation: string) =>
    edit([{ kind: 'room', id: 'kitchen', base, set: { name: { was: 'Keeper’s kitchen', now: 'Galley' } } }], {
      generation,
    });

  test.each<[string, () => Promise<unknown>]>([
    [
      'import over it',
      () => server.app.inject({ method: 'POST', url: '/api/jobs?existing=replace', payload: quillonPoint() }),
    ],
    [
      'removal and return',
      async () => {
        await server.app.inject({ method: 'DELETE', url: '/api/jobs/quillon-point' });
        await server.app.inject({ method: 'POST', url: '/api/jobs/quillon-point/return' });
      },
    ],
    [
      'removal and taking in again',
      async () => {
        await server.app.inject({ method: 'DELETE', url: '/api/jobs/quillon-point' });
        await server.app.inject({ method: 'POST', url: '/api/jobs', payload: quillonPoint() });
      },
    ],
  ])('%s begins a new one, and an edit of the old one is asked about', async (_, happen) => {
    const before = await read();
    await happen();
    const after = await read();
    expect(after.generation).not.toBe(before.generation);
    expect(await send(rename(before.sequence, before.generation))).toMatchObject([
      {
        outcome: 'conflict',
        conflicts: [{ field: 'name', yours: 'Galley' }],
        problems: [{ path: '/generation' }],
      },
    ]);
    expect(await send(rename(after.sequence, after.generation))).toMatchObject([{ outcome: 'applied' }]);
  });

  test('a base beyond the last change is asked about', async () => {
    const { sequence } = await read();
    const [answer] = await send(edit([{ kind: 'room', id: 'kitchen', base: sequence + 7, remove: true }]));
    expect(answer).toMatchObject({ outcome: 'conflict', problems: [{ path: '/parts/0/base' }] });
  });

  test('an unchanged job is not sent again, and the tag is another with each change and generation', async () => {
    const first = await server.app.inject('/api/jobs/quillon-point');
    const tag = String(first.headers.etag);
    const ask = () =>
      server.app.inject({
        url: '/api/jobs/quillon-point',
        headers: { 'if-none-match': `"other", W/${tag}` },
      });
    expect([(await ask()).statusCode, (await ask()).body]).toEqual([304, '']);
    const { sequence, generation } = await read();
    await send(rename(sequence, generation));
    expect((await ask()).statusCode).toBe(200);
  });
});

test('the stream tells of a new generation and of the end', async () => {
  const address = await server.app.listen({ host: '127.0.0.1', port: 0 });
  const { sequence, generation } = await read();
  const response = await fetch(
    `${address}/api/jobs/quillon-point/changes/stream?since=${sequence}&generation=${generation}`,
  );
  const reader = (response.body as ReadableStream<Uint8Array>).getReader();
  let text = '';
  const until = async (needle: string) => {
    while (!text.includes(needle)) text += new TextDecoder().decode((await reader.read()).value);
  };
  await server.app.inject({ method: 'POST', url: '/api/jobs?existing=replace', payload: quillonPoint() });
  await until('event: generation');
  expect(text).toContain((await read()).generation);
  await server.app.inject({ method: 'DELETE', url: '/api/jobs/quillon-point' });
  await until('event: gone');
  while (!(await reader.read()).done);
  const missed = await fetch(`${address}/api/jobs/quillon-point/changes/stream`);
  expect(missed.status).toBe(404);
});

test('the history tells who did what, newest first, with what would take it back', async () => {
  const { sequence } = await read();
  await send(
    edit([
      { kind: 'room', id: 'kitchen', base: sequence, set: { name: { was: 'Keeper’s kitchen', now: 'One' } } },
    ]),
  );
  await send(edit([{ kind: 'room', id: 'gallery', base: sequence, set: { floor: { was: 1, now: 3 } } }]));
  await send(
    edit([{ kind: 'room', id: 'kitchen', base: sequence + 2, set: { name: { was: 'One', now: 'Two' } } }], {
      deviceId: 'laptop',
    }),
  );
  const ask = async (query: string) =>
    (await server.app.inject(`/api/jobs/quillon-point/history${query}`)).json();
  const [last, first] = await ask('?kind=room&id=kitchen&limit=2');
  expect(last).toMatchObject({
    deviceId: 'laptop',
    label: 'test',
    undo: [{ set: { name: { was: 'Two', now: 'One' } } }],
  });
  expect(first).toMatchObject({ deviceId: 'phone', undo: [{ set: { name: { now: 'Keeper’s kitchen' } } }] });
  expect((await ask('?limit=1')).map((entry: { sequence: number }) => entry.sequence)).toEqual([
    sequence + 3,
  ]);
  expect((await ask(`?before=${sequence + 1}&limit=1`))[0]).toMatchObject({
    sequence,
    parts: null,
    undo: null,
  });
  expect(
    (await server.app.inject('/api/jobs/quillon-point/history?kind=room')).json().error.problems[0].path,
  ).toBe('/id');
});
