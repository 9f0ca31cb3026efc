import { pointer } from './pointer.js';

/**
 * What a document, a record and an edit may be at most. They are the same wherever something comes in (file,
 * archive, edit, command line), and lie under what the database takes: JSON nested 32 deep, packets of 16 MB,
 * keys of 600 characters.
 */
export const LIMITS = {
  /** Objects and lists in one another, the outermost counted. An edit holds a record four levels down. */
  depth: 26,
  /** Characters of any text, of fields this program does not know too. */
  text: 100_000,
  /** Characters of the name of a field. */
  fieldName: 200,
  /** Characters of one record as JSON. */
  record: 2_000_000,
  /** Characters of one edit as JSON. */
  edit: 4_000_000,
  /** Characters of what names a record within its kind. */
  key: 600,
} as const;

/** More than these are not told at once. */
const MOST_TOLD = 100;

/**
 * What of a parsed JSON value goes beyond the limits: nesting, text that is too long or holds half a
 * character (a lone surrogate), a number too large to be one, a field called `__proto__`. Never recurses
 * deeper than the limit, whatever comes.
 *
 * @param depth levels allowed, the outermost counted
 */
export function limitProblems(
  value: unknown,
  depth: number = LIMITS.depth,
): { path: string; message: string }[] {
  const problems: { path: string; message: string }[] = [];
  const path: PropertyKey[] = [];
  const tell = (message: string) => {
    if (problems.length < MOST_TOLD) problems.push({ path: pointer(path), message });
  };
  const within = (step: PropertyKey, look: () => void) => {
    path.push(step);
    look();
    path.pop();
  };
  const visit = (inner: unknown, left: number): void => {
    if (typeof inner === 'string') {
      if (inner.length > LIMITS.text) tell(`is too long: at most ${LIMITS.text} characters are taken`);
      else if (LONE_SURROGATE.test(inner)) tell('holds half a character (a lone surrogate)');
    } else if (typeof inner === 'number') {
      if (!Number.isFinite(inner)) tell('is too large to be a number');
    } else if (typeof inner !== 'object' || inner === null) return;
    else if (left === 0) tell(`is nested too deep: at most ${depth} levels are taken`);
    else if (Array.isArray(inner))
      for (const [index, item] of inner.entries()) within(index, () => visit(item, left - 1));
    else
      for (const [field, item] of Object.entries(inner)) {
        if (field === '__proto__' || field.length > LIMITS.fieldName || LONE_SURROGATE.test(field))
          within(field.slice(0, LIMITS.fieldName).replaceAll(LONES, '\uFFFD'), () =>
            tell('has a name that no field may have'),
          );
        else within(field, () => visit(item, left - 1));
      }
  };
  visit(value, depth);
  return problems;
}

const LONE_SURROGATE = /\p{Surrogate}/u;
const LONES = /\p{Surrogate}/gu;
