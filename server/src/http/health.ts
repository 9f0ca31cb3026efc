import type { FastifyInstance } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { RequestError } from '../errors/catalogue.js';
import type { PhotoStore } from '../photos/photo-store.js';
import type { SiteGateway } from '../site/site-client.js';
import type { JobStore } from '../storage/job-store.js';

/** Less room than this for photographs is none, bytes. */
const LEAST_ROOM = 50_000_000;
/** A database that does not answer in this time does not serve, ms. */
const PATIENCE = 10_000;

const State = z.enum(['ok', 'down']);
const Health = z.object({
  ok: z.boolean(),
  database: State,
  disk: z.enum(['ok', 'full', 'down']),
  site: State,
  freeBytes: z.number().nullable(),
});

/** Whether the server serves, asked of each thing it rests on at that moment. */
export function healthRoutes(
  app: FastifyInstance,
  { store, photos, site }: { store: JobStore; photos: PhotoStore; site: SiteGateway },
): void {
  const typed = app.withTypeProvider<ZodTypeProvider>();
  const look = async (): Promise<z.infer<typeof Health>> => {
    const [database, free, reached] = await Promise.all([
      works(store.isEmpty()),
      photos.room().catch(() => null),
      works(site.state()),
    ]);
    const disk = free === null ? 'down' : free < LEAST_ROOM ? 'full' : 'ok';
    return {
      ok: database && disk === 'ok',
      database: database ? 'ok' : 'down',
      disk,
      site: reached ? 'ok' : 'down',
      freeBytes: free,
    };
  };

  typed.get(
    '/api/health',
    { schema: { summary: 'What works and what does not: database, disk, site', response: { 200: Health } } },
    look,
  );
  typed.get(
    '/api/ready',
    {
      schema: {
        summary: 'Whether changes can be taken now',
        response: { 200: z.object({ ready: z.literal(true) }) },
      },
    },
    async () => {
      const { database, disk } = await look();
      if (database === 'ok' && disk === 'ok') return { ready: true as const };
      throw new RequestError('not-ready', [
        ...(database === 'ok' ? [] : [{ path: 'database', message: 'does not answer' }]),
        ...(disk === 'ok'
          ? []
          : [{ path: 'disk', message: disk === 'full' ? 'is full' : 'cannot be written' }]),
      ]);
    },
  );
}

async function works(question: Promise<unknown>): Promise<boolean> {
  let clock: NodeJS.Timeout | undefined;
  const late = new Promise<false>((done) => {
    clock = setTimeout(() => done(false), PATIENCE);
  });
  const answered = question.then(
    () => true,
    () => false,
  );
  return Promise.race([answered, late]).finally(() => clearTimeout(clock));
}
