import { Id } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { JobStore } from '../storage/job-store.js';
import { type PhotoStore, reencode } from './photo-store.js';

const PhotoParams = z.object({ jobId: Id, photoId: Id });
/** The largest photograph taken, bytes. The web application shrinks them before. */
const LARGEST_PHOTO = 15_000_000;

export function photoRoutes(app: FastifyInstance, { store, photos }: { store: JobStore; photos: PhotoStore }): void {
  app.addContentTypeParser(['image/jpeg', 'image/png', 'image/webp'], { parseAs: 'buffer', bodyLimit: LARGEST_PHOTO }, (_, body, done) =>
    done(null, body),
  );
  const typed = app.withTypeProvider<ZodTypeProvider>();

  typed.put(
    '/api/jobs/:jobId/photos/:photoId',
    {
      bodyLimit: LARGEST_PHOTO,
      schema: {
        summary: 'Keeps a photograph, re-encoded and stripped of position data',
        params: PhotoParams,
        response: { 200: z.object({ width: z.number(), height: z.number() }) },
      },
    },
    async (request) => {
      const { jobId, photoId } = request.params;
      if (!(await store.read(jobId))) throw new RequestError('no-such-job');
      const encoded = Buffer.isBuffer(request.body) ? await reencode(request.body) : null;
      if (!encoded) throw new RequestError('not-a-picture', [{ path: '', message: 'must be a JPEG, PNG or WebP picture' }]);
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
      const bytes = await photos.get(jobId, photoId, request.query.size ?? 'full');
      if (!bytes) throw new RequestError('no-such-photo');
      return reply.type('image/jpeg').header('cache-control', 'private, max-age=31536000, immutable').send(bytes);
    },
  );

  typed.delete(
    '/api/jobs/:jobId/photos/:photoId',
    { schema: { summary: 'Takes a photograph out', params: PhotoParams, response: { 204: z.null() } } },
    async (request, reply) => {
      await photos.remove(request.params.jobId, request.params.photoId);
      return reply.code(204).send(null);
    },
  );
}
