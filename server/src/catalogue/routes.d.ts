import type { FastifyInstance } from 'fastify';
/** What a new job takes its devices, hubs and parts from. */
export declare function catalogueRoutes(app: FastifyInstance): void;
