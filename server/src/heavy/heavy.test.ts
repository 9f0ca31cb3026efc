import { afterAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { Heavy } from './heavy.js';

const heavy = new Heavy();
afterAll(() => heavy.close());

test('room for bodies is taken before they are read and given back once; a single one always has room', () => {
  const first = heavy.reserve(400_000_000);
  expect(first).toBeDefined();
  expect(heavy.reserve(100_000_000)).toBeUndefined();
  first?.();
  first?.();
  const large = heavy.reserve(900_000_000);
  expect(large).toBeDefined();
  expect(heavy.reserve(1)).toBeUndefined();
  large?.();
  expect(heavy.reserve(1)).toBeDefined();
});

test('pictures that come together are opened one after the other, and what is none does not stop the next', async () => {
  const picture = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#406080' } })
    .png()
    .toBuffer();
  const opened = await Promise.all([
    heavy.picture(picture),
    heavy.picture(Buffer.from('none')),
    heavy.picture(picture),
  ]);
  expect(opened.map((one) => one && [one.width, one.height, Buffer.isBuffer(one.full)])).toEqual([
    [30, 20, true],
    null,
    [30, 20, true],
  ]);
});
