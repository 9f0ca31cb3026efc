import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { merge, type Shape, shapeOf } from './three-way.js';

const conductor = (id: string, more: object = {}) => ({ id, colour: 'black', size: '14AWG', ...more });
const CONDUCTORS = shapeOf('box', 'conductors');

describe('conductors of one box', () => {
  const was = [conductor('c1'), conductor('c2'), conductor('c3')];
  test('two people on different ones both get their way, and so do two on different fields of one', () => {
    const theirs = [conductor('c1', { colour: 'red' }), conductor('c2', { size: '12AWG' }), conductor('c3')];
    const mine = [conductor('c1'), conductor('c2', { colour: 'white' }), conductor('c3'), conductor('c4')];
    expect(merge(CONDUCTORS, was, theirs, mine)).toEqual({
      value: [
        conductor('c1', { colour: 'red' }),
        conductor('c2', { size: '12AWG', colour: 'white' }),
        conductor('c3'),
        conductor('c4'),
      ],
      clashes: [],
    });
  });

  test('the same field asks, with all three values and the way to it', () => {
    const merged = merge(
      CONDUCTORS,
      was,
      [conductor('c1', { colour: 'red' })],
      [conductor('c1', { colour: 'blue' }), was[1], was[2]],
    );
    expect(merged.clashes).toEqual([{ path: ['c1', 'colour'], was: 'black', theirs: 'red', mine: 'blue' }]);
    expect(merged.value).toEqual([conductor('c1', { colour: 'red' })]);
  });

  test('where a conductor ends is one fact: a joint and a terminal are never mixed', () => {
    const at = (place: object) => [conductor('c1', { at: place })];
    const merged = merge(
      CONDUCTORS,
      at({ capped: true }),
      at({ joint: 'j1' }),
      at({ position: 1, terminal: 'L' }),
    );
    expect(merged.clashes).toEqual([
      {
        path: ['c1', 'at'],
        was: { capped: true },
        theirs: { joint: 'j1' },
        mine: { position: 1, terminal: 'L' },
      },
    ]);
  });

  test('one taken out that the other changed asks; one taken out by both is gone', () => {
    const [c1, , c3] = was;
    expect(
      merge(CONDUCTORS, was, [c1, c3], [c1, conductor('c2', { colour: 'white' }), c3]).clashes,
    ).toMatchObject([{ path: ['c2'], theirs: undefined }]);
    expect(merge(CONDUCTORS, was, [c1, c3], [c1, c3])).toEqual({ value: [c1, c3], clashes: [] });
  });

  test('a new order of mine holds, with what they added behind what it stood behind', () => {
    const [c1, c2, c3] = was;
    const x = conductor('x');
    expect(merge(CONDUCTORS, was, [c1, x, c2, c3], [c3, c2, c1]).value).toEqual([c3, c2, c1, x]);
    expect(merge(CONDUCTORS, was, [c3, c2, c1], [c1, c2, c3, x]).value).toEqual([c3, x, c2, c1]);
  });
});

test('ticks are united; one taken away stays away', () => {
  expect(merge(shapeOf('box', 'hazards'), ['scorch'], ['scorch', 'water'], ['cloth'])).toEqual({
    value: ['water', 'cloth'],
    clashes: [],
  });
});

test('a label is a statement: two different ones of a conductor ask', () => {
  const label = (role: string) => [{ conductorId: 'c1', role }];
  expect(merge(shapeOf('box', 'labels'), [], label('line'), label('load')).clashes).toHaveLength(1);
});

/**
 * A plain reference: the merge of flat lists of numbered things with two fields, told per fact and not per
 * list.
 */
function plainly(
  was: Things,
  theirs: Things,
  mine: Things,
): { facts: Record<string, unknown>; clashes: number } {
  const facts: Record<string, unknown> = {};
  let clashes = 0;
  const gone = Symbol('gone');
  for (const id of new Set([...Object.keys(was), ...Object.keys(theirs), ...Object.keys(mine)])) {
    const there = [was, theirs, mine].map((side) => id in side);
    const text = [was, theirs, mine].map((side) => (id in side ? JSON.stringify(side[id]) : gone));
    if (!there.every(Boolean)) {
      const [a, b, c] = text;
      if (a !== b && a !== c && b !== c) clashes += 1;
      const winner = a === b ? mine[id] : theirs[id];
      if (winner) facts[id] = winner;
      continue;
    }
    const thing: Record<string, number> = {};
    for (const field of ['a', 'b'] as const) {
      const [x, y, z] = [was[id]?.[field], theirs[id]?.[field], mine[id]?.[field]];
      if (x !== y && x !== z && y !== z) clashes += 1;
      thing[field] = (x === y ? z : y) as number;
    }
    facts[id] = thing;
  }
  return { facts, clashes };
}
type Things = Record<string, { a: number; b: number }>;

test('agrees with the plain reference on random lists, and neither side’s own fact is ever lost without a clash', () => {
  const small = fc.integer({ min: 0, max: 2 });
  const things = fc.dictionary(fc.constantFrom('p', 'q', 'r', 's'), fc.record({ a: small, b: small }));
  const shape: Shape = { way: 'list', by: 'id', item: { way: 'fields', fields: {} } };
  const listed = (side: Things) => Object.entries(side).map(([id, fields]) => ({ id, ...fields }));
  fc.assert(
    fc.property(things, things, things, (was, theirs, mine) => {
      const merged = merge(shape, listed(was), listed(theirs), listed(mine));
      const expected = plainly(was, theirs, mine);
      const facts = Object.fromEntries(
        (merged.value as { id: string }[]).map(({ id, ...fields }) => [id, fields]),
      );
      expect([facts, merged.clashes.length]).toEqual([expected.facts, expected.clashes]);
    }),
    { seed: 10, numRuns: 2000 },
  );
});
