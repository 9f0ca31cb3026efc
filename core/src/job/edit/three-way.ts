import type { RecordKind } from '../records.js';
import { sameJson } from '../same.js';

/**
 * How two versions of a value are brought together.
 *
 * - `whole`: it is one fact; when both sides changed it, somebody has to say which holds
 * - `set`: a list of plain values whose order says nothing
 * - `fields`: an object whose fields are facts of their own (those not named are `whole`)
 * - `list`: things named by one of their fields
 */
export type Shape =
  | { way: 'whole' }
  | { way: 'set' }
  | { way: 'fields'; fields: Readonly<Record<string, Shape>> }
  | { way: 'list'; by: string; item: Shape };

const WHOLE: Shape = { way: 'whole' };
const SET: Shape = { way: 'set' };
const fields = (named: Readonly<Record<string, Shape>> = {}): Shape => ({ way: 'fields', fields: named });
const list = (by: string, item: Shape): Shape => ({ way: 'list', by, item });

/**
 * Where a conductor ends (`at`, `ends`) and how a volume is known (`capacity`) are one fact each: half of one
 * place and half of another is no place. A reading and a label are statements: they are kept or replaced as a
 * whole.
 */
const BOX: Readonly<Record<string, Shape>> = {
  circuitIds: SET,
  condition: SET,
  hazards: SET,
  enclosure: fields(),
  cables: list('id', fields()),
  conductors: list('id', fields()),
  joints: list('id', fields()),
  positions: list('index', fields({ loadIds: SET, need: fields(), leads: list('terminal', fields()) })),
  readings: list('id', WHOLE),
  labels: list('conductorId', WHOLE),
};

const SHAPES: Partial<Record<RecordKind, Readonly<Record<string, Shape>>>> = {
  box: BOX,
  pairing: { attempts: list('id', WHOLE), marks: list('id', WHOLE), names: fields() },
  job: { opposites: list('id', WHOLE) },
  photo: { pins: list('conductorId', WHOLE) },
};

/** How a field of a record is merged. */
export function shapeOf(kind: RecordKind, field: string): Shape {
  return SHAPES[kind]?.[field] ?? WHOLE;
}

/**
 * One fact that both sides changed, each in its own way. `path` leads to it; an absent value is `undefined`.
 */
interface Clash {
  path: string[];
  was: unknown;
  theirs: unknown;
  mine: unknown;
}

export interface Merged {
  value: unknown;
  clashes: Clash[];
}

/**
 * Brings together what two people made of the same value. Where they clash, `value` holds theirs, or mine
 * when `prefer` says so.
 *
 *     merge(list('id', fields()), [{id: 'c1', colour: 'red'}], theirs: c1 white, mine: c1 red and c2)
 *     // value [c1 white, c2], no clash
 */
export function merge(
  shape: Shape,
  was: unknown,
  theirs: unknown,
  mine: unknown,
  prefer: 'theirs' | 'mine' = 'theirs',
): Merged {
  return mergeAt([], shape, { was, theirs, mine }, prefer);
}

/** The facts in which a value differs from another, told as finely as they are merged. */
export function differences(
  shape: Shape,
  was: unknown,
  now: unknown,
  path: string[] = [],
): { path: string[]; was: unknown; now: unknown }[] {
  if (sameJson(was, now)) return [];
  if (shape.way === 'fields' && isObject(was) && isObject(now))
    return [...new Set([...Object.keys(was), ...Object.keys(now)])].flatMap((field) =>
      differences(shape.fields[field] ?? WHOLE, was[field], now[field], [...path, field]),
    );
  const [old, young] = shape.way === 'list' ? [byKey(was ?? [], shape.by), byKey(now ?? [], shape.by)] : [];
  if (shape.way !== 'list' || !old || !young) return [{ path, was, now }];
  const facts = [...new Set([...old.keys(), ...young.keys()])].flatMap((key) =>
    differences(shape.item, old.get(key), young.get(key), [...path, key]),
  );
  // The same things in another order.
  return facts.length > 0 ? facts : [{ path, was, now }];
}

/** The value with one fact of it another; the path as a {@link Clash} gives it. */
export function withFact(shape: Shape, value: unknown, path: readonly string[], fact: unknown): unknown {
  const [step, ...rest] = path;
  if (step === undefined) return fact;
  if (shape.way === 'list' && Array.isArray(value)) {
    const at = value.findIndex((entry) => isObject(entry) && String(entry[shape.by]) === step);
    const next = withFact(shape.item, value[at], rest, fact);
    if (next === undefined) return at < 0 ? value : value.toSpliced(at, 1);
    return at < 0 ? [...value, next] : value.with(at, next);
  }
  if (!isObject(value)) return value;
  const next = {
    ...value,
    [step]: withFact(shape.way === 'fields' ? (shape.fields[step] ?? WHOLE) : WHOLE, value[step], rest, fact),
  };
  if (next[step] === undefined) delete next[step];
  return next;
}

