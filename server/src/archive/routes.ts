import { Id } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { ChangeFeed } from '../jobs/change-feed.js';
import { TakeInQuery, takeIn } from '../jobs/take-in.js';
import { type Encoded, type PhotoStore, reencode } from '../photos/photo-store.js';
import type { JobStore } from '../storage/job-store.js';
import { pack, unpack } from './archive.js';

/** The largest archive taken, bytes. */
const LARGEST_ARCHIVE = 400_000_000;

/** A job with its photographs as one ZIP file, out and in. */
export function archiveRoutes(
  app: FastifyInstance,
  { store, photos, feed, now }: { store: JobStore; photos: PhotoStore; feed: ChangeFeed; now: () => Date },
): void {
  app.addContentTypeParser('application/zip', { parseAs: 'buffer', bodyLimit: LARGEST_ARCHIVE }, (_, body, done) => done(null, body));
  const typed = app.withTypeProvider<ZodTypeProvider>();

  typed.get(
    '/api/jobs/:jobId/archive',
    { schema: { summary: 'The job file and its photographs as a ZIP archive', params: z.object({ jobId: Id }) } },
    async (request, reply) => {
      const stored = await store.read(request.params.jobId);
      if (!stored) throw new RequestError('no-such-job');
      const pictures = new Map<string, Uint8Array>();
      for (const { id } of stored.job.photos) {
        const bytes = id ? await photos.get(stored.job.id, id, 'full') : undefined;
        if (id && bytes) pictures.set(id, bytes);
      }
      return reply
        .type('application/zip')
        .header('content-disposition', `attachment; filename="${stored.job.id}.zip"`)
        .send(Buffer.from(pack({ job: stored.job, pictures })));
    },
  );

  typed.post(
    '/api/jobs/archive',
    {
      bodyLimit: LARGEST_ARCHIVE,
      schema: {
        summary: 'Takes a job in with its photographs, from a ZIP archive',
        querystring: TakeInQuery,
        response: { 201: z.object({ id: z.string() }) },
      },
    },
    async (request, reply) => {
      const read = Buffer.isBuffer(request.body) ? unpack(request.body) : null;
      if (!read?.ok) throw new RequestError('unusable-job', read?.problems ?? [{ path: '', message: 'must be a ZIP archive' }]);
      // Every picture is looked at before anything is kept: the whole archive is taken or none of it.
      const encoded = new Map<string, Encoded>();
      for (const [id, bytes] of read.archive.pictures) {
        const picture = await reencode(Buffer.from(bytes));
        if (!picture) throw new RequestError('unusable-job', [{ path: `photos/${id}.jpg`, message: 'is not a JPEG, PNG or WebP picture' }]);
        encoded.set(id, picture);
      }
      const job = await takeIn(read.archive.job, request.query, { store, feed, now });
      for (const [id, picture] of encoded) await photos.put(job.id, id, picture);
      return reply.code(201).send({ id: job.id });
    },
  );
}
