import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { quillonPoint } from '@inventario/demo';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { emptyBin } from '../jobs/bin.js';
import { type TestApp, testApp } from '../test-support/test-app.js';
import { folderPhotos } from './photo-store.js';

let server: TestApp;
beforeAll(async () => {
  server = await testApp();
  await server.store.replace(
    { ...quillonPoint(), photos: [{ id: 'p1', boxId: 'kitchen-door' }] },
    new Date(),
  );
});
afterAll(() => server.close());

const address = '/api/jobs/quillon-point/photos/p1';
const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#a08060' } });
const send = (payload: Buffer, type = 'image/jpeg', url = address) =>
  server.app.inject({ method: 'PUT', url, payload, headers: { 'content-type': type } });

describe('photographs', () => {
  test('are kept upright, shrunk and without position data, with a thumbnail', async () => {
    const withPlace = await picture(3000, 1500)
      .withExif({
        IFD0: { Copyright: 'nobody' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '43/1 54/1 0/1' },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(withPlace).metadata()).exif).toBeDefined();
    const kept = await send(withPlace);
    expect([kept.statusCode, kept.json()]).toEqual([200, { width: 1200, height: 2400 }]);
    const back = await server.app.inject(address);
    expect(back.headers['content-type']).toBe('image/jpeg');
    const meta = await sharp(back.rawPayload).metadata();
    expect([meta.width, meta.height, meta.exif, meta.orientation]).toEqual([
      1200,
      2400,
      undefined,
      undefined,
    ]);
    const thumb = await sharp((await server.app.inject(`${address}?size=thumb`)).rawPayload).metadata();
    expect([thumb.width, thumb.height]).toEqual([320, 320]);
  });

  test('PNG and WebP are taken and kept as JPEG', async () => {
    for (const [type, bytes] of [
      ['image/png', await picture(20, 10).png().toBuffer()],
      ['image/webp', await picture(20, 10).webp().toBuffer()],
    ] as const) {
      expect((await send(bytes, type)).json()).toEqual({ width: 20, height: 10 });
      expect((await sharp((await server.app.inject(address)).rawPayload).metadata()).format).toBe('jpeg');
    }
  });

  test.each<[string, () => Promise<Buffer> | Buffer, string, number, string]>([
    [
      'what only says it is a picture',
      () => Buffer.from('not a picture'),
      'image/jpeg',
      415,
      'not-a-picture',
    ],
    [
      'a drawing with script in it',
      () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'),
      'image/png',
      415,
      'not-a-picture',
    ],
    [
      'a half picture',
      async () => (await picture(400, 400).jpeg().toBuffer()).subarray(0, 300),
      'image/jpeg',
      415,
      'not-a-picture',
    ],
    ['another type', () => Buffer.from('x'), 'application/pdf', 415, 'wrong-media-type'],
    ['more than the limit', () => Buffer.alloc(15_000_001), 'image/jpeg', 413, 'too-large'],
  ])('%s is refused clearly', async (_, bytes, type, status, code) => {
    const response = await send(await bytes(), type);
    expect([response.statusCode, response.json().error.code]).toEqual([status, code]);
  });

  test('one of ours comes back as it is, byte for byte', async () => {
    const first = await server.app.inject({
      method: 'PUT',
      url: address,
      payload: await picture(900, 700).png().toBuffer(),
      headers: { 'content-type': 'image/png' },
    });
    expect(first.statusCode).toBe(200);
    const ours = (await server.app.inject(address)).rawPayload;
    expect((await send(ours)).json()).toEqual({ width: 900, height: 700 });
    expect((await server.app.inject(address)).rawPayload.equals(ours)).toBe(true);
    const hiding = Buffer.concat([ours, Buffer.from('position 43 54 1')]);
    await send(hiding);
    expect((await server.app.inject(address)).rawPayload.includes('position')).toBe(false);
  });

  test('no file half written is left, and one is never served for a job in the bin', async () => {
    expect((await send(await picture(8, 8).jpeg().toBuffer())).statusCode).toBe(200);
    expect(readdirSync(join(server.photoFolder, 'quillon-point')).sort()).toEqual(['p1.jpg', 'p1.thumb.jpg']);
    await server.app.inject({ method: 'DELETE', url: '/api/jobs/quillon-point' });
    expect((await server.app.inject(address)).json().error.code).toBe('no-such-job');
    await emptyBin(server.store, folderPhotos(server.photoFolder), new Date(Date.now() + 29 * 86_400_000));
    expect(
      (await server.app.inject({ method: 'POST', url: '/api/jobs/quillon-point/return' })).statusCode,
    ).toBe(204);
    expect((await server.app.inject(address)).statusCode).toBe(200);
    await server.app.inject({ method: 'DELETE', url: '/api/jobs/quillon-point' });
    await emptyBin(server.store, folderPhotos(server.photoFolder), new Date(Date.now() + 31 * 86_400_000));
    expect(existsSync(join(server.photoFolder, 'quillon-point'))).toBe(false);
    expect(
      (await server.app.inject({ method: 'POST', url: '/api/jobs/quillon-point/return' })).json().error.code,
    ).toBe('no-such-job');
    await server.store.replace(
      { ...quillonPoint(), photos: [{ id: 'p1', boxId: 'kitchen-door' }] },
      new Date(),
    );
  });

  test('a photograph nobody took, one of no job, and one taken out', async () => {
    expect((await server.app.inject('/api/jobs/quillon-point/photos/none')).json().error.code).toBe(
      'no-such-photo',
    );
    expect(
      (await send(await picture(5, 5).jpeg().toBuffer(), 'image/jpeg', '/api/jobs/none/photos/p1')).json()
        .error.code,
    ).toBe('no-such-job');
    expect((await server.app.inject('/api/jobs/quillon-point/photos/..%2Fescape')).statusCode).toBe(400);
    expect((await server.app.inject({ method: 'DELETE', url: address })).statusCode).toBe(204);
    expect((await server.app.inject(address)).statusCode).toBe(404);
  });
});
