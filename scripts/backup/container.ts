// The file of a backup: a gzipped tar that begins with what it is and ends with what it holds, so that one
// that was cut is known.
import { createHash, randomBytes } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { extract, type Header, pack } from 'tar-stream';
import { StartError } from '../start-error.js';

export const FORMAT = 'inventario/backup';
export const VERSION = 1;
export const DUMP = 'database.sql';
const PHOTO = /^photos\/[A-Za-z0-9_-]{1,64}\/[A-Za-z0-9_.-]{1,80}\.jpg$/;
const LARGEST_HEAD = 100_000;

export interface Head {
  format: string;
  version: number;
  at: string;
  /** The migrations its database has been through. */
  migrations: string[];
}

/** Writes the file; under its name it is complete or absent. */
export async function writeContainer(
  file: string,
  head: Head,
  dump: string,
  photoFolder: string,
): Promise<void> {
  const target = resolve(file);
  if (!existsSync(dirname(target))) throw new StartError(`The folder ${dirname(target)} is not there.`);
  const making = `${target}.${randomBytes(6).toString('hex')}.making`;
  const archive = pack();
  const hash = createHash('sha256');
  let entries = 0;
  const add = async (name: string, path: string) => {
    const entry = archive.entry({ name, size: statSync(path).size, mode: 0o600, mtime: new Date(head.at) });
    await pipeline(
      createReadStream(path),
      async function* (pieces) {
        for await (const piece of pieces) {
          hash.update(piece as Buffer);
          yield piece;
        }
      },
      entry,
    );
    entries += 1;
  };
  const fill = async () => {
    archive.entry(
      { name: 'backup.json', mode: 0o600, mtime: new Date(head.at) },
      `${JSON.stringify(head)}\n`,
    );
    await add(DUMP, dump);
    for (const photo of photosIn(photoFolder)) await add(`photos/${photo}`, join(photoFolder, photo));
    archive.entry(
      { name: 'end.json', mode: 0o600, mtime: new Date(head.at) },
      JSON.stringify({ entries, sha256: hash.digest('hex') }),
    );
    archive.finalize();
  };
  try {
    await Promise.all([
      fill(),
      pipeline(archive, createGzip({ level: 6 }), createWriteStream(making, { mode: 0o600 })),
    ]);
    const written = await open(making);
    await written.sync().finally(() => written.close());
    await rename(making, target);
    const folder = await open(dirname(target));
    await folder.sync().finally(() => folder.close());
  } catch (error) {
    await rm(making, { force: true });
    if (error instanceof StartError || (error as { code?: string }).code === 'ENOSPC') throw error;
    throw new StartError(
      `The backup cannot be written to ${target}: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
}

function photosIn(folder: string): string[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => PHOTO.test(`photos/${name}`))
    .sort();
}

/** What a file says it is; refused when it is no backup, or one of a later version. */
export async function readHead(file: string, knownMigrations: readonly string[]): Promise<Head> {
  let head: Head | undefined;
  await walk(file, async (name, content) => {
    if (head !== undefined || name !== 'backup.json') return 'stop';
    const pieces: Buffer[] = [];
    let size = 0;
    for await (const piece of content) {
      size += (piece as Buffer).length;
      if (size > LARGEST_HEAD) throw notABackup(file);
      pieces.push(piece as Buffer);
    }
    head = headOf(file, Buffer.concat(pieces).toString());
    return 'stop';
  });
  if (!head) throw notABackup(file);
  const later = head.migrations.find((name) => !knownMigrations.includes(name));
  if (head.version > VERSION || later !== undefined)
    throw new StartError(
      `${file} was made by a later version of Inventario${later ? ` (${later})` : ''}; restore it with ` +
        'that version.',
    );
  return head;
}

/** Unpacks a whole backup into a folder; refused when it was cut or changed. */
export async function unpackContainer(file: string, folder: string): Promise<void> {
  const hash = createHash('sha256');
  let [entries, ended] = [0, false];
  await walk(file, async (name, content) => {
    if (ended) throw damaged(file);
    if (name === 'end.json') {
      const pieces: Buffer[] = [];
      for await (const piece of content) pieces.push(piece as Buffer);
      const end = JSON.parse(Buffer.concat(pieces).toString()) as { entries: number; sha256: string };
      if (end.entries !== entries || end.sha256 !== hash.digest('hex')) throw damaged(file);
      ended = true;
    } else if (name === DUMP || PHOTO.test(name)) {
      const path = join(folder, name);
      mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
      entries += 1;
      await pipeline(
        content,
        async function* (pieces) {
          for await (const piece of pieces) {
            hash.update(piece as Buffer);
            yield piece;
          }
        },
        createWriteStream(path, { mode: 0o600 }),
      );
    } else if (name !== 'backup.json') throw damaged(file);
    return 'go on';
  });
  if (!ended) throw damaged(file);
}

type Content = AsyncIterable<unknown> & NodeJS.ReadableStream;

async function walk(
  file: string,
  visit: (name: string, content: Content) => Promise<'go on' | 'stop'>,
): Promise<void> {
  if (!existsSync(file) || !statSync(file).isFile()) throw new StartError(`There is no file ${file}.`);
  const [source, reader] = [createReadStream(file), extract()];
  let stopped = false;
  const reading = pipeline(source, createGunzip(), reader).catch((error: unknown) => {
    if (!stopped) reader.destroy(error as Error);
  });
  try {
    for await (const entry of reader) {
      const { header } = entry as unknown as { header: Header };
      if (header.type !== 'file') throw notABackup(file);
      if ((await visit(header.name, entry as unknown as Content)) === 'stop') {
        stopped = true;
        break;
      }
      entry.resume();
    }
  } catch (error) {
    if (error instanceof StartError || (error as { code?: string }).code === 'ENOSPC') throw error;
    throw damaged(file);
  } finally {
    source.destroy();
    await reading;
  }
}

function headOf(file: string, text: string): Head {
  try {
    const { format, version, at, migrations } = JSON.parse(text) as Partial<Head>;
    if (format !== FORMAT || typeof version !== 'number' || typeof at !== 'string') throw notABackup(file);
    return { format, version, at, migrations: Array.isArray(migrations) ? migrations.map(String) : [] };
  } catch {
    throw notABackup(file);
  }
}

const notABackup = (file: string) => new StartError(`${file} is not a backup of Inventario.`);
const damaged = (file: string) => new StartError(`${file} is damaged or was cut off; nothing was changed.`);
