import type { FastifyInstance, FastifyRequest } from 'fastify';
import { sendError } from '../errors/handler.js';

const LOOPBACK = ['localhost', '127.0.0.1', '::1'];

export type HostCheck = (request: FastifyRequest) => boolean;

/**
 * Whether a request names the server as it is known: loopback, the address listened on, the address of this
 * machine the request came in at, or one of the list. Another name is somebody's page that resolves to here;
 * two names, or one in the address beside another in the header, are somebody's trick.
 */
export function hostCheck(hosts: readonly string[]): HostCheck {
  const known = new Set([
    ...LOOPBACK,
    ...hosts.map((host) => host.trim().toLowerCase()).filter((host) => host !== ''),
  ]);
  return (request) => {
    const names = hostNames(request);
    return names.length > 0 && names.every((name) => known.has(name) || name === arrivedAt(request));
  };
}

export function checkHost(app: FastifyInstance, knows: HostCheck): void {
  app.addHook('onRequest', async (request, reply) => {
    if (!knows(request)) return sendError(reply, 'wrong-host');
  });
}

/** Every name a request gives the server, in its address (`GET http://name/ HTTP/1.1`) and its headers. */
function hostNames({ raw }: FastifyRequest): string[] {
  const { rawHeaders } = raw;
  const names = rawHeaders.filter(
    (_, at) => at % 2 === 1 && /^(host|:authority)$/i.test(rawHeaders[at - 1] as string),
  );
  const inAddress = /^[a-z]+:\/\/([^/?#]*)/i.exec(raw.url ?? '')?.[1];
  return [...names, ...(inAddress === undefined ? [] : [inAddress])].map(bareName);
}

function bareName(host: string): string {
  const bare = host.replace(/:\d{1,5}$/, '').toLowerCase();
  return bare.startsWith('[') && bare.endsWith(']') ? bare.slice(1, -1) : bare;
}

const arrivedAt = (request: FastifyRequest) => request.raw.socket?.localAddress?.replace(/^::ffff:/, '');

/** What the API says is never kept by a browser or a proxy; routes that know better say so themselves. */
export function keepNothing(app: FastifyInstance): void {
  app.addHook('onSend', async (request, reply) => {
    if (request.url.startsWith('/api/') && !reply.hasHeader('cache-control'))
      reply.header('cache-control', 'no-store');
    reply.header('x-request-id', request.id);
  });
}
