import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';

/** The application with requests and answers typed by the schemas of its routes. */
export const typed = (app: FastifyInstance) => app.withTypeProvider<ZodTypeProvider>();
export type TypedApp = ReturnType<typeof typed>;
