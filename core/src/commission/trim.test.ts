import { expect, test } from '@jest/globals';
import { trimSearch } from './trim.js';

/** Follows the search for a lamp that is steady from a level on. */
function followed(from: number) {
  const looks: { level: number; steady: boolean }[] = [];
  for (;;) {
    const search = trimSearch(looks);
    if (search.state !== 'look') return { search, looks };
    expect(looks.map(({ level }) => level)).not.toContain(search.level);
    looks.push({ level: search.level, steady: search.level >= from });
  }
}

test('begins at 20 %', () => expect(trimSearch([])).toMatchObject({ state: 'look', level: 20 }));

test('every lowest level is found to one per cent, with a margin, in the fewest looks', () => {
  for (let from = 1; from <= 100; from += 1) {
    const { search, looks } = followed(from);
    expect([from, search]).toEqual([from, { state: 'done', lowest: from, level: Math.min(100, from + 2) }]);
    // Up by doubling, then by halves: no plain search by halves needs fewer in the stretch it is in.
    const tops = [20, 40, 80, 100];
    const top = tops.findIndex((level) => from <= level);
    const width = (tops[top] ?? 0) - (tops[top - 1] ?? 0);
    expect(looks.length).toBeLessThanOrEqual(top + 1 + Math.ceil(Math.log2(width)));
  }
});

test('a lamp that flickers at full level has another trouble', () => {
  expect(followed(101).search).toEqual({ state: 'never-steady' });
});

test('a later look at a level counts; what was steady below an unsteady one does not', () => {
  const at = (minute: number) => `2026-05-04T09:0${minute}:00Z`;
  const looks = [
    { level: 20, steady: true, at: at(2) },
    { level: 20, steady: false, at: at(1) },
    { level: 10, steady: true, at: at(0) },
    { level: 15, steady: false, at: at(3) },
  ];
  expect(trimSearch(looks)).toMatchObject({ state: 'look', unsteady: 15, steady: 20 });
});
