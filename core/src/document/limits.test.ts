import { describe, expect, test } from '@jest/globals';
import { Edit } from '../job/edit/edit.js';
import { LIMITS, limitProblems } from '../job/limits.js';
import { exampleJob } from '../test-support/examples.js';
import { readJobDocument } from './read.js';

const nested = (levels: number): unknown => JSON.parse(`${'['.repeat(levels)}${']'.repeat(levels)}`);

describe('what is too much is named where it stands', () => {
  test.each<[string, unknown, string | null]>([
    ['nesting at the limit', nested(LIMITS.depth), null],
    ['nesting beyond it', nested(LIMITS.depth + 1), '/0'.repeat(LIMITS.depth)],
    ['nesting no program could walk', nested(200_000), '/0'.repeat(LIMITS.depth)],
    ['a long text', { note: 'x'.repeat(LIMITS.text + 1) }, '/note'],
    ['half a character', { note: ['fine', 'half \uD83D'] }, '/note/1'],
    ['whole characters of two halves', { note: '\uD83D\uDE00' }, null],
    ['a number that is none', { n: JSON.parse('1e999') }, '/n'],
    ['a name that would change the object', JSON.parse('{"a": {"__proto__": 1}}'), '/a/__proto__'],
    ['half a character as a name', { 'a\uDC00': 1 }, '/a\uFFFD'],
  ])('%s', (_, value, path) => {
    expect(limitProblems(value).map((problem) => problem.path)).toEqual(path === null ? [] : [path]);
  });

  test('a thousand mistakes are told as a hundred', () => {
    expect(limitProblems(Array.from({ length: 1000 }, () => '\uD800'))).toHaveLength(100);
  });
});

test('a job file is held to them, unknown fields too', () => {
  const read = (change: (job: Record<string, unknown>) => void) => {
    const job = structuredClone(exampleJob('pantry')) as unknown as Record<string, unknown>;
    change(job);
    const result = readJobDocument(job);
    return result.ok ? [] : result.problems.map(({ path, message }) => `${path} ${message}`);
  };
  expect(read((job) => Object.assign(job, { later: nested(LIMITS.depth - 1) }))).toEqual([]);
  expect(read((job) => Object.assign(job, { later: nested(LIMITS.depth) }))[0]).toMatch(
    /^\/later\/0.*nested too deep/,
  );
  expect(read((job) => Object.assign((job.boxes as object[])[0] as object, { notes: '\uDC00' }))[0]).toMatch(
    /^\/boxes\/0\/notes holds half/,
  );
  expect(
    read((job) => Object.assign(job, { overrides: [{ figure: 'é'.repeat(300), value: 1 }] }))[0],
  ).toMatch(/^\/overrides\/0\/figure is too long/);
  const many = Array.from({ length: 30 }, (_, index) => [`f${index}`, 'x'.repeat(90_000)]);
  expect(
    read((job) => Object.assign((job.rooms as object[])[0] as object, Object.fromEntries(many)))[0],
  ).toMatch(/^\/rooms\/0 is too large/);
});

test('an edit is held to them', () => {
  const edit = (put: Record<string, unknown>) => ({
    id: 'e1',
    deviceId: 'd1',
    n: 1,
    at: '2026-05-04T09:12:00Z',
    label: 'x',
    parts: [{ kind: 'thing', id: 't', base: null, put }],
  });
  const problem = (put: Record<string, unknown>) =>
    Edit.safeParse(edit(put)).error?.issues[0]?.path.join('/');
  expect(problem({ deep: nested(LIMITS.depth - 1) })).toBeUndefined();
  expect(problem({ deep: nested(LIMITS.depth + 4) })).toMatch(/^parts\/0\/put\/deep/);
  expect(problem({ half: '\uD800' })).toBe('parts/0/put/half');
  expect(
    problem(Object.fromEntries(Array.from({ length: 50 }, (_, index) => [`f${index}`, 'x'.repeat(90_000)]))),
  ).toBe('parts');
});
