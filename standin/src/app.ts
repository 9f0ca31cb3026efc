import { JoinRequest, schemaProblems } from '@inventario/core';
import Fastify, { type FastifyInstance } from 'fastify';
import { Site } from './site.js';

/** The stand-in site behind HTTP. `speed` above 1 makes joins faster, for tests. */
export function buildSite(
  options: { clientLimit?: number; otherClients?: number; hubs?: boolean; speed?: number } = {},
): FastifyInstance {
  const site = new Site({ clientLimit: 32, otherClients: 9, hubs: true, speed: 1, ...options }, () =>
    Date.now(),
  );
  const app = Fastify({ logger: false, bodyLimit: 16_384 });

  app.get('/site', () => site.state());

  app.post('/joins', (request, reply) => {
    const parsed = JoinRequest.safeParse(request.body);
    if (!parsed.success)
      return reply.code(400).send({ problems: schemaProblems(parsed.error, request.body) });
    return reply.code(202).send(site.start(parsed.data));
  });

  app.get<{ Params: { id: string } }>('/joins/:id', (request, reply) => {
    const state = site.join(request.params.id);
    return state ?? reply.code(404).send({ problems: [{ path: '/id', message: 'names no join' }] });
  });

  return app;
}
