import { once } from 'node:events';
import { type AddressInfo, connect } from 'node:net';
import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type TestApp, testApp } from '../test-support/test-app.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
  await server.store.replace(quillonPoint(), new Date());
});
afterAll(() => server.close());

test.each<[string, number]>([
  ['localhost:80', 200],
  ['127.0.0.1:4180', 200],
  ['[::1]:4180', 200],
  ['LOCALHOST', 200],
  ['cellar.lan', 200],
  ['somebody.example', 421],
  ['localhost.somebody.example', 421],
  ['127.0.0.1.somebody.example:4180', 421],
])('asked as %s it answers %d', async (host, status) => {
  const response = await server.app.inject({ url: '/api/health', headers: { host } });
  expect(response.statusCode).toBe(status);
  if (status === 421) expect(response.json().error.code).toBe('wrong-host');
});

const LONG = 'a'.repeat(400);

test.each<[string, string, number, string]>([
  ['an escape that is none', '/api/jobs/%zz', 400, 'bad-request'],
  ['bytes that are no text', '/%ff%fe', 400, 'bad-request'],
  ['a part beyond any id', `/api/jobs/${LONG}`, 400, 'bad-request'],
])('%s in an address is refused in the shape of all refusals', async (_, url, status, code) => {
  const response = await server.app.inject(url);
  expect([response.statusCode, response.json().error.code]).toEqual([status, code]);
  expect(response.body).not.toContain(LONG);
  const elsewhere = await server.app.inject({ url, headers: { host: 'somebody.example' } });
  expect(elsewhere.json().error.code).toBe('wrong-host');
});

test.each<[string, string, number, string]>([
  ['no request at all', 'hello\r\n\r\n', 400, 'bad-request'],
  [
    'a length below nothing',
    'POST /api/jobs HTTP/1.1\r\nHost: localhost\r\nContent-Length: -5\r\n\r\n',
    400,
    'bad-request',
  ],
  [
    'a header that is a book',
    `GET /api/health HTTP/1.1\r\nHost: localhost\r\nX: ${LONG.repeat(200)}\r\n\r\n`,
    431,
    'head-too-large',
  ],
  [
    'two names',
    'GET /api/health HTTP/1.1\r\nHost: localhost\r\nHost: somebody.example\r\n\r\n',
    421,
    'wrong-host',
  ],
  [
    'a name in the address',
    'GET http://somebody.example/api/health HTTP/1.1\r\nHost: localhost\r\n\r\n',
    421,
    'wrong-host',
  ],
  ['no name', 'GET /api/health HTTP/1.0\r\n\r\n', 421, 'wrong-host'],
])('%s on the line is refused in the shape of all refusals', async (_, text, status, code) => {
  if (!server.app.server.listening) await server.app.listen({ host: '127.0.0.1', port: 0 });
  const line = connect((server.app.server.address() as AddressInfo).port, '127.0.0.1');
  line.end(text);
  let said = '';
  line.on('data', (data: Buffer) => {
    said += data.toString();
  });
  await once(line, 'close');
  expect(said).toMatch(new RegExp(`^HTTP/1.1 ${status} `));
  expect(JSON.parse(said.split('\r\n\r\n')[1] as string).error.code).toBe(code);
});

test('a stream is read or left alone: asked about only, it is not there', async () => {
  const url = '/api/jobs/quillon-point/changes/stream';
  expect((await server.app.inject({ method: 'HEAD', url })).statusCode).toBe(404);
  expect((await server.app.inject({ method: 'HEAD', url: '/api/jobs/quillon-point' })).statusCode).toBe(200);
});

test('no answer of the API is kept, pages take no style or font from elsewhere, and each answer has a name in the log', async () => {
  const { headers } = await server.app.inject('/api/jobs');
  expect(headers['cache-control']).toBe('no-store');
  const policy = String(headers['content-security-policy']);
  expect(policy).toMatch(/style-src 'self';/);
  expect(policy).toMatch(/font-src 'self';/);
  expect(policy).not.toContain('unsafe-inline');
  expect(headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/);
});

