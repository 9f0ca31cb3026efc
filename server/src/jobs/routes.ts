import {
  Change,
  EditsAnswer,
  EditsRequest,
  HistoryEntry,
  Id,
  JobSummary,
  LIST_KINDS,
  readJobDocument,
} from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import { type TypedApp, typed } from '../http/typed-app.js';
import { JobList } from '../storage/job-list.js';
import type { JobStore } from '../storage/job-store.js';
import type { Packing } from '../storage/packing.js';
import { applyEdits } from './apply-edits.js';
import type { ChangeFeed } from './change-feed.js';
import { summarise } from './summary.js';
import { TakeInQuery, takeIn } from './take-in.js';

const JobParams = z.object({ jobId: Id });
/** The number of a change of a job. */
const LAST_SEQUENCE = 2_147_483_647;
const Sequence = z.coerce.number().int().min(0).max(LAST_SEQUENCE);
const SearchText = z
  .string()
  .max(200)
  .refine((text) => !/\p{Surrogate}/u.test(text), { error: 'holds half a character (a lone surrogate)' });
/** The largest job file taken, bytes: far above 60 boxes with a thousand readings each. */
const LARGEST_JOB = 20_000_000;

/** What the routes of jobs work with. */
interface JobParts {
  store: JobStore;
  feed: ChangeFeed;
  now: () => Date;
}

export function jobRoutes(fastify: FastifyInstance, parts: JobParts): void {
  const app = typed(fastify);
  listRoutes(app, parts);
  wholeJobRoutes(app, parts);
  binRoutes(app, parts);
  editRoute(app, parts);
  changeRoutes(app, parts);
  historyRoute(app, parts);
  streamRoute(app, parts);
}

