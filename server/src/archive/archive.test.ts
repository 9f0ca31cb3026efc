import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { strToU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { type TestApp, testApp } from '../test-support/test-app.js';

let server: TestApp;
const job = {
  ...quillonPoint(),
  photos: [{ id: 'p1', boxId: 'kitchen-door', stage: 'before' as const, pins: [] }],
};
const picture = () =>
  sharp({ create: { width: 40, height: 30, channels: 3, background: '#406080' } })
    .jpeg()
    .toBuffer();

beforeAll(async () => {
  server = await testApp();
  await server.store.replace(job, new Date());
  const payload = await picture();
  await server.app.inject({
    method: 'PUT',
    url: '/api/jobs/quillon-point/photos/p1',
    payload,
    headers: { 'content-type': 'image/jpeg' },
  });
});
afterAll(() => server.close());

const archive = async () => (await server.app.inject('/api/jobs/quillon-point/archive')).rawPayload;
const send = (payload: Uint8Array, query = '', type = 'application/zip') =>
  server.app.inject({
    method: 'POST',
    url: `/api/jobs/archive${query}`,
    payload: Buffer.from(payload),
    headers: { 'content-type': type },
  });
/** The archive with some of its files other than they were. */
const changed = async (files: Record<string, Uint8Array | null>) => {
  const all: Record<string, Uint8Array> = unzipSync(await archive());
  for (const [name, content] of Object.entries(files)) if (content) all[name] = content;
  for (const [name, content] of Object.entries(files)) if (!content) delete all[name];
  return zipSync(all);
};

describe('an archive', () => {
  test('holds the job file and its photographs, and comes back as a copy with both', async () => {
    const files = unzipSync(await archive());
    expect(Object.keys(files).sort()).toEqual(['job.inventario.json', 'photos/p1.jpg']);
    const answer = await send(await archive(), '?existing=copy&copyId=again');
    expect([answer.statusCode, answer.json()]).toEqual([201, { id: 'again' }]);
    const kept = (await server.app.inject('/api/jobs/again')).json();
    expect({ ...kept, id: job.id, name: job.name }).toEqual(JSON.parse(JSON.stringify(job)));
    const back = await sharp((await server.app.inject('/api/jobs/again/photos/p1')).rawPayload).metadata();
    expect([back.format, back.width, back.height]).toEqual(['jpeg', 40, 30]);
  });

  test('of a job already here is asked about', async () => {
    expect((await send(await archive())).json().error.code).toBe('job-exists');
    expect((await send(await archive(), '?existing=replace')).statusCode).toBe(201);
  });

  test('a photograph the job does not name is left out', async () => {
    const answer = await send(
      await changed({ 'photos/stray.jpg': await picture() }),
      '?existing=copy&copyId=stray',
    );
    expect(answer.statusCode).toBe(201);
    expect((await server.app.inject('/api/jobs/stray/photos/stray')).statusCode).toBe(404);
  });

  test.each<[string, () => Promise<Uint8Array>, { path: string; message: string }]>([
    [
      'bytes that are no archive',
      async () => strToU8('PK nothing'),
      { path: '', message: 'is not a ZIP archive' },
    ],
    [
      'no job file',
      () => changed({ 'job.inventario.json': null }),
      { path: 'job.inventario.json', message: 'is missing' },
    ],
    [
      'a job file that is not JSON',
      () => changed({ 'job.inventario.json': strToU8('{') }),
      { path: 'job.inventario.json', message: 'is not JSON' },
    ],
    [
      'a path that climbs out',
      () => changed({ '../outside.jpg': strToU8('x') }),
      { path: '../outside.jpg', message: 'is neither job.inventario.json nor a photograph under photos/' },
    ],
    [
      'another kind of file',
      () => changed({ 'photos/p2.exe': strToU8('x') }),
      { path: 'photos/p2.exe', message: 'is neither job.inventario.json nor a photograph under photos/' },
    ],
    [
      'a picture that is none',
      () => changed({ 'photos/p1.jpg': strToU8('not a picture') }),
      { path: 'photos/p1.jpg', message: 'is not a JPEG, PNG or WebP picture' },
    ],
    [
      'a picture that unpacks to more than is taken',
      () => changed({ 'photos/p1.jpg': new Uint8Array(15_000_001) }),
      { path: 'photos/p1.jpg', message: 'is larger than is taken' },
    ],
    [
      'a picture packed tighter than any picture is',
      () => changed({ 'photos/p1.jpg': new Uint8Array(2_000_000) }),
      { path: 'photos/p1.jpg', message: 'is packed tighter than is taken' },
    ],
    [
      'more entries than any house has',
      () =>
        changed(
          Object.fromEntries(
            Array.from({ length: 5001 }, (_, index) => [`folder-${index}/`, new Uint8Array()]),
          ),
        ),
      { path: '', message: 'holds more than 5000 entries' },
    ],
  ])('%s is refused, the file named, and nothing is kept', async (_, make, problem) => {
    const answer = await send(await make(), '?existing=copy&copyId=refused');
    expect([answer.statusCode, answer.json().error.code]).toEqual([422, 'unusable-job']);
    expect(answer.json().error.problems[0]).toMatchObject(problem);
    expect((await server.app.inject('/api/jobs/refused')).statusCode).toBe(404);
  });

  test('a job file with errors names its fields; another media type and a job that is not there are said', async () => {
    const broken = { ...job, practice: 'elsewhere' };
    const answer = await send(await changed({ 'job.inventario.json': strToU8(JSON.stringify(broken)) }));
    expect(answer.json().error.problems[0].path).toBe('/practice');
    expect((await send(await archive(), '', 'application/pdf')).json().error.code).toBe('wrong-media-type');
    expect((await server.app.inject('/api/jobs/none/archive')).json().error.code).toBe('no-such-job');
  });
});
