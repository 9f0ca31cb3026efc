import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { helpText, readArguments, UnusableError } from './arguments.js';
import { fitted, table } from './table.js';
import { versionText } from './version.js';

const usual = { kind: 'command', file: 'f', box: undefined, text: false, planned: false, at: undefined };

test.each<[string, object]>([
  ['check f', { command: 'check' }],
  ['fill f --planned --box b1', { command: 'fill', planned: true, box: 'b1' }],
  ['fill --box=b1 f --planned', { command: 'fill', planned: true, box: 'b1' }],
  ['fill - --text', { command: 'fill', file: '-', text: true }],
  ['identify --text f --box=-odd', { command: 'identify', text: true, box: '-odd' }],
  ['match f --box=b=1', { command: 'match', box: 'b=1' }],
  ['homeplan -- --strange', { command: 'homeplan', file: '--strange' }],
  ['power f --at=2026-05-04T09:12:00Z', { command: 'power', at: Date.UTC(2026, 4, 4, 9, 12) }],
  ['power f --at 2026-05-04T09:12:00Z', { command: 'power', at: Date.UTC(2026, 4, 4, 9, 12) }],
  ['schema', { command: 'schema', file: undefined }],
])('%s', (line, expected) => {
  expect(readArguments(line.split(' '))).toEqual({ ...usual, ...expected });
});

test.each<[string, string]>([
  ['', 'the command "" is unknown'],
  ['guess f', 'the command "guess" is unknown; known are check, fill'],
  ['toString f', 'the command "toString" is unknown'],
  ['fill', 'fill needs the name of a job file, or - for standard input'],
  ['fill f g', '"g" is one argument too many'],
  ['schema f', '"f" is one argument too many'],
  ['fill f --fast', 'the option "--fast" is unknown to fill'],
  ['fill f --fast=1', 'the option "--fast=1" is unknown to fill'],
  ['fill f -x', 'the option "-x" is unknown to fill'],
  ['match f --planned', 'the option "--planned" is unknown to match'],
  ['check f --box b1', 'the option "--box" is unknown to check'],
  ['fill f --box', 'the option --box is given without its value: --box=ID'],
  ['fill f --text=yes', 'the option --text takes no value'],
  ['fill f --planned=no', 'the option --planned takes no value'],
  ['power f --at', 'the option --at is given without its value: --at=INSTANT'],
  ['power f --at=noon', 'the option --at must be an instant in UTC such as 2026-05-04T09:12:00Z, not "noon"'],
  ['power f --at=', 'the option --at must be an instant in UTC such as 2026-05-04T09:12:00Z, not ""'],
])('%s: refused in one line', (line, words) => {
  expect(() => readArguments(line.split(' '))).toThrow(UnusableError);
  expect(() => readArguments(line.split(' '))).toThrow(words);
});

describe('help', () => {
  test.each([
    ['--help', { kind: 'help', about: null }],
    ['-h', { kind: 'help', about: null }],
    ['fill --help', { kind: 'help', about: 'fill' }],
    ['power f --at=noon --help', { kind: 'help', about: 'power' }],
    ['--version', { kind: 'version' }],
  ])('%s', (line, asked) => {
    expect(readArguments(line.split(' '))).toEqual(asked);
  });

  test('names every command, and each command has an example that it takes itself', () => {
    const all = helpText(null);
    for (const command of [
      'check',
      'fill',
      'identify',
      'match',
      'homeplan',
      'wire',
      'power',
      'schema',
    ] as const) {
      expect(all).toContain(`\n  ${command}`);
      const example = /For example: inventario (.*)$/.exec(helpText(command))?.[1] as string;
      expect(readArguments(example.replace(/ >.*$/, '').split(' '))).toMatchObject({ command });
    }
    for (const line of all.split('\n')) expect(line.length).toBeLessThanOrEqual(110);
  });

  test('the version is the one of the package', () => {
    const { version } = JSON.parse(readFileSync(new URL('../../package.json', import.meta.url), 'utf8'));
    expect(versionText).toBe(`inventario ${version}, job file version 1`);
  });
});

describe('tables', () => {
  const rows = [
    ['w1', 3, 'a sentence that is rather long for so narrow a terminal'],
    ['w2', 12, null],
  ];

  test('as wide as their cells where there is room, numbers to the right', () => {
    expect(table(['id', 'count', 'why'], rows, 200).split('\n')).toEqual([
      'id  count  why',
      '--  -----  -------------------------------------------------------',
      'w1      3  a sentence that is rather long for so narrow a terminal',
      'w2     12  -',
    ]);
  });

  test('wrapped in their widest column where there is not', () => {
    const lines = table(['id', 'count', 'why'], rows, 40).split('\n');
    expect(Math.max(...lines.map((line) => line.length))).toBeLessThanOrEqual(40);
    expect(lines.slice(2)).toEqual([
      'w1      3  a sentence that is rather',
      '           long for so narrow a terminal',
      'w2     12  -',
    ]);
  });

  test('sentences are broken between words, a word beyond the width in itself; what fits stays as it is', () => {
    expect(fitted('  kept  as it is\none two three four', 16)).toBe('  kept  as it is\none two three\nfour');
    expect(fitted('abcdefghij', 4)).toBe('abcd\nefgh\nij');
  });
});