function listRoutes(app: TypedApp, { store, feed, now }: JobParts): void {
  const list = new JobList(store, store.tables, ({ job, updatedAt }) => summarise(job, updatedAt));

  app.get(
    '/api/jobs',
    {
      schema: {
        summary: 'Jobs in pages, the last touched first; the next page stands in the Link header',
        querystring: z.object({
          limit: z.coerce.number().int().min(1).max(500).default(100),
          after: Id.optional(),
          search: SearchText.optional(),
          order: z.enum(['touched', 'name']).default('touched'),
        }),
        response: { 200: z.array(JobSummary) },
      },
    },
    async (request, reply) => {
      const page = await list.page(request.query);
      if (!page) throw new RequestError('bad-request', [{ path: '/after', message: 'names no job' }]);
      if (page.next !== null) reply.header('link', `<${nextAddress(request.query, page.next)}>; rel="next"`);
      return page.jobs;
    },
  );

  app.post(
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
}

function wholeJobRoutes(app: TypedApp, { store }: JobParts): void {
  app.get(
    '/api/jobs/:jobId',
    {
      schema: {
        summary: 'The whole job, as a job file; the header x-job-sequence names the change it stands at',
        params: JobParams,
      },
    },
    async (request, reply) => {
      const found = await store.readText(request.params.jobId);
      if (!found) throw new RequestError('no-such-job');
      const tag = `"${found.generation}-${found.sequence}"`;
      reply
        .header('x-job-sequence', found.sequence)
        .header('x-job-generation', found.generation)
        .header('etag', tag);
      if (tagsOf(request.headers['if-none-match']).includes(tag)) return reply.code(304).send();
      const packing = packingFor(String(request.headers['accept-encoding'] ?? ''));
      if (packing !== 'identity') reply.header('content-encoding', packing);
      reply.header('vary', 'accept-encoding').type('application/json; charset=utf-8');
      return reply.send(await found.bytes(packing));
    },
  );
}

function binRoutes(app: TypedApp, { store, feed, now }: JobParts): void {
  app.delete(
    '/api/jobs/:jobId',
    {
      schema: {
        summary: 'Puts a job in the bin, where it stays 30 days',
        params: JobParams,
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      if (!(await store.remove(request.params.jobId, now()))) throw new RequestError('no-such-job');
      feed.wake(request.params.jobId);
      return reply.code(204).send(null);
    },
  );

  app.post(
    '/api/jobs/:jobId/return',
    {
      schema: { summary: 'Takes a job out of the bin again', params: JobParams, response: { 204: z.null() } },
    },
    async (request, reply) => {
      const { jobId } = request.params;
      if (!(await store.bringBack(jobId, now())))
        throw new RequestError((await store.isKnown(jobId)) ? 'not-in-bin' : 'no-such-job');
      feed.wake(jobId);
      return reply.code(204).send(null);
    },
  );
}

function editRoute(app: TypedApp, { store, feed, now }: JobParts): void {
  app.post(
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
}

function changeRoutes(app: TypedApp, { store }: JobParts): void {
  app.get(
    '/api/jobs/:jobId/changes',
    {
      schema: {
        summary: 'Changes after one, oldest first, at most 1000',
        params: JobParams,
        querystring: z.object({ since: Sequence }),
        response: { 200: z.array(Change) },
      },
    },
    async (request) => {
      if (!(await store.read(request.params.jobId))) throw new RequestError('no-such-job');
      return store.log.since(request.params.jobId, request.query.since);
    },
  );
}

function historyRoute(app: TypedApp, { store }: JobParts): void {
  app.get(
    '/api/jobs/:jobId/history',
    {
      schema: {
        summary: 'What was done to a job or to one record of it, newest first, with what would take it back',
        params: JobParams,
        querystring: z
          .object({
            kind: z.enum(['job', ...LIST_KINDS] as [string, ...string[]]).optional(),
            id: z.string().min(1).max(600).optional(),
            before: Sequence.optional(),
            limit: z.coerce.number().int().min(1).max(500).default(100),
          })
          .refine(({ kind, id }) => (kind === undefined) === (id === undefined), {
            path: ['id'],
            message: 'stands with kind: both name the record, or neither is given',
          }),
        response: { 200: z.array(HistoryEntry) },
      },
    },
    async (request) => {
      const { kind, id, before, limit } = request.query;
      if (!(await store.read(request.params.jobId))) throw new RequestError('no-such-job');
      const record = kind !== undefined && id !== undefined ? { kind, id } : undefined;
      return store.log.history(request.params.jobId, { before: before ?? LAST_SEQUENCE, limit, record });
    },
  );
}

function streamRoute(app: TypedApp, { store, feed }: JobParts): void {
  app.get(
    '/api/jobs/:jobId/changes/stream',
    {
      // A stream has no length to tell, and one that is only asked about would stay open for nothing.
      exposeHeadRoute: false,
      schema: {
        summary: 'Changes as they happen, as server-sent events; Last-Event-ID resumes',
        description:
          'Events: `change` (a Change; its id is the sequence), `generation` (`{generation, sequence}`: the job was replaced as a whole, read it anew), `gone` (it was taken out; the stream ends).',
        params: JobParams,
        querystring: z.object({ since: Sequence.optional(), generation: Id.optional() }),
      },
    },
    async (request, reply) => {
      const { jobId } = request.params;
      const stored = await store.read(jobId);
      if (!stored) throw new RequestError('no-such-job');
      if (feed.isFull) throw new RequestError('busy');
      const resumed = Number(request.headers['last-event-id'] ?? Number.NaN);
      const sequence =
        Number.isInteger(resumed) && resumed >= 0 ? resumed : (request.query.since ?? stored.sequence);
      reply.hijack();
      feed.follow(jobId, { sequence, generation: request.query.generation ?? stored.generation }, reply.raw);
    },
  );
}

/** The best packing a caller takes; one it refuses with `;q=0` is left out. */
function packingFor(accepted: string): Packing {
  const taken = accepted.split(',').flatMap((entry) => {
    const [name = '', ...options] = entry.trim().toLowerCase().split(';');
    return options.some((option) => /^\s*q=0(\.0*)?\s*$/.test(option)) ? [] : [name.trim()];
  });
  return taken.includes('br') ? 'br' : taken.includes('gzip') ? 'gzip' : 'identity';
}

/** The tags of an If-None-Match header; a weak one stands for the same document. */
const tagsOf = (header: string | undefined): string[] =>
  (header ?? '').split(',').map((tag) => tag.trim().replace(/^W\//, ''));

function nextAddress(
  query: { limit: number; search?: string | undefined; order: string },
  after: string,
): string {
  const next = new URLSearchParams({ limit: String(query.limit), order: query.order, after });
  if (query.search) next.set('search', query.search);
  return `/api/jobs?${next}`;
}
