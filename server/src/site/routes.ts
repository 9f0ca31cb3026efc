import { Id, JoinRequest, JoinState, SiteState } from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { SiteGateway } from './site-client.js';

export function siteRoutes(app: FastifyInstance, site: SiteGateway): void {
  const typed = app.withTypeProvider<ZodTypeProvider>();

  typed.get(
    '/api/site',
    { schema: { summary: 'The router and its clients', response: { 200: SiteState } } },
    () => site.state(),
  );

  typed.post(
    '/api/site/joins',
    {
      bodyLimit: 16_384,
      schema: {
        summary: 'Starts a try at joining a device',
        body: JoinRequest,
        response: { 202: JoinState },
      },
    },
    async (request, reply) => reply.code(202).send(await site.startJoin(request.body)),
  );

  typed.get(
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
