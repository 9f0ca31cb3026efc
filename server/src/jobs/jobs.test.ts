import {
  type Edit,
  type EditPart,
  type EditsAnswer,
  inverse,
  type Job,
  referenceProblems,
} from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { JobStore } from '../storage/job-store.js';
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
  return { job: response.json<Job>(), sequence: Number(response.headers['x-job-sequence']) };
};
let serial = 0;
const edit = (parts: EditPart[], deviceId = 'phone'): Edit => {
  serial += 1;
  return { id: `edit-${serial}`, deviceId, n: serial, at: '2026-05-04T09:12:00Z', label: 'test', parts };
};
const send = async (edits: Edit[], jobId = 'quillon-point') =>
  (
    await server.app.inject({ method: 'POST', url: `/api/jobs/${jobId}/edits`, payload: { edits } })
  ).json<EditsAnswer>();
const kitchen = async () => (await read()).job.rooms.find((room) => room.id === 'kitchen');
const rename = (base: number, was: string, now: string): EditPart => ({
  kind: 'room',
  id: 'kitchen',
  base,
  set: { name: { was, now } },
});

test('a job comes out as it went in, unknown fields and order kept', async () => {
  const job = {
    ...quillonPoint(),
    future: { a: [1, null] },
    catalogue: { ...quillonPoint().catalogue, season: 'autumn' },
  };
  Object.assign(job.boxes[0] as object, { colourOfPlaster: 'buff' });
  job.overrides = [];
  await server.store.replace(job, new Date());
  expect((await read()).job).toEqual(JSON.parse(JSON.stringify(job)));
  const fresh = new JobStore(server.sequelize);
  expect((await fresh.read('quillon-point'))?.job).toEqual(JSON.parse(JSON.stringify(job)));
});

describe('edits', () => {
  test('are applied in order, read back by another server, and safe to send again', async () => {
    const { sequence } = await read();
    const edits = [
      edit([rename(sequence, 'Keeper’s kitchen', 'Galley')]),
      edit([rename(sequence, 'Galley', 'Big galley')]),
    ];
    const answer = await send(edits);
    expect(answer.results.map((result) => result.outcome)).toEqual(['applied', 'applied']);
    expect(answer.sequence).toBe(sequence + 2);
    const again = await send(edits);
    expect(again.results).toMatchObject([
      { outcome: 'duplicate', sequence: sequence + 1 },
      { outcome: 'duplicate' },
    ]);
    expect((await kitchen())?.name).toBe('Big galley');
    const other = new JobStore(server.sequelize);
    expect((await other.read('quillon-point'))?.job).toEqual((await read()).job);
  });

  test('of two devices: different fields merge, the same field asks and changes nothing', async () => {
    const { sequence } = await read();
    await send([edit([rename(sequence, 'Keeper’s kitchen', 'Galley')], 'phone')]);
    const floor: EditPart = {
      kind: 'room',
      id: 'kitchen',
      base: sequence,
      set: { floor: { was: 0, now: 1 } },
    };
    expect((await send([edit([floor], 'laptop')])).results[0]?.outcome).toBe('applied');
    const clash = await send([edit([rename(sequence, 'Keeper’s kitchen', 'Cookhouse')], 'laptop')]);
    expect(clash.results[0]).toMatchObject({
      outcome: 'conflict',
      conflicts: [{ field: 'name', theirs: 'Galley', yours: 'Cookhouse' }],
    });
    expect(await kitchen()).toMatchObject({ name: 'Galley', floor: 1 });
  });

  test('a removal with its consequences and its undo keep the order of every list', async () => {
    const { job, sequence } = await read();
    const parts: EditPart[] = [{ kind: 'room', id: 'lamp-stair', base: sequence, remove: true }];
    const refused = await send([edit(parts)]);
    expect(refused.results[0]).toMatchObject({
      outcome: 'refused',
      problems: expect.arrayContaining([
        expect.objectContaining({
          path: `/loads/${job.loads.findIndex((load) => load.roomId === 'lamp-stair')}/roomId`,
        }),
      ]),
    });
    const { removalOf } = await import('@inventario/core');
    const whole = removalOf(job, 'room', 'lamp-stair').map((part) => ({ ...part, base: sequence }));
    expect((await send([edit(whole)])).results[0]).toMatchObject({ outcome: 'applied' });
    expect(referenceProblems((await read()).job)).toEqual([]);
    const undo = inverse(job, { parts: whole }).map((part) => ({ ...part, base: sequence + 1 }));
    expect((await send([edit(undo)])).results[0]).toMatchObject({ outcome: 'applied' });
    const fresh = new JobStore(server.sequelize);
    expect((await fresh.read('quillon-point'))?.job).toEqual(job);
  });

  test('all parts or none: a bad second part leaves the first undone and names the field', async () => {
    const before = await read();
    const bad: EditPart = {
      kind: 'box',
      id: 'boat-slip',
      base: before.sequence,
      set: { order: { was: 9, now: 'last' } },
    };
    const answer = await send([edit([rename(before.sequence, 'Keeper’s kitchen', 'Galley'), bad])]);
    expect(answer.results[0]).toMatchObject({
      outcome: 'refused',
      problems: [{ path: '/parts/1/record/order' }],
    });
    expect(await read()).toEqual(before);
  });

  test('to a job that is not there, or in a shape the route does not take, are refused with the field named', async () => {
    const missing = await server.app.inject({
      method: 'POST',
      url: '/api/jobs/none/edits',
      payload: { edits: [edit([rename(0, 'a', 'b')])] },
    });
    expect([missing.statusCode, missing.json().error.code]).toEqual([404, 'no-such-job']);
    const bad = await server.app.inject({
      method: 'POST',
      url: '/api/jobs/quillon-point/edits',
      payload: { edits: [{ ...edit([rename(0, 'a', 'b')]), n: -1 }] },
    });
    expect([bad.statusCode, bad.json().error.problems[0].path]).toEqual([400, '/edits/0/n']);
  });
});

