import type { Random } from '../../../core/src/test-support/random.js';

const deep = (levels: number): unknown => JSON.parse(`${'['.repeat(levels)}${']'.repeat(levels)}`);

/** What somebody's program, or somebody, might send in the place of anything. */
const NASTY: readonly (() => unknown)[] = [
  () => null,
  () => '',
  () => [],
  () => ({}),
  () => -1,
  () => 0.5,
  () => 1e300,
  () => Number.MAX_SAFE_INTEGER + 2,
  () => true,
  () => 'x'.repeat(700),
  () => 'x'.repeat(120_000),
  () => 'half \uD83D',
  () => '\u0000',
  () => '../../etc/passwd',
  () => "'; DROP TABLE jobs; --",
  () => '%_\\',
  () => '\u{1F9EF}\u202E\u0301',
  () => 'é'.repeat(600),
  () => deep(40),
  () => deep(1500),
  () => Array.from({ length: 6000 }, () => 'x'),
  () => JSON.parse('{"__proto__": {"polluted": 1}}'),
  () => ({ constructor: 1, toString: null, length: -1 }),
  () => '2026-02-30T25:61:00Z',
];

/**
 * The same value with one place in it broken: another value, a field too many, a field less, an item twice.
 */
export function brokenInOnePlace(value: unknown, chance: Random): unknown {
  const places = placesOf(value);
  const path = chance.pick(places);
  const copy = structuredClone(value);
  if (path.length === 0) return chance.pick(NASTY)();
  const last = path.at(-1) as string | number;
  const parent = path
    .slice(0, -1)
    .reduce<unknown>((inner, step) => (inner as Record<PropertyKey, unknown>)[step], copy) as Record<
    PropertyKey,
    unknown
  >;
  const kind = chance.next();
  if (kind < 0.75) parent[last] = chance.pick(NASTY)();
  else if (kind < 0.85) delete parent[last];
  else if (Array.isArray(parent)) parent.push(parent[last as number]);
  else parent[chance.pick(['more', 'é', 'x'.repeat(300), '\uDC00', 'id'])] = chance.pick(NASTY)();
  return copy;
}

function placesOf(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [path];
  const inner = Array.isArray(value)
    ? value.slice(0, 8).flatMap((item, index) => placesOf(item, [...path, index]))
    : Object.entries(value).flatMap(([field, item]) => placesOf(item, [...path, field]));
  return [path, ...inner];
}

export const nastyText = (chance: Random): string => {
  const value = chance.pick(NASTY)();
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
  return text.slice(0, 3000);
};
