import { expect, test } from '@jest/globals';
import { Random } from '../test-support/random.js';
import { Joined } from './joined.js';

test('nodes never merged stand alone', () => {
  const joined = new Joined();
  joined.merge('a', 'b');
  expect(joined.find('c')).toBe('c');
  expect(joined.find('a')).toBe(joined.find('b'));
});

test.each([1, 2, 3, 4])('hangs together what a walk over the same merges reaches (seed %i)', (seed) => {
  const random = new Random(seed);
  const nodes = Array.from({ length: 24 }, (_, at) => `n${at}`);
  const merges = Array.from({ length: 16 }, () => [random.pick(nodes), random.pick(nodes)] as const);
  const joined = new Joined();
  for (const [a, b] of merges) joined.merge(a, b);
  for (const start of nodes) {
    const reached = new Set([start]);
    for (let grown = true; grown; ) {
      grown = false;
      for (const [a, b] of merges)
        if (reached.has(a) !== reached.has(b)) {
          reached.add(a).add(b);
          grown = true;
        }
    }
    for (const other of nodes) expect(joined.find(start) === joined.find(other)).toBe(reached.has(other));
  }
});
