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
  const packed = await server.app.inject({ url: '/api/jobs/quillon-point', headers: { 'accept-encoding': encoding } });
  expect(packed.headers['content-encoding']).toBe(encoding);
  expect(packed.headers.etag).toBe(plain.headers.etag);
  expect(packed.rawPayload.length).toBeLessThan(plain.rawPayload.length / 4);
});

test('health tells what works, and ready whether changes are taken', async () => {
  expect((await server.app.inject('/api/health')).json()).toMatchObject({ ok: true, database: 'ok', disk: 'ok', site: 'ok' });
  expect((await server.app.inject('/api/ready')).json()).toEqual({ ready: true });
  const other = await testApp();
  await other.site.close();
  expect((await other.app.inject('/api/health')).json()).toMatchObject({ ok: true, site: 'down' });
  await other.sequelize.close();
  expect((await other.app.inject('/api/health')).json()).toMatchObject({ ok: false, database: 'down' });
  const ready = await other.app.inject('/api/ready');
  expect([ready.statusCode, ready.json().error]).toMatchObject([503, { code: 'not-ready', problems: [{ path: 'database' }] }]);
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
    await server.store.replace({ ...quillonPoint(), id: `page-${index}`, name }, new Date(Date.UTC(2020, 0, index + 1)));
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
    parts: [{ kind: 'room', id: 'kitchen', base: 0, set: { name: { was: 'Keeper’s kitchen', now: 'Mrs Marrow' } } }],
  };
  const answer = await other.app.inject({ method: 'POST', url: '/api/jobs/quillon-point/edits', payload: { edits: [edit] } });
  expect(answer.statusCode).toBeGreaterThanOrEqual(500);
  await other.app.inject('/api/jobs?search=Marrow');
  expect(log).toContain(answer.headers['x-request-id'] as string);
  expect(log).toContain('where');
  for (const secret of ['Marrow', 'secret-edit', 'quillon-point']) expect(log).not.toContain(secret);
  await Promise.all([other.app.close(), other.site.close()]);
});