/** A value as both knew it, as they have it, as I have it. */
interface Three {
  was: unknown;
  theirs: unknown;
  mine: unknown;
}

function mergeAt(path: string[], shape: Shape, three: Three, prefer: 'theirs' | 'mine'): Merged {
  const { was, theirs, mine } = three;
  if (sameJson(theirs, mine) || sameJson(was, mine)) return { value: theirs, clashes: [] };
  if (sameJson(was, theirs)) return { value: mine, clashes: [] };
  return (
    mergeInside(path, shape, three, prefer) ?? {
      value: prefer === 'mine' ? mine : theirs,
      clashes: [{ path, was, theirs, mine }],
    }
  );
}

/** Part by part, where the shape has parts and all three have it. */
function mergeInside(
  path: string[],
  shape: Shape,
  three: Three,
  prefer: 'theirs' | 'mine',
): Merged | undefined {
  switch (shape.way) {
    case 'set':
      return mergeSets(three);
    case 'fields':
      return mergeFields(path, shape.fields, three, prefer);
    case 'list':
      return mergeLists(path, shape, three, prefer);
    default:
      return undefined;
  }
}

function mergeSets({ was, theirs, mine }: Three): Merged | undefined {
  const [old, left, right] = [was ?? [], theirs ?? [], mine ?? []];
  if (!isPlainList(old) || !isPlainList(left) || !isPlainList(right)) return undefined;
  const kept = left.filter((value) => right.includes(value) || !old.includes(value));
  return {
    value: [...kept, ...right.filter((value) => !old.includes(value) && !left.includes(value))],
    clashes: [],
  };
}

function mergeFields(
  path: string[],
  named: Readonly<Record<string, Shape>>,
  { was, theirs, mine }: Three,
  prefer: 'theirs' | 'mine',
): Merged | undefined {
  if (!isObject(was) || !isObject(theirs) || !isObject(mine)) return undefined;
  const value: Record<string, unknown> = {};
  const clashes: Clash[] = [];
  for (const field of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const three = { was: was[field], theirs: theirs[field], mine: mine[field] };
    const merged = mergeAt([...path, field], named[field] ?? WHOLE, three, prefer);
    clashes.push(...merged.clashes);
    if (merged.value !== undefined) value[field] = merged.value;
  }
  return { value, clashes };
}

function mergeLists(
  path: string[],
  { by, item }: { by: string; item: Shape },
  { was, theirs, mine }: Three,
  prefer: 'theirs' | 'mine',
): Merged | undefined {
  const [old, left, right] = [byKey(was ?? [], by), byKey(theirs ?? [], by), byKey(mine ?? [], by)];
  if (!old || !left || !right) return undefined;
  const clashes: Clash[] = [];
  const value: unknown[] = [];
  for (const key of orderOf([...old.keys()], [...left.keys()], [...right.keys()])) {
    const three = { was: old.get(key), theirs: left.get(key), mine: right.get(key) };
    const merged = mergeAt([...path, key], item, three, prefer);
    clashes.push(...merged.clashes);
    if (merged.value !== undefined) value.push(merged.value);
  }
  return { value, clashes };
}

/** Theirs in their order with mine put in after what they stood behind; my order where I alone changed it. */
function orderOf(was: readonly string[], theirs: readonly string[], mine: readonly string[]): string[] {
  const common = (keys: readonly string[]) =>
    keys.filter((key) => was.includes(key) && theirs.includes(key) && mine.includes(key));
  const theyMoved = !sameJson(common(theirs), common(was));
  const [first, second] = theyMoved ? [theirs, mine] : [mine, theirs];
  const order = [...first];
  second.forEach((key, index) => {
    if (order.includes(key)) return;
    const behind = second.slice(0, index).findLast((other) => order.includes(other));
    order.splice(behind === undefined ? 0 : order.indexOf(behind) + 1, 0, key);
  });
  return order;
}

/** The things of a list by name, or nothing when it is no such list: a name missing or used twice. */
function byKey(list: unknown, by: string): Map<string, unknown> | undefined {
  if (!Array.isArray(list)) return undefined;
  const named = new Map<string, unknown>();
  for (const entry of list) {
    const key = isObject(entry) ? entry[by] : undefined;
    if ((typeof key !== 'string' && typeof key !== 'number') || named.has(String(key))) return undefined;
    named.set(String(key), entry);
  }
  return named;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isPlainList = (value: unknown): value is unknown[] =>
  Array.isArray(value) && value.every((entry) => typeof entry !== 'object' || entry === null);
