import { sameEntries } from '../units/kept.js';

/**
 * Whether two JSON values are equal; the order of an object's fields does not count, an absent field equals
 * `undefined`.
 */
export function sameJson(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((item, index) => sameJson(item, b[index]));
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  const fields = new Set([...Object.keys(left), ...Object.keys(right)]);
  for (const field of fields) if (!sameJson(left[field], right[field])) return false;
  return true;
}

/**
 * `after`, with every part that says what `before` said being the very object it was: whoever keeps an answer
 * for an object keeps it where nothing new was said. Equal as in {@link sameJson}; items of a list are found
 * by their `id`, those without one by their place.
 */
export function sharedWith<Value>(before: unknown, after: Value): Value {
  return shared(before, after) as Value;
}

function shared(before: unknown, after: unknown): unknown {
  if (!isObject(before) || !isObject(after) || before === after) return after;
  if (Array.isArray(before) !== Array.isArray(after)) return after;
  if (Array.isArray(before) && Array.isArray(after)) {
    const byId = new Map(before.map((item, at) => [idOr(item, at), item]));
    const items = after.map((item, at) => shared(byId.get(idOr(item, at)), item));
    if (sameEntries(items, before)) return before;
    return sameEntries(items, after) ? after : items;
  }
  const entries = Object.entries(after).map(
    ([field, value]) => [field, shared(before[field], value)] as const,
  );
  const saysAsBefore =
    entries.every(([field, value]) => before[field] === value) &&
    Object.entries(before).every(([field, value]) => value === undefined || Object.hasOwn(after, field));
  if (saysAsBefore) return before;
  return entries.every(([field, value]) => after[field] === value) ? after : Object.fromEntries(entries);
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null;

const idOr = (item: unknown, at: number): unknown =>
  isObject(item) && typeof item.id === 'string' ? item.id : at;
