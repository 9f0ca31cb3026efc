import type { Random } from '../../../core/src/test-support/random.js';

/** A random value that a JSON schema takes; `$ref`s are looked up in the document. */
export type JsonSchema = Readonly<Record<string, unknown>> | boolean;

const DEEPEST = 6;

export function fromSchema(schema: JsonSchema, document: unknown, chance: Random, depth = 0): unknown {
  if (typeof schema === 'boolean') return chance.pick([null, 1, 'x', true]);
  if (typeof schema.$ref === 'string')
    return fromSchema(resolved(schema.$ref, document), document, chance, depth + 1);
  if ('const' in schema) return schema.const;
  if (Array.isArray(schema.enum)) return chance.pick(schema.enum);
  const several = (schema.anyOf ?? schema.oneOf) as JsonSchema[] | undefined;
  if (several) return fromSchema(chance.pick(several), document, chance, depth + 1);
  if (Array.isArray(schema.allOf))
    return Object.assign({}, ...schema.allOf.map((part) => fromSchema(part, document, chance, depth + 1)));
  const type = Array.isArray(schema.type) ? chance.pick(schema.type) : schema.type;
  if (type === 'object') return anObject(schema, document, chance, depth);
  if (type === 'array') return aList(schema, document, chance, depth);
  if (type === 'string') return aText(schema, chance);
  if (type === 'number' || type === 'integer') return aNumber(schema, type, chance);
  if (type === 'boolean') return chance.next() < 0.5;
  if (type === 'null') return null;
  return chance.pick([null, 1, 'x', true]);
}

function resolved(ref: string, document: unknown): JsonSchema {
  const steps = ref.split('/').slice(1);
  return steps.reduce<unknown>(
    (inner, step) => (inner as Record<string, unknown>)[step.replaceAll('~1', '/')],
    document,
  ) as JsonSchema;
}

function anObject(
  schema: Exclude<JsonSchema, boolean>,
  document: unknown,
  chance: Random,
  depth: number,
): Record<string, unknown> {
  const properties = (schema.properties ?? {}) as Record<string, JsonSchema>;
  const required = (schema.required ?? []) as string[];
  const made: Record<string, unknown> = {};
  for (const [name, inner] of Object.entries(properties))
    if (required.includes(name) || (depth < DEEPEST && chance.next() < 0.3))
      made[name] = fromSchema(inner, document, chance, depth + 1);
  if (schema.additionalProperties && depth < DEEPEST && chance.next() < 0.3)
    made[`more${Math.trunc(chance.next() * 9)}`] = fromSchema(
      schema.additionalProperties as JsonSchema,
      document,
      chance,
      depth + 1,
    );
  return made;
}

function aList(
  schema: Exclude<JsonSchema, boolean>,
  document: unknown,
  chance: Random,
  depth: number,
): unknown[] {
  if (Array.isArray(schema.prefixItems))
    return schema.prefixItems.map((item) => fromSchema(item, document, chance, depth + 1));
  const least = Number(schema.minItems ?? 0);
  const length = Math.max(
    least,
    Math.min(Number(schema.maxItems ?? 3), depth > DEEPEST ? 0 : Math.trunc(chance.next() * 3)),
  );
  return Array.from({ length }, () =>
    fromSchema((schema.items ?? true) as JsonSchema, document, chance, depth + 1),
  );
}

function aText(schema: Exclude<JsonSchema, boolean>, chance: Random): string {
  if (schema.format === 'date-time') return '2026-05-04T09:12:00Z';
  const { pattern } = schema;
  // A box and a position in it.
  if (typeof pattern === 'string' && pattern.includes('\\/')) return 'kitchen-door/1';
  if (typeof pattern === 'string' && pattern.startsWith('^[A-Za-z0-9_-]'))
    return chance.pick([
      'kitchen-door',
      'radio-door',
      'kitchen',
      'quillon-point',
      'p1',
      'c4',
      `x${Math.trunc(chance.next() * 1e6)}`,
    ]);
  const least = Number(schema.minLength ?? 0);
  return chance.pick(['Hall', 'née Øre', '開', 'a', 'quillon-point', '12']).padEnd(least, 'x');
}

function aNumber(schema: Exclude<JsonSchema, boolean>, type: unknown, chance: Random): number {
  const least = Number(schema.minimum ?? schema.exclusiveMinimum ?? 0);
  const most = Number(schema.maximum ?? schema.exclusiveMaximum ?? least + 40);
  const value = least + chance.next() * (Math.min(most, least + 1000) - least);
  return type === 'integer' ? Math.ceil(value) : value + (schema.exclusiveMinimum === undefined ? 0 : 0.01);
}
