import type { Edit, EditPart } from '@inventario/core';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { Keystrokes, oneEdit } from './keystrokes.js';

const part = (set: NonNullable<EditPart['set']>, more: Partial<EditPart> = {}): EditPart =>
  ({ kind: 'room', id: 'hall', base: null, set, ...more }) as EditPart;
const edit = (...parts: EditPart[]): Edit => ({
  id: 'first',
  deviceId: 'd',
  tab: 't',
  n: 7,
  at: '2026-11-28T10:00:00.000Z',
  label: 'Hall',
  parts,
});

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

test('typing goes on in the same field for a moment, and ends with anything else', () => {
  const keys = new Keystrokes();
  const first = edit(part({ name: { was: 'Hall', now: 'Hallw' } }));
  expect(keys.goOn('name', first)).toBe(false);
  keys.made('name', 'first');
  jest.advanceTimersByTime(1200);
  expect(keys.goOn('name', first)).toBe(true);
  expect(keys.goOn('note', first)).toBe(false);
  expect(keys.goOn(undefined, first)).toBe(false);
  expect(keys.goOn('name', { ...first, id: 'other' })).toBe(false);
  jest.advanceTimersByTime(1);
  expect(keys.goOn('name', first)).toBe(false);
  keys.made('name', 'first');
  keys.made(undefined, 'second');
  expect(keys.goOn('name', first)).toBe(false);
  keys.made('name', 'first');
  keys.end();
  expect(keys.goOn('name', first)).toBe(false);
});

test('two edits of a field are one that goes from the first value to the last, with an id of its own', () => {
  const first = edit(part({ name: { was: 'Hall', now: 'Hallw' } }));
  const both = oneEdit(
    first,
    [part({ name: { was: 'Hallw', now: 'Hallway' }, floor: { was: null, now: 1 } })],
    'Hallway',
  );
  expect(both).toMatchObject({ n: 7, label: 'Hallway' });
  expect(both?.id).not.toBe('first');
  expect(both?.parts).toEqual([
    part({ name: { was: 'Hall', now: 'Hallway' }, floor: { was: null, now: 1 } }),
  ]);
});

test.each([
  ['another record', edit(part({})), [part({}, { id: 'attic' })]],
  ['another kind', edit(part({})), [part({}, { kind: 'box' })]],
  ['several parts', edit(part({})), [part({}), part({})]],
  ['an edit of several parts', edit(part({}), part({})), [part({})]],
  ['a removal', edit(part({})), [{ kind: 'room', id: 'hall', base: null, remove: true } as EditPart]],
])('%s is an edit of its own', (_, first, parts) => {
  expect(oneEdit(first, parts, 'x')).toBeUndefined();
});
