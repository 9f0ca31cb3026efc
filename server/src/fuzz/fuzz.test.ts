import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Random } from '../../../core/src/test-support/random.js';
import { type TestApp, testApp } from '../test-support/test-app.js';
import { brokenInOnePlace, nastyText } from './broken.js';
import { fromSchema, type JsonSchema } from './from-schema.js';

const REQUESTS = 2000;
const SEED = Number(process.env.FUZZ_SEED ?? 10);

let server: TestApp;
let address: string;
beforeAll(async () => {
  server = await testApp({ requestsPerMinute: 1_000_000 });
  address = await server.app.listen({ host: '127.0.0.1', port: 0 });
});
afterAll(() => server.close());

interface Operation {
  parameters?: { name: string; in: string; schema: JsonSchema }[];
  requestBody?: { content: Record<string, { schema: JsonSchema }> };
}
interface Route {
  method: string;
  path: string;
  operation: Operation;
}

test('no route answers with a fault of its own, whatever is sent: first as its schema says, then broken in one place', async () => {
  const document = (await server.app.inject('/api/docs/json')).json();
  const routes: Route[] = Object.entries(document.paths as Record<string, Record<string, Operation>>).flatMap(
    ([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({
        method: method.toUpperCase(),
        path,
        operation,
      })),
  );
  const chance = new Random(SEED);
  const faults: string[] = [];
  const met = new Map<string, Set<number>>();
  for (let number = 0; number < REQUESTS; number++) {
    if (number % 200 === 0) await restock();
    const route = routes[number % routes.length] as Route;
    const broken = Math.trunc(number / routes.length) % 4 > 0;
    const request = requestTo(route, document, chance, broken);
    const status = await send(request);
    const name = `${route.method} ${route.path}`;
    met.set(name, (met.get(name) ?? new Set()).add(status));
    if (status >= 500)
      faults.push(
        `seed ${SEED} request ${number}: ${name} answered ${status} to ` +
          `${JSON.stringify(request).slice(0, 400)}`,
      );
  }
  expect(faults).toEqual([]);
  // Otherwise the requests would never have come past the first look: each route has taken some and refused
  // some.
  for (const [name, statuses] of met)
    expect({ name, some: [...statuses].some((status) => status < 400) }).toEqual({ name, some: true });
  expect((await server.app.inject('/api/ready')).json()).toEqual({ ready: true });
  expect((await server.app.inject('/api/jobs/quillon-point')).statusCode).toBeLessThan(500);
});

async function restock(): Promise<void> {
  await server.store.replace(
    { ...quillonPoint(), photos: [{ id: 'p1', boxId: 'kitchen-door' }] },
    new Date(),
  );
  // With its picture: whether one was sent before it is asked for is not left to chance.
  await server.app.inject({
    method: 'PUT',
    url: '/api/jobs/quillon-point/photos/p1',
    headers: { 'content-type': 'image/png' },
    payload: PICTURE,
  });
}

interface Request {
  method: string;
  url: string;
  headers: Record<string, string>;
  body?: string | Buffer;
}

function requestTo(
  { method, path, operation }: Route,
  document: unknown,
  chance: Random,
  broken: boolean,
): Request {
  const spoil = broken ? chance.pick(['path', 'query', 'header', 'body', 'body', 'body', 'body']) : null;
  const query = new URLSearchParams();
  let url = path;
  const headers: Record<string, string> = {};
  for (const parameter of operation.parameters ?? []) {
    const text = String(fromSchema(parameter.schema, document, chance));
    if (parameter.in === 'path')
      url = url.replace(
        `{${parameter.name}}`,
        spoil === 'path'
          ? encodeURIComponent(wellFormed(nastyText(chance)))
          : (KNOWN[parameter.name] ?? text),
      );
    else if (parameter.in === 'query') {
      if (spoil === 'query') query.append(parameter.name, wellFormed(nastyText(chance)));
      else if (parameter.name === 'since' || chance.next() < 0.3)
        query.append(parameter.name, parameter.name === 'after' ? 'quillon-point' : text);
    }
  }
  if (spoil === 'header')
    headers[
      chance.pick(['if-none-match', 'last-event-id', 'accept-encoding', 'content-type', 'accept', 'range'])
    ] = nastyText(chance)
      .replaceAll(/[^\x20-\x7e]/g, '?')
      .slice(0, 200);
  const types = Object.entries(operation.requestBody?.content ?? {});
  if (types.length === 0) return { method, url: withQuery(url, query), headers };
  const [type, media] = chance.pick(types);
  const body = bodyOf({ path, type, schema: media.schema, document }, chance, spoil === 'body');
  return { method, url: withQuery(url, query), headers: { 'content-type': type, ...headers }, body };
}

/** A device that has joined, where no other request puts another. */
const JOINED = 'radio-door/9';
/** Ids of things that are there, so that requests come past the first look. */
const KNOWN: Record<string, string> = { jobId: 'quillon-point', photoId: 'p1' };
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAwAAAAICAIAAABChommAAAAEUlEQVR42mPIjvYiiBhGFQEACP1mAdGRi5kAAAAASUVORK5CYII=',
  'base64',
);

