import swagger from '@fastify/swagger';
import swaggerUi from '@fastify/swagger-ui';
import {
  Catalogue,
  Change,
  ChannelState,
  Edit,
  EditAnswer,
  EditPart,
  EditsAnswer,
  HistoryEntry,
  Job,
  JobSummary,
  JoinRequest,
  JoinState,
  SiteState,
} from '@inventario/core';
import type { FastifyInstance } from 'fastify';
import { createJsonSchemaTransform, createJsonSchemaTransformObject } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { ERRORS, type ErrorCode } from '../errors/catalogue.js';
import { ALWAYS, OPERATIONS, type Operation, TAGS } from './operations.js';

/** Schemas that stand once in the document, under the names they have in the core. */
const COMPONENTS = {
  Catalogue,
  Change,
  ChannelState,
  Edit,
  EditAnswer,
  EditPart,
  EditsAnswer,
  HistoryEntry,
  Job,
  JobSummary,
  JoinRequest,
  JoinState,
  SiteState,
};

const registry = z.registry<{ id: string }>();
for (const [id, schema] of Object.entries(COMPONENTS)) registry.add(schema, { id });

interface Document {
  paths: Record<string, Record<string, PathOperation>>;
  components?: { schemas?: Record<string, unknown> };
}
interface PathOperation {
  operationId?: string;
  tags?: string[];
  parameters?: unknown[];
  requestBody?: unknown;
  responses?: Record<string, { description?: string; headers?: unknown; content?: Record<string, unknown> }>;
}

/** The API in its own words, at /api/docs. */
export async function describeApi(app: FastifyInstance): Promise<void> {
  const whole = createJsonSchemaTransformObject({ schemaRegistry: registry });
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: {
        title: 'Inventario',
        version: '1',
        description:
          'Jobs, edits, photographs and the site. Failures answer `{"error": {"code", "message", "problems"?}}`; the codes stand in docs/errors.md.',
        license: { name: 'Not for others', identifier: 'LicenseRef-none' },
      },
      servers: [{ url: '/', description: 'The server that gives this document' }],
      tags: Object.entries(TAGS).map(([name, description]) => ({ name, description })),
    },
    transform: createJsonSchemaTransform({ schemaRegistry: registry }),
    transformObject: (input) => describe(whole(input) as unknown as Document) as never,
  });
  await app.register(swaggerUi, {
    routePrefix: '/api/docs',
    staticCSP: true,
    transformStaticCSP: (policy) =>
      policy.replaceAll(/ https:|validator\.swagger\.io| upgrade-insecure-requests;/g, ''),
  });
}

/**
 * What the routes' schemas do not say: names, tags, every failure, headers, bodies that are no JSON,
 * examples.
 */
function describe(document: Document): Document {
  for (const [path, methods] of Object.entries(document.paths ?? {}))
    for (const [method, operation] of Object.entries(methods)) {
      const known = OPERATIONS[`${method.toUpperCase()} ${path}`];
      if (!known)
        throw new Error(`${method.toUpperCase()} ${path} is not described: add it to docs/operations.ts`);
      methods[method] = complete(operation, known);
    }
  const schemas: Record<string, unknown> = { ...document.components?.schemas, Error: ERROR };
  // Of the two forms of each schema, what goes in and what comes out, only the used one stays.
  for (let before = -1; before !== Object.keys(schemas).length; ) {
    before = Object.keys(schemas).length;
    const text = JSON.stringify([document.paths, schemas]);
    for (const name of Object.keys(schemas))
      if (!text.includes(`"#/components/schemas/${name}"`)) delete schemas[name];
  }
  return { ...document, components: { ...document.components, schemas } };
}

const ERROR = {
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      required: ['code', 'message'],
      properties: {
        code: { type: 'string', enum: Object.keys(ERRORS) },
        message: { type: 'string' },
        problems: {
          type: 'array',
          items: {
            type: 'object',
            required: ['path', 'message'],
            properties: {
              path: { type: 'string', description: 'JSON Pointer of the field' },
              message: { type: 'string' },
            },
          },
        },
      },
    },
  },
};

function complete(operation: PathOperation, known: Operation): PathOperation {
  const responses: NonNullable<PathOperation['responses']> = {};
  for (const [status, response] of Object.entries(operation.responses ?? {})) {
    const success = Number(status) < 400;
    const content = success && known.gives ? known.gives : response.content;
    responses[status] = {
      ...response,
      description: success ? known.answers : (response.description ?? ''),
      ...(success && known.headers ? { headers: known.headers } : {}),
      ...(content ? { content: withExample(content, success ? known.example : undefined) } : {}),
    };
  }
  for (const [status, description] of Object.entries(known.also ?? {})) responses[status] = { description };
  const failures = [...new Set<ErrorCode>([...known.fails, ...ALWAYS])];
  for (const status of new Set(failures.map((code) => ERRORS[code].status))) {
    const codes = failures.filter((code) => ERRORS[code].status === status);
    responses[status] = {
      description: codes.map((code) => `\`${code}\`: ${ERRORS[code].says}`).join(' '),
      content: {
        'application/json': {
          schema: { $ref: '#/components/schemas/Error' },
          example: { error: { code: codes[0], message: ERRORS[codes[0] as ErrorCode].says } },
        },
      },
    };
  }
  const body = known.takes ? { required: true, content: known.takes } : operation.requestBody;
  return {
    ...operation,
    operationId: known.operationId,
    tags: [known.tag],
    ...(known.requestHeaders
      ? { parameters: [...(operation.parameters ?? []), ...known.requestHeaders] }
      : {}),
    ...(body ? { requestBody: withBodyExample(body, known.bodyExample) } : {}),
    responses,
  };
}

function withExample(content: Record<string, unknown>, example: unknown): Record<string, unknown> {
  if (example === undefined) return content;
  return Object.fromEntries(
    Object.entries(content).map(([type, media]) => [type, { ...(media as object), example }]),
  );
}

function withBodyExample(body: unknown, example: unknown): unknown {
  const { content, ...rest } = body as { content: Record<string, unknown> };
  return { required: true, ...rest, content: withExample(content, example) };
}
