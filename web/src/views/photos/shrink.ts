/** The longest side a photograph is kept with, px. */
const LONGEST = 2000;

export interface Shrunk {
  picture: Blob;
  width: number;
  height: number;
}

/**
 * Drawn anew on the device, so that a weak signal carries it and no position data goes with it. Throws when
 * it is no picture.
 */
export async function shrink(file: File): Promise<Shrunk> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new Error('it is not a JPEG, PNG or WebP picture.');
  }
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  const picture = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
  if (!picture) throw new Error('this browser cannot write it as a JPEG picture.');
  return { picture, width: canvas.width, height: canvas.height };
}
