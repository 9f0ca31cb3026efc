import { existsSync } from 'node:fs';
import { extname, join } from 'node:path';
import fastifyStatic from '@fastify/static';
import type { FastifyInstance } from 'fastify';
import { sendError } from '../errors/handler.js';

/** The built web application. Hashed assets may be kept for ever; the page and the service worker never. */
export async function webPages(app: FastifyInstance, folder: string): Promise<void> {
  if (!existsSync(join(folder, 'index.html')))
    throw new Error(`No built web application in ${folder}: run npm run build in web`);
  await app.register(fastifyStatic, {
    root: folder,
    wildcard: false,
    cacheControl: false,
    preCompressed: true,
    setHeaders: (reply, path) => {
      const kept = path.includes('/assets/') || path.includes('\\assets\\');
      reply.header('cache-control', kept ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  // Addresses of the application are its own business: they all get the page. A file that is not there is not
  // there.
  app.setNotFoundHandler((request, reply) => {
    const [path = ''] = request.url.split('?');
    return (request.method === 'GET' || request.method === 'HEAD') &&
      !path.startsWith('/api/') &&
      path !== '/api' &&
      extname(path) === ''
      ? reply.header('cache-control', 'no-cache').sendFile('index.html')
      : sendError(reply, 'no-such-route');
  });
}