describe('bad input is answered with 4xx and names what is wrong', () => {
  const job = () => quillonPoint();
  test.each<[string, string, unknown, number, string, string | undefined]>([
    ['POST', '/api/jobs', '{', 400, 'not-json', undefined],
    ['POST', '/api/jobs', [], 400, 'bad-request', undefined],
    ['POST', '/api/jobs', {}, 422, 'unusable-job', '/format'],
    [
      'POST',
      '/api/jobs',
      { ...job(), id: 'fresh', rooms: [{ id: 'r' }] },
      422,
      'unusable-job',
      '/rooms/0/name',
    ],
    ['POST', '/api/jobs', job(), 409, 'job-exists', '/id'],
    ['POST', '/api/jobs?existing=maybe', job(), 400, 'bad-request', '/existing'],
    ['GET', '/api/jobs/none', undefined, 404, 'no-such-job', undefined],
    ['GET', '/api/jobs/bad%20id', undefined, 400, 'bad-request', '/jobId'],
    ['DELETE', '/api/jobs/none', undefined, 404, 'no-such-job', undefined],
    ['POST', '/api/jobs/quillon-point/edits', { edits: [] }, 400, 'bad-request', '/edits'],
    ['GET', '/api/jobs/quillon-point/changes?since=x', undefined, 400, 'bad-request', '/since'],
    ['GET', '/api/jobs/none/changes/stream', undefined, 404, 'no-such-job', undefined],
    ['POST', '/api/site/joins', { deviceId: 'x' }, 400, 'bad-request', '/place'],
    ['GET', '/api/site/joins/none', undefined, 404, 'no-such-join', undefined],
    ['GET', '/api/nowhere', undefined, 404, 'no-such-route', undefined],
  ])('%s %s', async (...row) => {
    const [method, url, payload, status, code, path] = row;
    const response = await server.app.inject({
      method: method as 'GET',
      url,
      ...(payload === undefined
        ? {}
        : {
            payload: typeof payload === 'string' ? payload : JSON.stringify(payload),
            headers: { 'content-type': 'application/json' },
          }),
    });
    const body = response.json();
    expect([response.statusCode, body.error.code]).toEqual([status, code]);
    if (path) expect(body.error.problems.map((problem: { path: string }) => problem.path)).toContain(path);
  });

  test('a body above the limit', async () => {
    const response = await server.app.inject({
      method: 'POST',
      url: '/api/site/joins',
      payload: { place: 'x'.repeat(20_000) },
    });
    expect([response.statusCode, response.json().error.code]).toEqual([413, 'too-large']);
  });
});

test('import: a known id can be replaced or taken in as a copy', async () => {
  const { sequence } = await read();
  const changed = { ...quillonPoint(), name: 'Changed' };
  const replaced = await server.app.inject({
    method: 'POST',
    url: '/api/jobs?existing=replace',
    payload: changed,
  });
  expect(replaced.statusCode).toBe(201);
  expect(await read()).toMatchObject({ job: { name: 'Changed' }, sequence: sequence + 1 });
  const copied = await server.app.inject({
    method: 'POST',
    url: '/api/jobs?existing=copy',
    payload: changed,
  });
  const { id } = copied.json<{ id: string }>();
  expect(id).not.toBe('quillon-point');
  expect((await server.app.inject(`/api/jobs/${id}`)).json().boxes).toEqual(changed.boxes);
  const list = (await server.app.inject('/api/jobs')).json<{ id: string }[]>();
  expect(list.map((entry) => entry.id)).toEqual(expect.arrayContaining(['quillon-point', id]));
  expect((await server.app.inject({ method: 'DELETE', url: `/api/jobs/${id}` })).statusCode).toBe(204);
  expect((await server.app.inject(`/api/jobs/${id}`)).statusCode).toBe(404);
});

test('changes stream as they happen and resume after the last one seen', async () => {
  const address = await server.app.listen({ host: '127.0.0.1', port: 0 });
  const { sequence } = await read();
  await send([edit([rename(sequence, 'Keeper’s kitchen', 'One')])]);
  const stop = new AbortController();
  const response = await fetch(`${address}/api/jobs/quillon-point/changes/stream`, {
    headers: { 'last-event-id': String(sequence) },
    signal: stop.signal,
  });
  const reader = (response.body as ReadableStream<Uint8Array>).getReader();
  let text = '';
  const until = async (needle: string) => {
    while (!text.includes(needle)) text += new TextDecoder().decode((await reader.read()).value);
  };
  await until(`id: ${sequence + 1}\n`);
  await send([edit([rename(sequence + 1, 'One', 'Two')], 'laptop')]);
  await until(`id: ${sequence + 2}\n`);
  expect(text).toContain('"now":"Two"');
  stop.abort();
});

test('the API describes itself', async () => {
  const document = (await server.app.inject('/api/docs/json')).json();
  expect(Object.keys(document.paths)).toEqual(
    expect.arrayContaining(['/api/jobs', '/api/jobs/{jobId}/edits', '/api/site/joins']),
  );
});
