import { STATUS_CODES } from 'node:http';
import type { Socket } from 'node:net';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { ERRORS, type ErrorCode } from '../errors/catalogue.js';
import { sendError } from '../errors/handler.js';
import type { HostCheck } from './guard.js';

/**
 * Refuses what the router makes nothing of (an escape that is none, a part of the address beyond any id) as a
 * route would.
 */
export function refuseAddress(knows: HostCheck) {
  return (_: Error, request: FastifyRequest, reply: FastifyReply): void => {
    if (!knows(request)) return void sendError(reply, 'wrong-host');
    sendError(reply, 'bad-request', [{ path: '', message: 'is not an address of the API' }]);
  };
}

const BY_PARSER: Record<string, ErrorCode> = {
  ERR_HTTP_REQUEST_TIMEOUT: 'too-slow',
  HPE_HEADER_OVERFLOW: 'head-too-large',
};

/** Refuses what never became a request: it is answered on the bare line, which is then closed. */
export function refuseLine(error: Error & { code?: string }, socket: Socket): void {
  if (error.code === 'ECONNRESET' || socket.destroyed) return;
  const code = BY_PARSER[error.code ?? ''] ?? 'bad-request';
  const { status, says } = ERRORS[code];
  const body = JSON.stringify({ error: { code, message: says } });
  const head = [
    `HTTP/1.1 ${status} ${STATUS_CODES[status]}`,
    'Content-Type: application/json',
    `Content-Length: ${Buffer.byteLength(body)}`,
  ];
  if (socket.writable)
    socket.write(`${[...head, 'Cache-Control: no-store', 'Connection: close'].join('\r\n')}\r\n\r\n${body}`);
  socket.destroy(error);
}
