import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parentPort } from 'node:worker_threads';
import { openArchive } from '../archive/archive.js';
import { reencode } from '../photos/picture.js';
import type { HeavyAnswer, HeavyTask } from './heavy.js';

// Whatever came from outside and has to be unpacked is opened here: this thread may hang or run out of memory
// without the server.

parentPort?.on('message', (task: HeavyTask) => {
  void work(task).then((answer) => parentPort?.postMessage({ ...answer, id: task.id }));
});

async function work(task: HeavyTask): Promise<HeavyAnswer> {
  if (task.kind === 'picture') {
    const encoded = await reencode(Buffer.from(task.bytes));
    return { picture: encoded };
  }
  const opened = openArchive(task.bytes);
  if (!opened.ok) return { problems: opened.problems };
  const ids: string[] = [];
  for (const id of opened.photoIds) {
    // One after the other: never more than one unpacked picture in memory.
    const encoded = await reencode(Buffer.from(opened.picture(id)));
    if (!encoded)
      return { problems: [{ path: `photos/${id}.jpg`, message: 'is not a JPEG, PNG or WebP picture' }] };
    await writeFile(join(task.folder, `${id}.jpg`), encoded.full);
    await writeFile(join(task.folder, `${id}.thumb.jpg`), encoded.thumb);
    ids.push(id);
  }
  return { archive: { job: opened.job, photoIds: ids } };
}
