import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import type { FastifyInstance } from 'fastify';
import { createJsonSchemaTransform } from 'fastify-type-provider-zod';

/** The API in its own words, at /api/docs. */
export async function describeApi(app: FastifyInstance): Promise<void> {
  await app.register(swagger, {
    openapi: { openapi: '3.1.0', info: { title: 'Inventario', version: '1', description: 'Errors are listed in docs/errors.md.' } },
    transform: createJsonSchemaTransform({}),
  });
  await app.register(swaggerUi, { routePrefix: '/api/docs' });
}
