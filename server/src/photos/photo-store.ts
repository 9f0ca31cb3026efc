import { randomBytes } from 'node:crypto';
import { mkdir, open, readFile, rename, rm, statfs } from 'node:fs/promises';
import { dirname, join } from 'node:path';

type PhotoSize = 'full' | 'thumb';

/** Where photographs are kept. A folder by default; anything that keeps bytes by name could do it. */
export interface PhotoStore {
  /** When it settles, the picture is there whole and survives a power cut; before, what was there. */
  put(jobId: string, photoId: string, picture: { full: Buffer; thumb: Buffer }): Promise<void>;
  get(jobId: string, photoId: string, size: PhotoSize): Promise<Buffer | undefined>;
  remove(jobId: string, photoId: string): Promise<void>;
  /** Everything of a job. */
  removeJob(jobId: string): Promise<void>;
  /** Bytes that can still be kept. Throws when nothing can. */
  room(): Promise<number>;
}

/** Ids are checked by the routes: letters, digits, `_` and `-` only, so that no name leaves the folder. */
export function folderPhotos(folder: string): PhotoStore {
  const path = (jobId: string, photoId: string, size: PhotoSize) =>
    join(folder, jobId, `${photoId}${size === 'thumb' ? '.thumb' : ''}.jpg`);
  return {
    async put(jobId, photoId, { full, thumb }) {
      await mkdir(join(folder, jobId), { recursive: true });
      // The picture last: a thumbnail alone is not yet a photograph.
      await writeWhole(path(jobId, photoId, 'thumb'), thumb);
      await writeWhole(path(jobId, photoId, 'full'), full);
    },
    get: (jobId, photoId, size) => readFile(path(jobId, photoId, size)).catch(() => undefined),
    async remove(jobId, photoId) {
      await Promise.all(
        (['full', 'thumb'] as const).map((size) => rm(path(jobId, photoId, size), { force: true })),
      );
    },
    removeJob: (jobId) => rm(join(folder, jobId), { recursive: true, force: true }),
    async room() {
      await mkdir(folder, { recursive: true });
      const { bavail, bsize } = await statfs(folder);
      const probe = join(folder, `.probe-${randomBytes(6).toString('hex')}`);
      await writeWhole(probe, Buffer.from('.'));
      await rm(probe);
      return bavail * bsize;
    },
  };
}

/**
 * Beside its place, synced, then moved there, and the folder synced: a cut leaves the old file or the new
 * one.
 */
async function writeWhole(path: string, bytes: Buffer): Promise<void> {
  const making = `${path}.${randomBytes(6).toString('hex')}.making`;
  try {
    const file = await open(making, 'w', 0o640);
    try {
      await file.writeFile(bytes);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(making, path);
    const folder = await open(dirname(path));
    await folder.sync().finally(() => folder.close());
  } catch (error) {
    await rm(making, { force: true });
    throw error;
  }
}
