import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { sameJson, sharedWith } from '../job/same.js';
import { PROFILES } from '../practice/profiles.js';
import { KeptWhile, perObject, sameEntries } from './kept.js';
import { lengthText, volumeText } from './present.js';
import { cubicInches, ML_PER_IN3, millilitres, rounded } from './volume.js';

test('a cubic inch is the cube of 25.4 mm', () => {
  expect(ML_PER_IN3).toBeCloseTo(2.54 ** 3, 9);
});

test('volumes survive the way there and back, whichever unit they were typed in', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1e5, noNaN: true }), (in3) => {
      expect(cubicInches(millilitres({ in3 }) ?? Number.NaN)).toBeCloseTo(in3, 6);
      expect(millilitres({ mL: in3 })).toBe(in3);
    }),
  );
  expect(millilitres({})).toBeUndefined();
});

test('rounding stays within half a step and never prints a negative nothing', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -1e6, max: 1e6, noNaN: true }),
      fc.integer({ min: 0, max: 4 }),
      (value, digits) => {
        const result = rounded(value, digits);
        expect(Math.abs(result - value)).toBeLessThanOrEqual(0.5 / 10 ** digits + 1e-6);
        expect(Object.is(result, -0)).toBe(false);
      },
    ),
  );
});

test('units follow the practice', () => {
  expect([volumeText(245.80596, PROFILES.us.units), volumeText(245.80596, PROFILES.ca.units)]).toEqual([
    '15.00 in³',
    '245.8 mL',
  ]);
  expect([lengthText(63.5, 'inch'), lengthText(63.5, 'metric'), lengthText(63, 'metric')]).toEqual([
    '2.50 in',
    '63.5 mm',
    '63 mm',
  ]);
});

test('equal JSON is equal whatever the order of its fields, and unequal after any change of a value', () => {
  fc.assert(
    fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (object) => {
      const turned = Object.fromEntries(Object.entries(object).reverse());
      expect(sameJson(object, turned)).toBe(true);
      expect(sameJson(object, { ...turned, added: 1 })).toBe('added' in object && object.added === 1);
    }),
  );
});

test('a later state says what it says, in the objects of the state before wherever that said the same', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (before, after) => {
      const copy = structuredClone(after);
      expect(sharedWith(before, after)).toEqual(copy);
      expect(after).toEqual(copy);
      expect(sharedWith(after, copy)).toBe(after);
    }),
  );
  const before = {
    at: 'hall',
    list: [
      { id: 'a', of: [1] },
      { id: 'b', of: [2] },
    ],
    none: undefined,
  };
  const after = sharedWith(before, {
    at: 'hall',
    list: [
      { id: 'b', of: [2] },
      { id: 'c', of: [1] },
    ],
  });
  expect(after.list[0]).toBe(before.list[1]);
  expect(after.list[1]).toEqual({ id: 'c', of: [1] });
});

test('what is kept for an object is computed once, and anew for a copy of it', () => {
  let computed = 0;
  const size = perObject((list: number[]) => {
    computed += 1;
    return { size: list.length };
  });
  const list = [1, 2];
  expect(size(list)).toBe(size(list));
  expect(computed).toBe(1);
  expect(size([...list])).toEqual({ size: 2 });
  expect(computed).toBe(2);
});

test('an answer is kept while what it rests on is the same; only the last is', () => {
  let computed = 0;
  const kept = new KeptWhile<object, number>(sameEntries);
  const [key, one, other] = [{}, {}, {}];
  const ask = (...restsOn: object[]) =>
    kept.of(key, restsOn, () => {
      computed += 1;
      return computed;
    });
  expect([ask(one), ask(one)]).toEqual([1, 1]);
  expect([ask(one, other), ask(other, one), ask(other, one)]).toEqual([2, 3, 3]);
  expect([ask(one), ask()]).toEqual([4, 5]);
});
