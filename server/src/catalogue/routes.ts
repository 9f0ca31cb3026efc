import { Catalogue } from '@inventario/core';
import { demoCatalogue } from '@inventario/demo';
import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';

/** What a new job takes its devices, hubs and parts from. */
export function catalogueRoutes(app: FastifyInstance): void {
  app
    .withTypeProvider<ZodTypeProvider>()
    .get(
      '/api/catalogue',
      { schema: { summary: 'The catalogue new jobs begin with', response: { 200: Catalogue } } },
      () => demoCatalogue(),
    );
}
