import { type Job, type Problem, readJobDocument } from '@inventario/core';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';

/** The job file's name inside an archive; photographs stand beside it as `photos/<id>.jpg`. */
const DOCUMENT = 'job.inventario.json';
const PHOTO = /^photos\/([A-Za-z0-9_-]{1,64})\.jpg$/;
const LARGEST_DOCUMENT = 20_000_000;
const LARGEST_PHOTO = 15_000_000;
const MOST_PHOTOS = 2000;
/** Of everything in an archive together, bytes. */
const LARGEST_IN_ALL = 1_000_000_000;

/** A job with the pictures its photographs name, by their ids. */
export interface Archive {
  job: Job;
  pictures: ReadonlyMap<string, Uint8Array>;
}

/** Pictures are stored as they are: JPEG does not get smaller. */
export function pack({ job, pictures }: Archive): Uint8Array {
  const files: Record<string, [Uint8Array, { level: 0 | 6 }]> = { [DOCUMENT]: [strToU8(JSON.stringify(job, null, 1)), { level: 6 }] };
  for (const [id, bytes] of pictures) files[`photos/${id}.jpg`] = [bytes, { level: 0 }];
  return zipSync(files, { mtime: new Date('1980-01-01T00:00:00Z') });
}

/**
 * Reads an archive that came from anywhere: paths and sizes are checked before anything is unpacked, and what the job does not name is
 * left out.
 */
export function unpack(bytes: Uint8Array): { ok: true; archive: Archive } | { ok: false; problems: Problem[] } {
  const problems: Problem[] = [];
  const refuse = (path: string, message: string) => {
    problems.push({ path, message, severity: 'error' });
    return false;
  };
  let [all, photos] = [0, 0];
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name.endsWith('/')) return false;
        const photo = PHOTO.test(name);
        if (!photo && name !== DOCUMENT) return refuse(name, `is neither ${DOCUMENT} nor a photograph under photos/`);
        all += originalSize;
        photos += photo ? 1 : 0;
        if (originalSize > (photo ? LARGEST_PHOTO : LARGEST_DOCUMENT)) return refuse(name, 'is larger than is taken');
        if (all > LARGEST_IN_ALL || photos > MOST_PHOTOS) return refuse(name, 'is one too many: the archive is larger than is taken');
        return problems.length === 0;
      },
    });
  } catch {
    return { ok: false, problems: [{ path: '', message: 'is not a ZIP archive', severity: 'error' }] };
  }
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 100) };
  const document = files[DOCUMENT];
  if (!document) return { ok: false, problems: [{ path: DOCUMENT, message: 'is missing', severity: 'error' }] };
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(document));
  } catch {
    return { ok: false, problems: [{ path: DOCUMENT, message: 'is not JSON', severity: 'error' }] };
  }
  const read = readJobDocument(json);
  if (!read.ok) return { ok: false, problems: read.problems };
  const named = new Set(read.job.photos.map((photo) => photo.id));
  const pictures = new Map<string, Uint8Array>();
  for (const [name, content] of Object.entries(files)) {
    const id = PHOTO.exec(name)?.[1];
    if (id && named.has(id)) pictures.set(id, content);
  }
  return { ok: true, archive: { job: read.job, pictures } };
}
