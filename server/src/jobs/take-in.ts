import { Id, type Job } from '@inventario/core';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { JobStore } from '../storage/job-store.js';
import type { ChangeFeed } from './change-feed.js';

/** What to do with a job whose id is here already. */
export const TakeInQuery = z.object({
  existing: z.enum(['replace', 'copy']).optional(),
  copyId: Id.optional(),
});

/** Keeps a job that came as a file; a known id is asked about. @returns the job as it is kept */
export async function takeIn(
  given: Job,
  { existing, copyId }: z.infer<typeof TakeInQuery>,
  { store, feed, now }: { store: JobStore; feed: ChangeFeed; now: () => Date },
): Promise<Job> {
  const there = (await store.read(given.id)) !== undefined;
  if (there && existing === undefined)
    throw new RequestError('job-exists', [{ path: '/id', message: `is that of a job already here` }]);
  const job = there && existing === 'copy' ? await copyOf(given, copyId, store) : given;
  await store.replace(job, now());
  feed.wake(job.id);
  return job;
}

async function copyOf(job: Job, copyId: string | undefined, store: JobStore): Promise<Job> {
  const stem = (copyId ?? `${job.id}-copy`).slice(0, 56);
  let id = stem;
  for (let serial = 2; await store.isKnown(id); serial++) id = `${stem}-${serial}`;
  const ending = ' (copy)';
  return {
    ...job,
    id,
    name: `${job.name.slice(0, LONGEST_NAME - ending.length).replace(/\p{Surrogate}$/u, '')}${ending}`,
  };
}

const LONGEST_NAME = 400;
