import type { FastifyInstance } from 'fastify';
import type { Site } from './site.js';

/** How often a quiet line says that it is still there, ms. */
const STILL_HERE = 15_000;

/** How often a try is looked at while somebody listens, ms. */
const LOOK_EVERY = 200;

/** Server-sent events: what joined channels tell, how far tries are, what assistants found and heard. */
export function eventStream(app: FastifyInstance, site: Site): void {
  const lines = new Set<() => void>();
  app.get('/events', (_, reply) => {
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    raw.write('retry: 1500\n\n');
    const say = (event: string, data: unknown) =>
      raw.write(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
    const unlisten = site.listen(({ kind, ...told }) => say(kind, 'state' in told ? told.state : told));
    // Tries go on by the clock: somebody has to look.
    const looking = setInterval(() => site.tellTries(), LOOK_EVERY);
    const beat = setInterval(() => raw.write(': still here\n\n'), STILL_HERE);
    const end = () => {
      clearInterval(beat);
      clearInterval(looking);
      unlisten();
      lines.delete(end);
      raw.end();
    };
    lines.add(end);
    raw.on('close', end);
  });
  app.addHook('preClose', async () => {
    for (const end of lines) end();
  });
}
