import type { FastifyInstance, FastifyReply } from 'fastify';
import { type ErrorCode, RequestError } from './catalogue.js';
export declare function sendError(reply: FastifyReply, code: ErrorCode, problems?: RequestError['problems']): FastifyReply;
/** One shape for every failure, and a log entry for those that are ours. */
export declare function handleErrors(app: FastifyInstance): void;
