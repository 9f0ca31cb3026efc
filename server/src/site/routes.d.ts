import type { FastifyInstance } from 'fastify';
import type { SiteGateway } from './site-client.js';
export declare function siteRoutes(app: FastifyInstance, site: SiteGateway): void;
