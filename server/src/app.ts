import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import Fastify, { type FastifyInstance } from 'fastify';
import { createJsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { archiveRoutes } from './archive/routes.js';
import { catalogueRoutes } from './catalogue/routes.js';
import { handleErrors, sendError } from './errors/handler.js';
import { webPages } from './http/web-pages.js';
import { ChangeFeed } from './jobs/change-feed.js';
import { jobRoutes } from './jobs/routes.js';
import type { PhotoStore } from './photos/photo-store.js';
import { photoRoutes } from './photos/routes.js';
import { siteRoutes } from './site/routes.js';
import type { SiteGateway } from './site/site-client.js';
import type { JobStore } from './storage/job-store.js';

export interface AppOptions {
  store: JobStore;
  site: SiteGateway;
  photos: PhotoStore;
  /** Folder of the built web application; absent: the API alone. */
  webFolder?: string;
  now?: () => Date;
  https?: { key: Buffer; cert: Buffer };
  logLevel?: string;
  /** Requests to the API one address may make in a minute. */
  requestsPerMinute?: number;
}

export async function build(options: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    logger: { level: options.logLevel ?? 'warn' },
    bodyLimit: 100_000,
    ...(options.https ? { https: options.https } : {}),
    forceCloseConnections: true,
  }) as unknown as FastifyInstance;
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  handleErrors(app);

  await app.register(helmet, {
    // Plain HTTP on a site's own network: nothing may be upgraded to a scheme that is not served.
    contentSecurityPolicy: {
      directives: { 'upgrade-insecure-requests': null, 'worker-src': ["'self'", 'blob:'], 'img-src': ["'self'", 'data:', 'blob:'] },
    },
    strictTransportSecurity: options.https !== undefined,
  });
  await app.register(rateLimit, {
    max: options.requestsPerMinute ?? 3000,
    timeWindow: '1 minute',
    allowList: (request) => !request.url.startsWith('/api/'),
  });
  await app.register(swagger, {
    openapi: { openapi: '3.1.0', info: { title: 'Inventario', version: '1', description: 'Errors are listed in docs/errors.md.' } },
    transform: createJsonSchemaTransform({}),
  });
  await app.register(swaggerUi, { routePrefix: '/api/docs' });

  const feed = new ChangeFeed(options.store);
  app.addHook('preClose', async () => feed.close());
  app.get(
    '/api/health',
    { schema: { summary: 'Whether the server answers', response: { 200: z.object({ ok: z.literal(true) }) } } },
    () => ({
      ok: true as const,
    }),
  );
  const now = options.now ?? (() => new Date());
  jobRoutes(app, { store: options.store, feed, now });
  archiveRoutes(app, { store: options.store, photos: options.photos, feed, now });
  catalogueRoutes(app);
  photoRoutes(app, { store: options.store, photos: options.photos });
  siteRoutes(app, options.site);
  if (options.webFolder) await webPages(app, options.webFolder);
  else app.setNotFoundHandler((_, reply) => sendError(reply, 'no-such-route'));
  return app;
}
