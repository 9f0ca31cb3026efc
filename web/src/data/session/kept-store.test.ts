import 'fake-indexeddb/auto';
import { type Edit, newJob } from '@inventario/core';
import { afterEach, expect, jest, test } from '@jest/globals';
import { newId } from '../ids.js';
import { KeptStore, type Pending } from './kept-store.js';

const NOTHING = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
const edit = (id: string, n: number): Edit => ({
  id,
  deviceId: 'd',
  n,
  at: '2026-05-04T09:00:00Z',
  label: id,
  parts: [],
});
const row = (id: string, n = 1): Pending => ({ edit: edit(id, n) });
const ids = ({ pending }: { pending: Pending[] }) => pending.map((one) => one.edit.id);

afterEach(() => {
  jest.restoreAllMocks();
});

test('a write is committed in the turn that began it: a page that closes then takes nothing back', async () => {
  const store = new KeptStore(newId());
  await store.job('j');
  const commits: string[] = [];
  const commit = IDBTransaction.prototype.commit;
  jest.spyOn(IDBTransaction.prototype, 'commit').mockImplementation(function (this: IDBTransaction) {
    commits.push(this.durability);
    commit.call(this);
  });
  const written = store.write('j', { put: [row('a')] });
  // Only what is already settled is waited for, never an answer of the database.
  for (let turn = 0; turn < 5; turn += 1) await Promise.resolve();
  expect(commits).toHaveLength(1);
  await written;
  expect(ids(await store.job('j'))).toEqual(['a']);
});

test('writes begun one after the other are carried out in that order', async () => {
  const store = new KeptStore(newId());
  const many = Array.from({ length: 20 }, (_, index) =>
    store.write(
      'j',
      index % 2 === 0 ? { put: [row('a', index)] } : { put: [row(`b${index}`, index)], drop: ['a'] },
    ),
  );
  await Promise.all(many);
  expect(ids(await store.job('j'))).toEqual([1, 3, 5, 7, 9, 11, 13, 15, 17, 19].map((index) => `b${index}`));
});

test('a write happens whole or not at all', async () => {
  const store = new KeptStore(newId());
  await store.write('j', { put: [row('a')] });
  const uncloneable = { ...row('c'), records: { 'box/b': (() => {}) as unknown as object } };
  await expect(store.write('j', { put: [row('b'), uncloneable], drop: ['a'] })).rejects.toThrow();
  expect(ids(await store.job('j'))).toEqual(['a']);
  await store.write('j', { put: [row('d', 2)] });
  expect(ids(await store.job('j'))).toEqual(['a', 'd']);
});

test('a store that cannot be opened says so to whoever asks, and opens once it can', async () => {
  const refuse = jest.spyOn(indexedDB, 'open').mockImplementation(() => {
    throw new DOMException('denied', 'SecurityError');
  });
  const store = new KeptStore(newId());
  await expect(store.job('j')).rejects.toThrow('denied');
  await expect(store.write('j', { put: [row('a')] })).rejects.toThrow('denied');
  refuse.mockRestore();
  await store.write('j', { put: [row('a')] });
  expect(ids(await store.job('j'))).toEqual(['a']);
});

test('an older version in another tab is named, not waited for; what it kept is carried over once it is closed', async () => {
  const name = newId();
  const job = newJob('j', 'Job', 'us', '2023', NOTHING);
  const older = await opened(indexedDB.open(name, 2));
  const kept = older.transaction(['edits', 'bases', 'photos'], 'readwrite');
  kept.objectStore('edits').put({ jobId: 'j', edit: edit('a', 1) }, 'a');
  kept.objectStore('bases').put({ job, sequence: 3 }, 'j');
  kept.objectStore('photos').put({ jobId: 'j', photoId: 'p', picture: new Blob(['x']) }, 'p');
  const store = new KeptStore(name);
  await expect(store.job('j')).rejects.toThrow('Another tab has an older Inventario open.');
  older.close();
  expect(await store.job('j')).toMatchObject({
    base: { job, sequence: 3, generation: '' },
    pending: [row('a')],
  });
  expect(await store.photos('j')).toMatchObject([{ jobId: 'j', photoId: 'p' }]);
});

test('an open store gives way to a newer version, and does not pretend to keep', async () => {
  const name = newId();
  const store = new KeptStore(name);
  await store.write('j', { put: [row('a')] });
  const newer = await opened(indexedDB.open(name, 9));
  expect(newer.version).toBe(9);
  await expect(store.write('j', { put: [row('b')] })).rejects.toThrow();
  newer.close();
});

function opened(request: IDBOpenDBRequest): Promise<IDBDatabase> {
  return new Promise((done, failed) => {
    request.onupgradeneeded = () => {
      for (const store of ['edits', 'bases', 'photos'])
        if (!request.result.objectStoreNames.contains(store)) request.result.createObjectStore(store);
    };
    request.onsuccess = () => done(request.result);
    request.onerror = () => failed(request.error);
  });
}
