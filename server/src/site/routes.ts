import type { ServerResponse } from 'node:http';
import {
  ChannelState,
  CommandRequest,
  DeedRequest,
  FindRequest,
  FindResult,
  Id,
  JoinRequest,
  JoinState,
  LookRequest,
  LookResult,
  SayRequest,
  SayResult,
  SiteState,
  UpdateRequest,
  UpdateResult,
} from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import { type TypedApp, typed } from '../http/typed-app.js';
import type { LiveStates } from './live-states.js';
import type { SiteGateway } from './site-client.js';

interface SiteParts {
  site: SiteGateway;
  live: LiveStates;
}

export function siteRoutes(app: FastifyInstance, parts: SiteParts): void {
  const routes = typed(app);
  joinRoutes(routes, parts);
  handRoutes(routes, parts);
  assistantRoutes(routes, parts);
  liveRoutes(routes, parts);
}

/** The most a body of these routes holds, bytes. */
const bodyLimit = 16_384;

function joinRoutes(app: TypedApp, { site }: SiteParts): void {
  app.get(
    '/api/site',
    { schema: { summary: 'The router, its clients and the hubs', response: { 200: SiteState } } },
    () => site.state(),
  );
  app.post(
    '/api/site/joins',
    {
      bodyLimit,
      schema: {
        summary: 'Starts a try at joining a device',
        body: JoinRequest,
        response: { 202: JoinState },
      },
    },
    async (request, reply) => reply.code(202).send(await site.startJoin(request.body)),
  );
  app.get(
    '/api/site/joins/:joinId',
    {
      schema: {
        summary: 'How far a try has come',
        params: z.object({ joinId: Id }),
        response: { 200: JoinState },
      },
    },
    (request) => site.join(request.params.joinId),
  );
}

/** What hands and eyes do between two tries. */
function handRoutes(app: TypedApp, { site }: SiteParts): void {
  app.post(
    '/api/site/deeds',
    {
      bodyLimit,
      schema: {
        summary: 'Tells the site what the installer did at a device',
        body: DeedRequest,
        response: { 200: z.object({ outcome: z.enum(['done', 'cannot']) }) },
      },
    },
    async (request) => ({ outcome: await site.deed(request.body) }),
  );
  app.post(
    '/api/site/looks',
    {
      bodyLimit,
      schema: {
        summary: 'What the router or hub says of a device; null for what only eyes can see',
        body: LookRequest,
        response: { 200: LookResult },
      },
    },
    (request) => site.look(request.body),
  );
  app.post(
    '/api/site/updates',
    {
      bodyLimit,
      schema: {
        summary: 'Updates a joined device',
        body: UpdateRequest,
        response: { 200: UpdateResult },
      },
    },
    (request) => site.update(request.body),
  );
}

function assistantRoutes(app: TypedApp, { site }: SiteParts): void {
  app.post(
    '/api/site/finds',
    {
      bodyLimit,
      schema: {
        summary: 'Has an app look for a channel by its name and room',
        body: FindRequest,
        response: { 200: FindResult },
      },
    },
    (request) => site.find(request.body),
  );
  app.post(
    '/api/site/sayings',
    {
      bodyLimit,
      schema: {
        summary: 'Says words to an assistant, and tells which channels answered',
        body: SayRequest,
        response: { 200: SayResult },
      },
    },
    (request) => site.say(request.body),
  );
}

/** Lines open at once; a server that is asked for more says so. */
const MOST_LINES = 400;
const STILL_HERE = 20_000;

function liveRoutes(app: TypedApp, { live }: SiteParts): void {
  app.get(
    '/api/site/states',
    {
      schema: {
        summary: 'What joined channels told last, and whether they are heard now',
        response: { 200: z.object({ connected: z.boolean(), states: z.array(ChannelState) }) },
      },
    },
    () => ({ connected: live.connected, states: live.all() }),
  );
  app.post(
    '/api/site/commands',
    {
      bodyLimit,
      schema: {
        summary: 'Switches or dims a joined channel, and tells how long it took',
        body: CommandRequest,
        response: { 200: z.object({ ms: z.number() }) },
      },
    },
    async (request) => ({ ms: await live.command(request.body) }),
  );
  streamRoute(app, live);
}

/** What joined channels tell, as server-sent events. */
function streamRoute(app: TypedApp, live: LiveStates): void {
  const lines = new Set<() => void>();
  app.addHook('preClose', async () => {
    for (const end of lines) end();
  });
  app.get(
    '/api/site/stream',
    {
      // A stream that is only asked about would stay open for nothing.
      exposeHeadRoute: false,
      schema: {
        summary: 'What joined channels tell, as it happens',
        description: 'Events: `state` (a ChannelState), `broker` (`{connected}`).',
      },
    },
    (_, reply) => {
      if (lines.size >= MOST_LINES) throw new RequestError('busy');
      reply.hijack();
      tellOf(live, reply.raw, lines);
    },
  );
}

/** Keeps telling until either side ends it. */
function tellOf(live: LiveStates, line: ServerResponse, lines: Set<() => void>): void {
  line.writeHead(200, {
    'content-type': 'text/event-stream',
    'cache-control': 'no-store',
    'x-accel-buffering': 'no',
  });
  const say = (event: string, data: unknown) =>
    line.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
  line.write('retry: 1500\n\n');
  say('broker', { connected: live.connected });
  const unlisten = live.listen((event) =>
    event.kind === 'state' ? say('state', event.state) : say('broker', { connected: event.connected }),
  );
  const beat = setInterval(() => line.write(': still here\n\n'), STILL_HERE);
  const end = () => {
    clearInterval(beat);
    unlisten();
    lines.delete(end);
    line.end();
  };
  lines.add(end);
  line.on('close', end);
}
