import { type Job, type Problem, readJobDocument } from '@inventario/core';
import { strFromU8, strToU8, unzipSync, Zip, ZipDeflate, ZipPassThrough } from 'fflate';

/** The job file's name inside an archive; photographs stand beside it as `photos/<id>.jpg`. */
const DOCUMENT = 'job.inventario.json';
const PHOTO = /^photos\/([A-Za-z0-9_-]{1,64})\.jpg$/;
const LARGEST_DOCUMENT = 20_000_000;
const LARGEST_PHOTO = 15_000_000;
const MOST_PHOTOS = 2000;
/** Entries of any kind, folders too. */
const MOST_ENTRIES = 5000;
/** Of everything in an archive together, bytes. */
const LARGEST_IN_ALL = 1_000_000_000;
/** How many bytes one packed byte may become: above what any job file reaches. */
const LARGEST_RATIO = 250;
/** Smaller entries may be packed as tightly as they like, bytes. */
const ALWAYS_FINE = 1_000_000;

/** A job and the ids of the photographs it names that are there; `picture` unpacks one. */
export type OpenedArchive =
  | { ok: true; job: Job; photoIds: string[]; picture: (id: string) => Uint8Array }
  | { ok: false; problems: Problem[] };

/**
 * The archive piece by piece: the job file, then one photograph after the other as `pictures` gives them.
 * Pictures are stored as they are: JPEG does not get smaller.
 */
export async function* pack(
  job: Job,
  pictures: AsyncIterable<readonly [id: string, bytes: Uint8Array]>,
): AsyncGenerator<Uint8Array> {
  const pieces: Uint8Array[] = [];
  const zip = new Zip((error, piece) => {
    if (error) throw error;
    pieces.push(piece);
  });
  const add = (entry: ZipDeflate | ZipPassThrough, bytes: Uint8Array) => {
    // One time for all: the same job makes the same archive.
    entry.mtime = new Date('1980-01-01T00:00:00Z');
    zip.add(entry);
    entry.push(bytes, true);
    return pieces.splice(0);
  };
  yield* add(new ZipDeflate(DOCUMENT, { level: 6 }), strToU8(JSON.stringify(job, null, 1)));
  for await (const [id, bytes] of pictures) yield* add(new ZipPassThrough(`photos/${id}.jpg`), bytes);
  zip.end();
  yield* pieces.splice(0);
}

/**
 * Opens an archive that came from anywhere: names, sizes and ratios are checked before anything is unpacked,
 * and what the job does not name is left out.
 */
export function openArchive(bytes: Uint8Array): OpenedArchive {
  const problems: Problem[] = [];
  const refuse = (path: string, message: string) => {
    problems.push({ path, message, severity: 'error' });
    return false;
  };
  const photos = new Set<string>();
  const seen = new Set<string>();
  let [all, entries] = [0, 0];
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, size, originalSize }) => {
        entries += 1;
        if (entries > MOST_ENTRIES) throw new Error('entries');
        if (name.endsWith('/')) return false;
        const id = PHOTO.exec(name)?.[1];
        if (id === undefined && name !== DOCUMENT)
          return refuse(name, `is neither ${DOCUMENT} nor a photograph under photos/`);
        if (seen.has(name)) return refuse(name, 'stands in the archive twice');
        seen.add(name);
        if (id !== undefined) photos.add(id);
        all += originalSize;
        if (originalSize > (id === undefined ? LARGEST_DOCUMENT : LARGEST_PHOTO))
          return refuse(name, 'is larger than is taken');
        if (originalSize > ALWAYS_FINE && originalSize > size * LARGEST_RATIO)
          return refuse(name, 'is packed tighter than is taken');
        if (all > LARGEST_IN_ALL || photos.size > MOST_PHOTOS)
          return refuse(name, 'is one too many: the archive is larger than is taken');
        return id === undefined && problems.length === 0;
      },
    });
  } catch {
    const message =
      entries > MOST_ENTRIES ? `holds more than ${MOST_ENTRIES} entries` : 'is not a ZIP archive';
    return { ok: false, problems: [{ path: '', message, severity: 'error' }] };
  }
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 100) };
  const document = files[DOCUMENT];
  if (!document)
    return { ok: false, problems: [{ path: DOCUMENT, message: 'is missing', severity: 'error' }] };
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(document));
  } catch {
    return { ok: false, problems: [{ path: DOCUMENT, message: 'is not JSON', severity: 'error' }] };
  }
  const read = readJobDocument(json);
  if (!read.ok) return { ok: false, problems: read.problems };
  const photoIds = read.job.photos.flatMap(({ id }) => (id !== undefined && photos.has(id) ? [id] : []));
  const picture = (id: string) => {
    const name = `photos/${id}.jpg`;
    try {
      return unzipSync(bytes, { filter: (entry) => entry.name === name })[name] ?? new Uint8Array();
    } catch {
      return new Uint8Array();
    }
  };
  return { ok: true, job: read.job, photoIds, picture };
}
