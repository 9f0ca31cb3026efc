import type { FastifyInstance, FastifyRequest } from 'fastify';
import { sendError } from '../errors/handler.js';

const LOOPBACK = ['localhost', '127.0.0.1', '::1'];

/**
 * Answers only to names the server is known by: loopback, the address listened on, the address of this machine the request came in at,
 * and the list given. Another name is somebody's page that resolves to here.
 */
export function checkHost(app: FastifyInstance, hosts: readonly string[]): void {
  const known = new Set([...LOOPBACK, ...hosts.map((host) => host.trim().toLowerCase()).filter((host) => host !== '')]);
  app.addHook('onRequest', async (request, reply) => {
    const name = hostName(request);
    if (name !== undefined && (known.has(name) || name === arrivedAt(request))) return;
    return sendError(reply, 'wrong-host');
  });
}

function hostName(request: FastifyRequest): string | undefined {
  const header = request.headers[':authority'] ?? request.headers.host;
  if (typeof header !== 'string') return undefined;
  const bare = header.replace(/:\d{1,5}$/, '').toLowerCase();
  return bare.startsWith('[') && bare.endsWith(']') ? bare.slice(1, -1) : bare;
}

const arrivedAt = (request: FastifyRequest) => request.raw.socket?.localAddress?.replace(/^::ffff:/, '');

/** What the API says is never kept by a browser or a proxy; routes that know better say so themselves. */
export function keepNothing(app: FastifyInstance): void {
  app.addHook('onSend', async (request, reply) => {
    if (request.url.startsWith('/api/') && !reply.hasHeader('cache-control')) reply.header('cache-control', 'no-store');
    reply.header('x-request-id', request.id);
  });
}
