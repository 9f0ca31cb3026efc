import { Id } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { Heavy } from '../heavy/heavy.js';
import { roomFor } from '../heavy/room-for.js';
import { type TypedApp, typed } from '../http/typed-app.js';
import type { JobStore } from '../storage/job-store.js';
import type { PhotoStore } from './photo-store.js';

const PhotoParams = z.object({ jobId: Id, photoId: Id });
/** The largest photograph taken, bytes. The web application shrinks them before. */
const LARGEST_PHOTO = 15_000_000;

interface PhotoParts {
  store: JobStore;
  photos: PhotoStore;
  heavy: Heavy;
}

export function photoRoutes(fastify: FastifyInstance, parts: PhotoParts): void {
  fastify.addContentTypeParser(
    ['image/jpeg', 'image/png', 'image/webp'],
    { parseAs: 'buffer', bodyLimit: LARGEST_PHOTO },
    (_, body, done) => done(null, body),
  );
  const app = typed(fastify);
  takePicture(app, parts);
  givePicture(app, parts);
}

/** A picture is kept and given only for a photograph that its job names. */
async function mustBeNamed(store: JobStore, { jobId, photoId }: z.infer<typeof PhotoParams>): Promise<void> {
  const stored = await store.read(jobId);
  if (!stored) throw new RequestError('no-such-job');
  if (!stored.job.photos.some((photo) => photo.id === photoId)) throw new RequestError('no-such-photo');
}

function takePicture(app: TypedApp, { store, photos, heavy }: PhotoParts): void {
  app.put(
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
      await mustBeNamed(store, request.params);
      const encoded = Buffer.isBuffer(request.body) ? await heavy.picture(request.body) : null;
      if (!encoded)
        throw new RequestError('not-a-picture', [
          { path: '', message: 'must be a JPEG, PNG or WebP picture' },
        ]);
      await photos.put(jobId, photoId, encoded);
      return { width: encoded.width, height: encoded.height };
    },
  );

  app.delete(
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

function givePicture(app: TypedApp, { store, photos }: PhotoParts): void {
  app.get(
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
      await mustBeNamed(store, request.params);
      const bytes = await photos.get(jobId, photoId, request.query.size ?? 'full');
      if (!bytes) throw new RequestError('no-such-photo');
      return reply
        .type('image/jpeg')
        .header('cache-control', 'private, max-age=31536000, immutable')
        .send(bytes);
    },
  );
}
