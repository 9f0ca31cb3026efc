import { beforeEach, expect, test } from '@jest/globals';
import { ApiError, UnreachableError } from '../api.js';
import type { WaitingPhoto } from './kept-store.js';
import { PhotoQueue } from './photo-queue.js';

let kept: Map<string, WaitingPhoto>;
let sent: string[];
let trouble: Error | null;
const log = {
  photos: async (jobId: string) => [...kept.values()].filter((photo) => photo.jobId === jobId),
  putPhoto: async (photo: WaitingPhoto) => void kept.set(photo.photoId, photo),
  removePhoto: async (_: string, photoId: string) => void kept.delete(photoId),
};
const send = async ({ photoId }: WaitingPhoto) => {
  if (trouble) throw trouble;
  sent.push(photoId);
};
const picture = new Blob(['picture']);

beforeEach(() => {
  kept = new Map();
  sent = [];
  trouble = null;
  URL.createObjectURL = () => 'blob:shown';
});

test('a photograph is kept before it is sent, and forgotten here once the server has it', async () => {
  const queue = new PhotoQueue('j', log, send);
  await queue.add('p1', picture);
  expect(kept.has('p1')).toBe(true);
  await queue.flush();
  expect([sent, kept.size, queue.state().size]).toEqual([['p1'], 0, 0]);
});

test('without the server it waits, shown from here; another visit of the page sends it', async () => {
  trouble = new UnreachableError('away');
  const queue = new PhotoQueue('j', log, send);
  await queue.add('p1', picture);
  await queue.add('p2', picture);
  await queue.flush();
  expect(sent).toEqual([]);
  expect(queue.state().get('p1')).toEqual({ url: 'blob:shown', refused: null, unkept: false });
  trouble = null;
  const again = new PhotoQueue('j', log, send);
  await again.open();
  expect([...again.state().keys()]).toEqual(['p1', 'p2']);
  expect(await again.flush()).toBe(true);
  expect([sent, kept.size, again.state().size]).toEqual([['p1', 'p2'], 0, 0]);
});

test('one that the server will never take stays here with the reason, and does not hold up the next', async () => {
  trouble = new ApiError(415, 'not-a-picture', 'The body is not a picture.');
  const queue = new PhotoQueue('j', log, send);
  await queue.add('p1', picture);
  await queue.flush();
  expect(queue.state().get('p1')?.refused).toBe('The body is not a picture.');
  trouble = null;
  await queue.add('p2', picture);
  await queue.flush();
  expect([sent, [...kept.keys()]]).toEqual([['p2'], ['p1']]);
});

test('a fault that passes leaves it waiting', async () => {
  trouble = new ApiError(503, 'database-unreachable', 'The database does not answer.');
  const queue = new PhotoQueue('j', log, send);
  await queue.add('p1', picture);
  await queue.flush();
  expect(queue.state().get('p1')?.refused).toBeNull();
  expect(await queue.flush()).toBe(true);
  expect([sent, kept.size]).toEqual([[], 1]);
});

test('of another job it is another queue', async () => {
  await log.putPhoto({ jobId: 'other', photoId: 'p9', picture });
  const queue = new PhotoQueue('j', log, send);
  await queue.open();
  await queue.flush();
  expect([queue.state().size, sent]).toEqual([0, []]);
});

test('one whose record has not reached the server yet waits, and holds up nothing', async () => {
  const queue = new PhotoQueue('j', log, async (photo) => {
    if (photo.photoId === 'early' && sent.length === 0)
      throw new ApiError(404, 'no-such-photo', 'There is no photograph with this id.');
    await send(photo);
  });
  await queue.add('early', picture);
  await queue.add('p2', picture);
  await queue.flush();
  expect([sent, [...kept.keys()], queue.state().get('early')?.refused]).toEqual([['p2'], ['early'], null]);
  await queue.flush();
  expect([sent, kept.size]).toEqual([['p2', 'early'], 0]);
});

test('one the device has no room for is named, shown and sent all the same', async () => {
  const full = {
    ...log,
    putPhoto: async () => Promise.reject(new DOMException('no room', 'QuotaExceededError')),
  };
  const queue = new PhotoQueue('j', full, send);
  await queue.add('p1', picture);
  expect(queue.state().get('p1')).toMatchObject({ unkept: true, refused: null });
  await queue.flush();
  expect([sent, queue.state().size]).toEqual([['p1'], 0]);
});
