import type { PhotoStore } from '../photos/photo-store.js';
import type { JobStore } from '../storage/job-store.js';

/** How long a job that was taken out can be brought back, ms. */
const STAY = 30 * 24 * 3_600_000;
const DAY = 24 * 3_600_000;

/** Drops for good what has lain in the bin for its 30 days, photographs with it. */
export async function emptyBin(store: JobStore, photos: PhotoStore, now: Date): Promise<void> {
  for (const id of await store.emptyBin(new Date(now.getTime() - STAY))) await photos.removeJob(id);
}

/** Now and once a day; a day on which the database is away is made up for by the next. */
export function emptyBinDaily(store: JobStore, photos: PhotoStore): NodeJS.Timeout {
  const empty = () => void emptyBin(store, photos, new Date()).catch(() => {});
  empty();
  const timer = setInterval(empty, DAY);
  timer.unref();
  return timer;
}
