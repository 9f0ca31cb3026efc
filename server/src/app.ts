import { randomUUID } from 'node:crypto';
import { constants } from 'node:zlib';
import compress from '@fastify/compress';
import helmet from '@fastify/helmet';
import rateLimit from '@fastify/rate-limit';
import Fastify, { type FastifyInstance } from 'fastify';
import { serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod';
import { archiveRoutes } from './archive/routes.js';
import { catalogueRoutes } from './catalogue/routes.js';
import { describeApi } from './docs/describe-api.js';
import { handleErrors, sendError } from './errors/handler.js';
import { Heavy } from './heavy/heavy.js';
import { refuseAddress, refuseLine } from './http/before-routes.js';
import { checkHost, hostCheck, keepNothing } from './http/guard.js';
import { healthRoutes } from './http/health.js';
import { webPages } from './http/web-pages.js';
import { ChangeFeed } from './jobs/change-feed.js';
import { jobRoutes } from './jobs/routes.js';
import type { PhotoStore } from './photos/photo-store.js';
import { photoRoutes } from './photos/routes.js';
import { LiveStates } from './site/live-states.js';
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
  /** Where the log goes instead of standard output. */
  logTo?: { write(line: string): void };
  /** Requests to the API one address may make in a minute. */
  requestsPerMinute?: number;
  /** Names this server answers to beside loopback and the address a request came in at. */
  hosts?: readonly string[];
}

/**
 * A whole request has to be in by then, ms: a large archive over a slow line is, a body that drips is not.
 */
const REQUEST_TIME = 600_000;
const LINES = {
  /** The headers of a request have to be in by then, ms. */
  headersTimeout: 20_000,
  /** How often the times above are looked after, ms. */
  connectionsCheckingInterval: 5_000,
};
/** Lines open at once; further ones are closed unread. */
const MOST_LINES = 2000;

export async function build(options: AppOptions): Promise<FastifyInstance> {
  const knows = hostCheck(options.hosts ?? []);
  const app = bare(options, knows);
  app.server.maxConnections = MOST_LINES;
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  handleErrors(app);
  keepNothing(app);
  checkHost(app, knows);

  await registerGuards(app, options);
  await describeApi(app);

  const feed = new ChangeFeed(options.store);
  const heavy = new Heavy();
  app.addHook('preClose', async () => feed.close());
  app.addHook('onClose', async () => heavy.close());
  const { store, photos, site } = options;
  const now = options.now ?? (() => new Date());
  healthRoutes(app, { store, photos, site });
  jobRoutes(app, { store, feed, now });
  archiveRoutes(app, { store, photos, feed, now, heavy });
  catalogueRoutes(app);
  photoRoutes(app, { store, photos, heavy });
  const live = new LiveStates(() => site.broker());
  app.addHook('onReady', async () => void live.start());
  app.addHook('onClose', () => live.close());
  siteRoutes(app, { site, live });
  if (options.webFolder) await webPages(app, options.webFolder);
  else app.setNotFoundHandler((_, reply) => sendError(reply, 'no-such-route'));
  return app;
}

/** Fastify with its limits and its log, before any plugin. */
function bare(options: AppOptions, knows: ReturnType<typeof hostCheck>): FastifyInstance {
  return Fastify({
    logger: {
      level: options.logLevel ?? 'warn',
      ...(options.logTo ? { stream: options.logTo } : {}),
      // Addresses hold ids and searches: the route says enough.
      serializers: { req: (request) => ({ method: request.method, route: request.routeOptions?.url }) },
    },
    genReqId: () => randomUUID(),
    bodyLimit: 100_000,
    requestTimeout: REQUEST_TIME,
    routerOptions: { maxParamLength: 200 },
    frameworkErrors: refuseAddress(knows),
    clientErrorHandler: refuseLine,
    ...(options.https ? { https: { ...options.https, ...LINES } } : { http: LINES }),
    forceCloseConnections: true,
  }) as unknown as FastifyInstance;
}

/** Headers, packing and how often one address may ask. */
async function registerGuards(app: FastifyInstance, options: AppOptions): Promise<void> {
  await app.register(helmet, {
    contentSecurityPolicy: {
      directives: {
        // Plain HTTP on a site's own network: nothing may be upgraded to a scheme that is not served.
        'upgrade-insecure-requests': null,
        'worker-src': ["'self'", 'blob:'],
        'img-src': ["'self'", 'data:', 'blob:'],
        'style-src': ["'self'"],
        'font-src': ["'self'"],
      },
    },
    strictTransportSecurity: options.https !== undefined,
  });
  await app.register(compress, { encodings: ['br', 'gzip'], threshold: 1024, brotliOptions: BROTLI });
  await app.register(rateLimit, {
    max: options.requestsPerMinute ?? 3000,
    timeWindow: '1 minute',
    allowList: (request) => !request.url.startsWith('/api/'),
  });
}

/** Quick before small: a whole job is packed anew at each change of it. */
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } };
