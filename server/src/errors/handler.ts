import { pointer } from '@inventario/core';
import type { FastifyError, FastifyInstance, FastifyReply } from 'fastify';
import { hasZodFastifySchemaValidationErrors, isResponseSerializationError } from 'fastify-type-provider-zod';
import { BaseError, ConnectionError } from 'sequelize';
import { ERRORS, type ErrorCode, RequestError } from './catalogue.js';

const BY_FASTIFY: Record<string, ErrorCode> = {
  FST_ERR_CTP_INVALID_JSON_BODY: 'not-json',
  FST_ERR_CTP_EMPTY_JSON_BODY: 'not-json',
  FST_ERR_CTP_INVALID_MEDIA_TYPE: 'wrong-media-type',
  FST_ERR_CTP_BODY_TOO_LARGE: 'too-large',
  FST_ERR_NOT_FOUND: 'no-such-route',
};

export function sendError(
  reply: FastifyReply,
  code: ErrorCode,
  problems: RequestError['problems'] = [],
): FastifyReply {
  const { status, says } = ERRORS[code];
  if (status === 503) reply.header('retry-after', '2');
  return reply
    .code(status)
    .send({ error: { code, message: says, ...(problems.length > 0 ? { problems } : {}) } });
}

/**
 * One shape for every failure, and a log entry for those that are ours: what and where, never with whose
 * values.
 */
export function handleErrors(app: FastifyInstance): void {
  app.setErrorHandler((error: FastifyError, request, reply) => {
    if (error instanceof RequestError) return sendError(reply, error.code, error.problems);
    if (hasZodFastifySchemaValidationErrors(error)) {
      const problems = error.validation.slice(0, 100).map((issue) => ({
        path:
          issue.instancePath ||
          pointer(
            ((issue.params as { issue?: { path?: PropertyKey[] } }).issue?.path ?? []) as PropertyKey[],
          ),
        message: issue.message ?? 'is not allowed',
      }));
      return sendError(reply, 'bad-request', problems);
    }
    const known = BY_FASTIFY[error.code];
    if (known) return sendError(reply, known);
    if (error.statusCode === 429) return sendError(reply, 'too-many-requests');
    const ours =
      isResponseSerializationError(error) || error.statusCode === undefined || error.statusCode >= 500;
    if (!ours) return sendError(reply, 'bad-request', [{ path: '', message: error.message }]);
    request.log.error(plainly(error), 'request failed');
    if ((error as { code?: string }).code === 'ENOSPC') return sendError(reply, 'disk-full');
    if (
      error instanceof ConnectionError ||
      (error instanceof BaseError && /connect|pool|ECONNRESET|shutdown/i.test(error.message))
    )
      return sendError(reply, 'database-unreachable');
    return sendError(reply, 'internal');
  });
}

/**
 * An error without its message, which may quote what somebody typed: its kind and where in the program it
 * came from.
 */
function plainly(error: Error & { code?: string }): {
  kind: string;
  code: string | undefined;
  where: string[];
} {
  const where = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return { kind: error.name, code: error.code, where: where.slice(0, 8).map((line) => line.trim()) };
}
