import type { z } from 'zod';
import { pointer } from './pointer.js';
import type { Problem } from './problem.js';

/** Zod's issues as problems with JSON Pointers; a missing field is named by the pointer it would have. */
export function schemaProblems(error: z.ZodError, document: unknown): Problem[] {
  return error.issues.map((issue) => {
    const message = issueWords(issue);
    const absent = valueAt(document, issue.path) === undefined && !message.startsWith('is missing');
    return {
      path: pointer(issue.path),
      message: absent ? `is missing: it ${message}` : message,
      severity: 'error' as const,
    };
  });
}

function valueAt(document: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (inner, step) =>
      typeof inner === 'object' && inner !== null ? (inner as Record<PropertyKey, unknown>)[step] : undefined,
    document,
  );
}

export function issueWords(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return `must be ${article(issue.expected)}`;
    case 'invalid_value':
      return `must be ${oneOf(issue.values.map((value) => JSON.stringify(value)))}`;
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array'
        ? issue.message
        : `must be ${issue.inclusive ? 'at least' : 'more than'} ${issue.minimum}`;
    case 'too_big':
      return issue.origin === 'number' || issue.origin === 'int'
        ? `must be at most ${issue.maximum}`
        : `is too long: at most ${issue.maximum} are taken`;
    case 'invalid_union':
      return 'discriminator' in issue && issue.discriminator !== undefined
        ? `has an unknown or missing "${issue.discriminator}"`
        : issue.message;
    default:
      return issue.message;
  }
}

const oneOf = (values: readonly string[]) =>
  values.length === 1 ? values.join() : `one of ${values.join(', ')}`;

function article(noun: string): string {
  const word = noun === 'int' ? 'integer' : noun;
  return `${/^[aeiou]/.test(word) ? 'an' : 'a'} ${word}`;
}
