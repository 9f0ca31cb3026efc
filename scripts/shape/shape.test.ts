import { describe, expect, test } from '@jest/globals';
import { againstTheLayers } from './layers.js';
import {
  deepTernaries,
  functionLengths,
  longFunctions,
  manyParameters,
  practiceQuestions,
  upwardImports,
  wideLines,
} from './measures.js';
import { outside, type Shape } from './shape.js';
import { sourceOf } from './source.js';

const lines = (count: number, line: string) => Array.from({ length: count }, () => line).join('\n');
const code = (text: string, path = 'core/src/match/some.ts') => sourceOf(path, text);

describe('arrows point down', () => {
  test.each([
    [
      'core/src/match/match.ts',
      'core/src/findings/words/plans.ts',
      'match uses findings, which stands above it',
    ],
    ['core/src/units/money.ts', 'core/src/job/events.ts', 'units uses job, which stands above it'],
    ['core/src/findings/words/plans.ts', 'core/src/match/match.ts', null],
    ['core/src/match/match.ts', 'core/src/match/place.ts', null],
    ['core/src/shed/odd.ts', 'core/src/units/money.ts', 'shed is no room of the list'],
    ['web/src/views/board/board.tsx', 'web/src/views/house/house.tsx', 'view board uses view house'],
    ['web/src/views/board/board.tsx', 'web/src/views/board/stops.tsx', null],
    ['web/src/ui/bars.tsx', 'web/src/app/frame.tsx', 'ui uses app, which stands above it'],
    [
      'core/src/homeplan/units.ts',
      'core/src/match/place-judge.ts',
      'homeplan enters match by another door than ways-at.ts',
    ],
    ['core/src/homeplan/units.ts', 'core/src/match/ways-at.ts', null],
  ])('%s to %s', (from, to, why) => {
    expect(againstTheLayers(from, to)).toBe(why);
  });

  test('an import is found by its line, types too; a test may look anywhere', () => {
    const text = "import type { A } from '../findings/words/plans.js';\nexport * from './place.js';";
    const exists = (path: string) => path.startsWith('core/src/');
    expect(upwardImports(code(text), exists)).toMatchObject([{ line: 1 }]);
    expect(upwardImports(code(text, 'core/src/match/some.test.ts'), exists)).toEqual([]);
  });
});

describe('length', () => {
  const long = `function long() {\n${lines(60, '  work();')}\n}`;

  test('a function of 62 lines is over, one of 60 is not; data are not counted', () => {
    expect(longFunctions(code(long))).toMatchObject([{ what: 'long', value: 62 }]);
    expect(longFunctions(code(`const fine = () => {\n${lines(58, '  work();')}\n};`))).toEqual([]);
    expect(longFunctions(code(`const table = () => ({\n${lines(80, '  a: 1,')}\n});`))).toEqual([]);
    expect(functionLengths(code('class A {\n  #own() {\n  }\n}'))).toMatchObject([
      { what: '#own', value: 2 },
    ]);
  });

  test('a component may have 100 lines', () => {
    expect(longFunctions(code(long, 'web/src/ui/some.tsx'))).toEqual([]);
  });
});

test('six parameters are too many, whatever is taken apart in them', () => {
  expect(manyParameters(code('const f = (a, b, { c, d, e }, g, h) => a;'))).toEqual([]);
  expect(manyParameters(code('function f(a, b, c, d, e, g) {}'))).toMatchObject([{ what: 'f', value: 6 }]);
});

test('a ternary in a branch of a ternary in a branch of one is too deep; in its question it is another', () => {
  expect(deepTernaries(code('const x = a ? 1 : b ? 2 : 3;'))).toEqual([]);
  expect(deepTernaries(code('const x = a ? 1 : b ? 2 : c ? 3 : 4;'))).toHaveLength(1);
  expect(deepTernaries(code('const x = (a ? (b ? c : d) : e) ? 1 : f ? 2 : 3;'))).toEqual([]);
});

test('lines are counted over the width, but for one sentence that fills its line', () => {
  expect(wideLines(code(`const a = ${lines(1, 'b + ').repeat(30)}c;`))).toHaveLength(1);
  expect(wideLines(code(`const words = {\n  says: '${'word '.repeat(30)}',\n};`))).toEqual([]);
  expect(wideLines(code(`// ${'word '.repeat(30)}`))).toHaveLength(1);
});

test('who asks which practice it is in is found: by comparison, by case, by a table', () => {
  expect(practiceQuestions(code("if (job.practice === 'us') go();"))).toHaveLength(1);
  expect(practiceQuestions(code("switch (p) { case 'gb': break; }"))).toHaveLength(1);
  expect(practiceQuestions(code('const t = { us: 1, ca: 2 };'))).toHaveLength(1);
  expect(practiceQuestions(code("const t = ['us', 'gb'];"))).toHaveLength(1);
  expect(practiceQuestions(code("const job = { practice: 'us' };"))).toEqual([]);
  expect(practiceQuestions(code('const t = { us: 1, ca: 2 };', 'core/src/practice/x.ts'))).toEqual([]);
});

test('what stands outside its bound is said with the bound', () => {
  const place = { path: 'a.ts', line: 1, what: 'x', value: 1 };
  const shape: Shape = {
    places: [
      { name: 'wide lines', found: [place, place], bound: 1 },
      { name: 'long ones', found: [], bound: 0 },
    ],
    longest: null,
    tests: [
      { workspace: 'web', code: 100, tests: 19, share: 19, least: 20 },
      { workspace: 'cli', code: 100, tests: 1, share: 1, least: null },
    ],
  };
  expect(outside(shape)).toEqual(['wide lines: 2, at most 1', 'tests of web: 19.0 %, at least 20']);
});
