import { Id } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { Heavy } from '../heavy/heavy.js';
import { roomFor } from '../heavy/room-for.js';
import type { JobStore } from '../storage/job-store.js';
import type { PhotoStore } from './photo-store.js';

const PhotoParams = z.object({ jobId: Id, photoId: Id });
/** The largest photograph taken, bytes. The web application shrinks them before. */
const LARGEST_PHOTO = 15_000_000;

export function photoRoutes(
  app: FastifyInstance,
  { store, photos, heavy }: { store: JobStore; photos: PhotoStore; heavy: Heavy },
): void {
  app.addContentTypeParser(
    ['image/jpeg', 'image/png', 'image/webp'],
    { parseAs: 'buffer', bodyLimit: LARGEST_PHOTO },
    (_, body, done) => done(null, body),
  );
  const typed = app.withTypeProvider<ZodTypeProvider>();

  /** A picture is kept and given only for a photograph that its job names. */
  const named = async ({ jobId, photoId }: z.infer<typeof PhotoParams>) => {
    const stored = await store.read(jobId);
    if (!stored) throw new RequestError('no-such-job');
    if (!stored.job.photos.some((photo) => photo.id === photoId)) throw new RequestError('no-such-photo');
  };

  typed.put(
    '/api/jobs/:jobId/photos/:photoId',
    {
      bodyLimit: LARGEST_PHOTO,
      onRequest: roomFor(heavy, LARGEST_PHOTO),
      schema: {
        summary: 'Keeps the picture of a photograph the job names, re-encoded and stripped of position data',
        params: PhotoParams,
        response: { 200: z.object({ width: z.number(), height: z.number() }) },
      },
    },
    async (request) => {
      const { jobId, photoId } = request.params;
      await named(request.params);
      const encoded = Buffer.isBuffer(request.body) ? await heavy.picture(request.body) : null;
      if (!encoded)
        throw new RequestError('not-a-picture', [
          { path: '', message: 'must be a JPEG, PNG or WebP picture' },
        ]);
      await photos.put(jobId, photoId, encoded);
      return { width: encoded.width, height: encoded.height };
    },
  );

  typed.get(
    '/api/jobs/:jobId/photos/:photoId',
    {
      schema: {
        summary: 'A photograph, or its thumbnail',
        params: PhotoParams,
        querystring: z.object({ size: z.enum(['full', 'thumb']).optional() }),
      },
    },
    async (request, reply) => {
      const { jobId, photoId } = request.params;
      await named(request.params);
      const bytes = await photos.get(jobId, photoId, request.query.size ?? 'full');
      if (!bytes) throw new RequestError('no-such-photo');
      return reply
        .type('image/jpeg')
        .header('cache-control', 'private, max-age=31536000, immutable')
        .send(bytes);
    },
  );

  typed.delete(
    '/api/jobs/:jobId/photos/:photoId',
    { schema: { summary: 'Takes a picture out', params: PhotoParams, response: { 204: z.null() } } },
    async (request, reply) => {
      const { jobId, photoId } = request.params;
      if (!(await store.read(jobId))) throw new RequestError('no-such-job');
      await photos.remove(jobId, photoId);
      return reply.code(204).send(null);
    },
  );
}
