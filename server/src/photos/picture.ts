import sharp, { type Metadata } from 'sharp';

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
 * The picture as it is kept: turned upright, at most 2400 px long, JPEG, without position data or any other
 * record of the camera. One that is so already stays as it is, byte for byte: a picture does not get worse by
 * going out and in again. Null when the bytes are no picture of a kind that is taken (JPEG, PNG, WebP).
 */
export async function reencode(bytes: Buffer): Promise<Encoded | null> {
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const seen = await picture.metadata();
    if (seen.format !== 'jpeg' && seen.format !== 'png' && seen.format !== 'webp') return null;
    const small = () =>
      sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' }).resize({
        width: THUMB,
        height: THUMB,
        fit: 'cover',
      });
    if (isAsKept(bytes, seen)) {
      const thumb = await small().jpeg({ quality: 70 }).toBuffer();
      return { full: bytes, thumb, width: seen.width, height: seen.height };
    }
    const { data, info } = await picture
      .rotate()
      .resize({ width: LONGEST, height: LONGEST, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    const thumb = await sharp(data)
      .resize({ width: THUMB, height: THUMB, fit: 'cover' })
      .jpeg({ quality: 70 })
      .toBuffer();
    return { full: data, thumb, width: info.width, height: info.height };
  } catch {
    return null;
  }
}

/**
 * Markers of the segments a JPEG of ours is made of: JFIF, tables, frame, scan. Nothing of a camera or a
 * person is among them.
 */
const PLAIN_SEGMENTS = new Set([0xe0, 0xdb, 0xc0, 0xc4, 0xdd, 0xda]);

function isAsKept(bytes: Buffer, { format, width, height, chromaSubsampling, space }: Metadata): boolean {
  if (
    format !== 'jpeg' ||
    Math.max(width, height) > LONGEST ||
    chromaSubsampling !== '4:2:0' ||
    space !== 'srgb'
  )
    return false;
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] as number;
    if (!PLAIN_SEGMENTS.has(marker)) return false;
    const length = bytes.readUInt16BE(at + 2);
    if (marker === 0xe0 && length !== 16) return false;
    at += 2 + length;
    if (marker === 0xda) return bytes.indexOf(Buffer.from([0xff, 0xd9]), at) === bytes.length - 2;
  }
  return false;
}
