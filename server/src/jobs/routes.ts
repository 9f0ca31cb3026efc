import { Change, EditsAnswer, EditsRequest, Id, JobSummary, readJobDocument } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { JobStore } from '../storage/job-store.js';
import { applyEdits } from './apply-edits.js';
import type { ChangeFeed } from './change-feed.js';
import { summarise } from './summary.js';
import { TakeInQuery, takeIn } from './take-in.js';

const JobParams = z.object({ jobId: Id });
/** The largest job file taken, bytes: far above 60 boxes with a thousand readings each. */
const LARGEST_JOB = 20_000_000;

export function jobRoutes(app: FastifyInstance, { store, feed, now }: { store: JobStore; feed: ChangeFeed; now: () => Date }): void {
  const typed = app.withTypeProvider<ZodTypeProvider>();

  typed.get('/api/jobs', { schema: { summary: 'All jobs, the last touched first', response: { 200: z.array(JobSummary) } } }, async () => {
    const summaries: JobSummary[] = [];
    for (const id of await store.ids()) {
      const stored = await store.read(id);
      if (stored) summaries.push(summarise(stored.job, stored.updatedAt));
    }
    return summaries;
  });

  typed.post(
    '/api/jobs',
    {
      bodyLimit: LARGEST_JOB,
      schema: {
        summary: 'Takes a job file in',
        querystring: TakeInQuery,
        body: z.looseObject({}),
        response: { 201: z.object({ id: z.string() }) },
      },
    },
    async (request, reply) => {
      const result = readJobDocument(request.body);
      if (!result.ok) throw new RequestError('unusable-job', result.problems.slice(0, 100));
      const job = await takeIn(result.job, request.query, { store, feed, now });
      return reply.code(201).send({ id: job.id });
    },
  );

  typed.get(
    '/api/jobs/:jobId',
    { schema: { summary: 'The whole job, as a job file; the header x-job-sequence names the change it stands at', params: JobParams } },
    async (request, reply) => {
      const found = await store.readText(request.params.jobId);
      if (!found) throw new RequestError('no-such-job');
      return reply.header('x-job-sequence', found.sequence).type('application/json; charset=utf-8').send(found.text);
    },
  );

  typed.delete(
    '/api/jobs/:jobId',
    { schema: { summary: 'Takes a job out, with everything in it', params: JobParams, response: { 204: z.null() } } },
    async (request, reply) => {
      if (!(await store.remove(request.params.jobId))) throw new RequestError('no-such-job');
      feed.wake(request.params.jobId);
      return reply.code(204).send(null);
    },
  );

  typed.post(
    '/api/jobs/:jobId/edits',
    {
      bodyLimit: 8_000_000,
      schema: {
        summary: 'Applies up to 50 edits in order; sending again is always safe',
        params: JobParams,
        body: EditsRequest,
        response: { 200: EditsAnswer },
      },
    },
    async (request) => {
      const answer = await applyEdits(store, request.params.jobId, request.body.edits, now);
      feed.wake(request.params.jobId);
      return answer;
    },
  );

  typed.get(
    '/api/jobs/:jobId/changes',
    {
      schema: {
        summary: 'Changes after one, oldest first, at most 1000',
        params: JobParams,
        querystring: z.object({ since: z.coerce.number().int().min(0) }),
        response: { 200: z.array(Change) },
      },
    },
    async (request) => {
      if (!(await store.read(request.params.jobId))) throw new RequestError('no-such-job');
      return store.changes(request.params.jobId, request.query.since);
    },
  );

  typed.get(
    '/api/jobs/:jobId/changes/stream',
    {
      schema: {
        summary: 'Changes as they happen, as server-sent events; Last-Event-ID resumes',
        params: JobParams,
        querystring: z.object({ since: z.coerce.number().int().min(0).optional() }),
      },
    },
    async (request, reply) => {
      const { jobId } = request.params;
      const stored = await store.read(jobId);
      if (!stored) throw new RequestError('no-such-job');
      const resumed = Number(request.headers['last-event-id']);
      const since = Number.isInteger(resumed) && resumed >= 0 ? resumed : (request.query.since ?? stored.sequence);
      reply.hijack();
      feed.follow(jobId, since, reply.raw);
    },
  );
}
