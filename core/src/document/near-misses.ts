import { distance } from 'fastest-levenshtein';
import type { z } from 'zod';
import { pointer } from '../job/pointer.js';
import type { Problem } from '../job/problem.js';
import { EVENT_KINDS, Job } from '../job/schema/job.js';

/**
 * What a file may say and this program does not know, but for a slip of the pen: a field whose name is almost
 * that of a known one that is missing beside it, and an event of no known kind. Both are kept as they are.
 */
export function nearMisses(job: Job): Problem[] {
  const problems: Problem[] = [];
  walk(Job, job, [], (path, message) => problems.push({ path: pointer(path), message, severity: 'warning' }));
  job.events.forEach(({ kind }, index) => {
    if (!(EVENT_KINDS as readonly string[]).includes(kind))
      problems.push({
        path: pointer(['events', index, 'kind']),
        message: `is "${kind}", which nothing here reads; known are ${EVENT_KINDS.join(', ')}`,
        severity: 'warning',
      });
  });
  return problems;
}

type Say = (path: readonly PropertyKey[], message: string) => void;

/** Zod's definition of a schema, as far as it is walked. */
interface Definition {
  type: string;
  shape?: Record<string, z.ZodType>;
  element?: z.ZodType;
  innerType?: z.ZodType;
  valueType?: z.ZodType;
  options?: readonly z.ZodType[];
}

function walk(schema: z.ZodType, value: unknown, path: readonly PropertyKey[], say: Say): void {
  const definition = schema.def as unknown as Definition;
  const { innerType, element, valueType } = definition;
  if (innerType) walk(innerType, value, path, say);
  else if (Array.isArray(value)) {
    if (element) for (const [index, entry] of value.entries()) walk(element, entry, [...path, index], say);
  } else if (typeof value === 'object' && value !== null) {
    const shape = valueType ? null : shapeOf(definition);
    for (const [key, entry] of Object.entries(value)) {
      const known = valueType ?? shape?.[key];
      if (known) walk(known, entry, [...path, key], say);
      else {
        const meant = Object.keys(shape ?? {}).find(
          (name) => !Object.hasOwn(value, name) && isAlmost(key, name),
        );
        if (meant) say([...path, key], `is a field nothing here reads: "${meant}" may be meant`);
      }
    }
  }
}

/** The fields of an object, those of every form together where it has several. */
function shapeOf({ shape, options }: Definition): Record<string, z.ZodType> {
  if (shape) return shape;
  return Object.assign({}, ...(options ?? []).map((option) => shapeOf(option.def as unknown as Definition)));
}

/** The same but for case and hyphens, or one letter; two, in a long name. */
function isAlmost(written: string, known: string): boolean {
  const bare = (name: string) => name.toLowerCase().replaceAll(/[-_ ]/g, '');
  if (bare(written) === bare(known)) return true;
  const least = Math.min(written.length, known.length);
  return least >= 4 && distance(bare(written), bare(known)) <= (least >= 8 ? 2 : 1);
}
