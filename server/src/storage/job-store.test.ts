import { demoJobs, quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { type TestApp, testApp } from '../test-support/test-app.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
});
afterAll(() => server.close());

const now = new Date('2026-05-04T09:12:00Z');
const listed = async (): Promise<string[]> =>
  (await server.app.inject('/api/jobs')).json<{ id: string }[]>().map(({ id }) => id);

test('an empty store takes all jobs it is filled with or none, the last first in the list; one that has any takes none', async () => {
  const beyondTheColumn = { ...quillonPoint(), id: 'x'.repeat(10_000) };
  await expect(server.store.fill([...demoJobs(), beyondTheColumn], now)).rejects.toThrow();
  expect(await server.store.isEmpty()).toBe(true);

  await server.store.fill(demoJobs(), now);
  const ids = demoJobs()
    .map(({ id }) => id)
    .reverse();
  expect(await listed()).toEqual(ids);

  await server.store.fill([{ ...quillonPoint(), id: 'late' }], now);
  expect(await listed()).toEqual(ids);
});