function bodyOf(
  { path, type, schema, document }: { path: string; type: string; schema: JsonSchema; document: unknown },
  chance: Random,
  broken: boolean,
): string | Buffer {
  if (type !== 'application/json') {
    const whole = type === 'application/zip' ? ARCHIVE() : PICTURE;
    if (!broken) return whole;
    const bytes = Buffer.from(whole);
    for (let turns = 0; turns < 3; turns++)
      bytes[Math.trunc(chance.next() * bytes.length)] = Math.trunc(chance.next() * 256);
    return chance.next() < 0.5 ? bytes : bytes.subarray(0, Math.trunc(chance.next() * bytes.length));
  }
  if (path === '/api/site/commands' && !broken)
    return JSON.stringify({ place: JOINED, channel: 1, on: chance.next() < 0.5, from: 'app' });
  if (path === '/api/site/updates' && !broken) return JSON.stringify({ place: JOINED });
  // A whole house, or an edit of it, gets further than what a schema alone can tell.
  const value =
    path === '/api/jobs'
      ? { ...quillonPoint(), id: chance.pick(['quillon-point', 'fuzz-1', 'fuzz-2']) }
      : path.endsWith('/edits') && chance.next() < 0.7
        ? { edits: [anEdit(chance)] }
        : fromSchema(schema, document, chance);
  return JSON.stringify(broken ? brokenInOnePlace(value, chance) : value);
}

let archive: Buffer | undefined;
const ARCHIVE = () => archive ?? Buffer.from('PK');
beforeAll(async () => {
  await restock();
  const join = {
    deviceId: 'x',
    place: JOINED,
    radio: 'wifi',
    deviceBands: ['2.4'],
    phoneBand: '2.4',
    rssi: -50,
    hubId: null,
    powered: true,
    channels: [{ id: 1, watts: 40, dims: true }],
  };
  KNOWN.joinId = (
    await server.app.inject({ method: 'POST', url: '/api/site/joins', payload: join })
  ).json().id;
  await server.startBroker();
  // Until it is in and heard: luck may be against one try.
  while ((await server.app.inject('/api/site/states')).json().states.length === 0) {
    await server.app.inject({ method: 'POST', url: '/api/site/joins', payload: join });
    await new Promise((later) => setTimeout(later, 100));
  }
  archive = (await server.app.inject('/api/jobs/quillon-point/archive')).rawPayload;
});

let edits = 0;
function anEdit(chance: Random) {
  const job = quillonPoint();
  const box = chance.pick(job.boxes);
  edits += 1;
  const part = chance.pick([
    { kind: 'box', id: box.id, base: null, put: box },
    {
      kind: 'box',
      id: box.id,
      base: 0,
      set: { conductors: { was: box.conductors, now: box.conductors.slice(1) } },
    },
    { kind: 'box', id: box.id, base: 0, append: { readings: box.readings.slice(0, 1) } },
    { kind: 'job', id: job.id, base: 0, set: { brief: { was: null, now: job.brief } } },
    { kind: 'override', id: 'x', base: null, put: { figure: 'x', value: 1 } },
    { kind: 'thing', id: 't', base: null, put: { id: 't', name: 'Thing' } },
    { kind: 'room', id: 'kitchen', base: 0, remove: true },
  ]);
  return {
    id: `fuzz-${edits}`,
    deviceId: 'fuzz',
    n: edits,
    at: '2026-05-04T09:12:00Z',
    label: 'fuzz',
    parts: [part],
  };
}

const wellFormed = (text: string) => text.replaceAll(/\p{Surrogate}/gu, '\uFFFD').slice(0, 600);
const withQuery = (path: string, query: URLSearchParams) => (query.size > 0 ? `${path}?${query}` : path);

async function send({ method, url, headers, body }: Request): Promise<number> {
  const stop = new AbortController();
  try {
    const response = await fetch(address + url, {
      method,
      headers,
      signal: stop.signal,
      ...(body === undefined ? {} : { body: body as string }),
    });
    // A stream has no end; its beginning says enough.
    if (!String(response.headers.get('content-type')).includes('event-stream')) await response.arrayBuffer();
    return response.status;
  } finally {
    stop.abort();
  }
}