test.each(['br', 'gzip'])('a whole job goes out packed as %s', async (encoding) => {
  const plain = await server.app.inject('/api/jobs/quillon-point');
  const packed = await server.app.inject({
    url: '/api/jobs/quillon-point',
    headers: { 'accept-encoding': encoding },
  });
  expect(packed.headers['content-encoding']).toBe(encoding);
  expect(packed.headers.etag).toBe(plain.headers.etag);
  expect(packed.rawPayload.length).toBeLessThan(plain.rawPayload.length / 4);
});

test('health tells what works, and ready whether changes are taken', async () => {
  expect((await server.app.inject('/api/health')).json()).toMatchObject({
    ok: true,
    database: 'ok',
    disk: 'ok',
    site: 'ok',
  });
  expect((await server.app.inject('/api/ready')).json()).toEqual({ ready: true });
  const other = await testApp();
  await other.site.close();
  expect((await other.app.inject('/api/health')).json()).toMatchObject({ ok: true, site: 'down' });
  await other.sequelize.close();
  expect((await other.app.inject('/api/health')).json()).toMatchObject({ ok: false, database: 'down' });
  const ready = await other.app.inject('/api/ready');
  expect([ready.statusCode, ready.json().error]).toMatchObject([
    503,
    { code: 'not-ready', problems: [{ path: 'database' }] },
  ]);
  expect(ready.headers['retry-after']).toBe('2');
  await other.app.close();
});

test('a body that is too large is refused by its length, before it is sent', async () => {
  const response = await server.app.inject({
    method: 'POST',
    url: '/api/jobs/quillon-point/edits',
    headers: { 'content-type': 'application/json', 'content-length': '900000000' },
    payload: '{',
  });
  expect([response.statusCode, response.json().error.code]).toEqual([413, 'too-large']);
});

test('jobs come in pages, by touch or by name, and can be searched', async () => {
  for (const [index, name] of ['Ash house', 'Birch 100% house', 'Cedar'].entries())
    await server.store.replace(
      { ...quillonPoint(), id: `page-${index}`, name },
      new Date(Date.UTC(2020, 0, index + 1)),
    );
  const names = async (url: string) => {
    const response = await server.app.inject(url);
    const next = /<([^>]+)>; rel="next"/.exec(String(response.headers.link ?? ''))?.[1];
    return { names: response.json<{ name: string }[]>().map((job) => job.name), next };
  };
  const first = await names('/api/jobs?order=name&limit=2');
  expect(first.names).toEqual(['Ash house', 'Birch 100% house']);
  expect((await names(first.next as string)).names[0]).toBe('Cedar');
  const touched = await names('/api/jobs?limit=2');
  expect(touched.names[1]).toBe('Cedar');
  expect((await names(touched.next as string)).names).toEqual(['Birch 100% house', 'Ash house']);
  expect((await names('/api/jobs?search=0%25')).names).toEqual(['Birch 100% house']);
  expect((await names('/api/jobs?search=h%20house&order=name')).names).toEqual(['Ash house']);
  expect((await server.app.inject('/api/jobs?after=none')).json().error.problems[0].path).toBe('/after');
  expect((await server.app.inject('/api/jobs?limit=501')).json().error.problems[0].path).toBe('/limit');
});

test('the log names a request and where it failed, and nothing of what a client sent', async () => {
  let log = '';
  const other = await testApp({ logLevel: 'error', logTo: { write: (line) => (log += line) } });
  await other.store.replace(quillonPoint(), new Date());
  await other.sequelize.close();
  const edit = {
    id: 'secret-edit',
    deviceId: 'phone',
    n: 1,
    at: '2026-05-04T09:12:00Z',
    label: 'Call on Mrs Marrow',
    parts: [
      { kind: 'room', id: 'kitchen', base: 0, set: { name: { was: 'Keeper’s kitchen', now: 'Mrs Marrow' } } },
    ],
  };
  const answer = await other.app.inject({
    method: 'POST',
    url: '/api/jobs/quillon-point/edits',
    payload: { edits: [edit] },
  });
  expect(answer.statusCode).toBeGreaterThanOrEqual(500);
  await other.app.inject('/api/jobs?search=Marrow');
  expect(log).toContain(answer.headers['x-request-id'] as string);
  expect(log).toContain('where');
  for (const secret of ['Marrow', 'secret-edit', 'quillon-point']) expect(log).not.toContain(secret);
  await Promise.all([other.app.close(), other.site.close()]);
});
