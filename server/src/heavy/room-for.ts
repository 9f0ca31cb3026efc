import type { onRequestHookHandler } from 'fastify';
import { RequestError } from '../errors/catalogue.js';
import type { Heavy } from './heavy.js';

/**
 * Takes room for a large body before the first byte of it is read, and gives it back when the answer is out.
 */
export function roomFor(heavy: Heavy, largest: number): onRequestHookHandler {
  return async (request, reply) => {
    const declared = Number(request.headers['content-length'] ?? largest);
    // One that is too large is refused by its length, without room being taken for it.
    if (!(declared <= largest)) return;
    const giveBack = heavy.reserve(declared);
    if (!giveBack) throw new RequestError('busy');
    reply.raw.once('close', giveBack);
  };
}
