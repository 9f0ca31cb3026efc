import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { Id, type Job } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { Heavy } from '../heavy/heavy.js';
import { roomFor } from '../heavy/room-for.js';
import { type TypedApp, typed } from '../http/typed-app.js';
import type { ChangeFeed } from '../jobs/change-feed.js';
import { TakeInQuery, takeIn } from '../jobs/take-in.js';
import type { PhotoStore } from '../photos/photo-store.js';
import type { JobStore } from '../storage/job-store.js';
import { pack } from './archive.js';

/** The largest archive taken, bytes. */
const LARGEST_ARCHIVE = 400_000_000;

interface ArchiveParts {
  store: JobStore;
  photos: PhotoStore;
  feed: ChangeFeed;
  now: () => Date;
  heavy: Heavy;
}

/** A job with its photographs as one ZIP file, out and in. */
export function archiveRoutes(fastify: FastifyInstance, parts: ArchiveParts): void {
  fastify.addContentTypeParser(
    'application/zip',
    { parseAs: 'buffer', bodyLimit: LARGEST_ARCHIVE },
    (_, body, done) => done(null, body),
  );
  const app = typed(fastify);
  giveArchive(app, parts);
  takeArchive(app, parts);
}

function giveArchive(app: TypedApp, { store, photos }: ArchiveParts): void {
  app.get(
    '/api/jobs/:jobId/archive',
    {
      schema: {
        summary: 'The job file and its photographs as a ZIP archive',
        params: z.object({ jobId: Id }),
      },
    },
    async (request, reply) => {
      const stored = await store.read(request.params.jobId);
      if (!stored) throw new RequestError('no-such-job');
      return reply
        .type('application/zip')
        .header('content-disposition', `attachment; filename="${stored.job.id}.zip"`)
        .send(Readable.from(pack(stored.job, picturesOf(stored.job, photos))));
    },
  );
}

function takeArchive(app: TypedApp, { store, photos, feed, now, heavy }: ArchiveParts): void {
  app.post(
    '/api/jobs/archive',
    {
      bodyLimit: LARGEST_ARCHIVE,
      onRequest: roomFor(heavy, LARGEST_ARCHIVE),
      schema: {
        summary: 'Takes a job in with its photographs, from a ZIP archive',
        querystring: TakeInQuery,
        response: { 201: z.object({ id: z.string() }) },
      },
    },
    async (request, reply) => {
      if (!Buffer.isBuffer(request.body))
        throw new RequestError('unusable-job', [{ path: '', message: 'must be a ZIP archive' }]);
      const folder = await mkdtemp(join(tmpdir(), 'inventario-archive-'));
      try {
        // Every picture is looked at before anything is kept: the whole archive is taken or none of it.
        const { archive, problems } = await heavy.archive(request.body, folder);
        if (!archive) throw new RequestError('unusable-job', problems ?? []);
        const job = await takeIn(archive.job, request.query, { store, feed, now });
        for (const id of archive.photoIds) {
          const [full, thumb] = await Promise.all([
            readFile(join(folder, `${id}.jpg`)),
            readFile(join(folder, `${id}.thumb.jpg`)),
          ]);
          await photos.put(job.id, id, { full, thumb });
        }
        return reply.code(201).send({ id: job.id });
      } finally {
        await rm(folder, { recursive: true, force: true });
      }
    },
  );
}

async function* picturesOf(job: Job, photos: PhotoStore): AsyncGenerator<readonly [string, Buffer]> {
  for (const { id } of job.photos) {
    const bytes = id ? await photos.get(job.id, id, 'full') : undefined;
    if (id && bytes) yield [id, bytes];
  }
}
