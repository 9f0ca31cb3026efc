import { mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';

type PhotoSize = 'full' | 'thumb';

/** Where photographs are kept. A folder by default; anything that keeps bytes by name could do it. */
export interface PhotoStore {
  put(jobId: string, photoId: string, picture: Encoded): Promise<void>;
  get(jobId: string, photoId: string, size: PhotoSize): Promise<Buffer | undefined>;
  remove(jobId: string, photoId: string): Promise<void>;
}

export interface Encoded {
  full: Buffer;
  thumb: Buffer;
  width: number;
  height: number;
}

/** The longest side kept, px, and the side of a thumbnail. */
const LONGEST = 2400;
const THUMB = 320;
/** More picture than any phone takes: decompression bombs stop here. */
const MOST_PIXELS = 80_000_000;

/**
 * The picture as it is kept: turned upright, at most 2400 px long, JPEG, without position data or any other record of the camera.
 * Null when the bytes are no picture of a kind that is taken (JPEG, PNG, WebP).
 */
export async function reencode(bytes: Buffer): Promise<Encoded | null> {
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (format !== 'jpeg' && format !== 'png' && format !== 'webp') return null;
    const { data, info } = await picture
      .rotate()
      .resize({ width: LONGEST, height: LONGEST, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    const thumb = await sharp(data).resize({ width: THUMB, height: THUMB, fit: 'cover' }).jpeg({ quality: 70 }).toBuffer();
    return { full: data, thumb, width: info.width, height: info.height };
  } catch {
    return null;
  }
}

/** Ids are checked by the routes: letters, digits, `_` and `-` only, so that no name leaves the folder. */
export function folderPhotos(folder: string): PhotoStore {
  const path = (jobId: string, photoId: string, size: PhotoSize) =>
    join(folder, jobId, `${photoId}${size === 'thumb' ? '.thumb' : ''}.jpg`);
  return {
    async put(jobId, photoId, { full, thumb }) {
      await mkdir(join(folder, jobId), { recursive: true });
      await writeFile(path(jobId, photoId, 'thumb'), thumb);
      await writeFile(path(jobId, photoId, 'full'), full);
    },
    get: (jobId, photoId, size) => readFile(path(jobId, photoId, size)).catch(() => undefined),
    async remove(jobId, photoId) {
      await Promise.all((['full', 'thumb'] as const).map((size) => rm(path(jobId, photoId, size), { force: true })));
    },
  };
}
