import type { FastifyInstance } from 'fastify';
/** The built web application. Hashed assets may be kept for ever; the page and the service worker never. */
export declare function webPages(app: FastifyInstance, folder: string): Promise<void>;
