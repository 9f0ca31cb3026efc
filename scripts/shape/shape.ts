import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import {
  deepTernaries,
  functionLengths,
  longFunctions,
  manyParameters,
  type Place,
  practiceQuestions,
  upwardImports,
  wideLines,
} from './measures.js';
import { readSource, type Source } from './source.js';

export interface Shape {
  places: { name: string; found: Place[]; bound: number }[];
  longest: Place | null;
  /** Share of test lines among all lines of code, %, by workspace and for all; the least asked for. */
  tests: { workspace: string; code: number; tests: number; share: number; least: number | null }[];
}

const WORKSPACES = ['core', 'server', 'web', 'standin', 'cli', 'demo', 'scripts'];
/**
 * What the house is held to; a bound is lowered when the house is better, and never raised. The functions
 * over their length are a position's panel and one table of a data sheet's rows.
 */
const MOST = { upward: 0, practice: 0, long: 3, ternaries: 0, parameters: 0, wide: 0 };
const LEAST_SHARE: Readonly<Record<string, number>> = { all: 28, web: 19 };
/** Written once and read as data: no code of the product. */
const DATA = /^demo\/src\/|^server\/src\/storage\/migrations\/|^core\/src\/practice\/figures\//;

function sourcesOf(root: string): Source[] {
  return execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', '*.ts', '*.tsx'], {
    cwd: root,
    encoding: 'utf8',
  })
    .split('\n')
    .filter((path) => path !== '' && existsSync(join(root, path)))
    .map((path) => readSource(root, path));
}

export function shapeOf(root: string): Shape {
  const sources = sourcesOf(root);
  const paths = new Set(sources.map(({ path }) => path));
  const exists = (path: string) => paths.has(path);
  const all = (measure: (source: Source) => Place[]) =>
    sources.flatMap(measure).sort((a, b) => b.value - a.value);
  return {
    places: [
      { name: 'upward imports', found: all((source) => upwardImports(source, exists)), bound: MOST.upward },
      { name: 'practice questions outside practice/', found: all(practiceQuestions), bound: MOST.practice },
      { name: 'functions over their length', found: all(longFunctions), bound: MOST.long },
      { name: 'ternaries deeper than two', found: all(deepTernaries), bound: MOST.ternaries },
      { name: 'functions of more than five parameters', found: all(manyParameters), bound: MOST.parameters },
      { name: 'lines over the width', found: all(wideLines), bound: MOST.wide },
    ],
    longest: all((source) => (source.isTest ? [] : functionLengths(source)))[0] ?? null,
    tests: sharesOfTests(sources),
  };
}

function sharesOfTests(sources: readonly Source[]): Shape['tests'] {
  const count = (list: readonly Source[]) =>
    list.reduce((sum, { lines }) => sum + lines.filter((line) => line.trim() !== '').length, 0);
  const share = (workspace: string, list: readonly Source[]) => {
    const tests = count(list.filter(({ isTest }) => isTest));
    const code = count(list);
    return {
      workspace,
      code,
      tests,
      share: code === 0 ? 0 : (100 * tests) / code,
      least: LEAST_SHARE[workspace] ?? null,
    };
  };
  const counted = sources.filter(({ path }) => !DATA.test(path));
  return [
    ...WORKSPACES.map((workspace) =>
      share(
        workspace,
        counted.filter(({ path }) => path.startsWith(`${workspace}/`)),
      ),
    ),
    share('all', counted),
  ];
}

/** What stands outside its bound, in words; none when all is well. */
export function outside(shape: Shape): string[] {
  return [
    ...shape.places
      .filter(({ found, bound }) => found.length > bound)
      .map(({ name, found, bound }) => `${name}: ${found.length}, at most ${bound}`),
    ...shape.tests
      .filter(({ share, least }) => least !== null && share < least)
      .map(
        ({ workspace, share, least }) => `tests of ${workspace}: ${share.toFixed(1)} %, at least ${least}`,
      ),
  ];
}
