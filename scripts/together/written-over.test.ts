import type { Edit, Job } from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { expect, test } from '@jest/globals';
import { Shown, writtenOver } from './written-over.js';

const [, room] = quillonPoint().rooms;
const id = room?.id as string;
const named = (name: string): Job => ({
  ...quillonPoint(),
  rooms: [{ ...room, id, name, floor: 0, order: 1 }],
});
const shown = (...names: string[]) => {
  const seen = new Shown();
  for (const name of names) seen.look(named(name));
  return seen;
};
const edit = (was: string, now: string, more: Partial<Edit> = {}): Edit => ({
  id: 'mine',
  deviceId: 'phone',
  tab: 'left',
  n: 2,
  at: '2026-05-04T09:12:00Z',
  label: 'Rename',
  parts: [{ kind: 'room', id, base: 4, set: { name: { was, now } } }],
  ...more,
});
const judged = (stood: string, sent: Edit, seen: Record<string, Shown>, others: Edit[] = []) => {
  const applied = { ...sent, parts: edit(stood, 'Mine').parts };
  return writtenOver(
    applied,
    new Map([...others, sent].map((one) => [one.id, one])),
    new Map(Object.entries(seen)),
  );
};

test('a word that the tab never showed was written over', () => {
  expect(judged('Theirs', edit('Before', 'Mine'), { left: shown('Before', 'Mine') })).toEqual([
    `Rename: ${id}/name`,
  ]);
});

test('not so one it believed, one it had shown before its own earlier edit was dropped, and its own word', () => {
  expect(judged('Before', edit('Before', 'Mine'), { left: shown('Before', 'Mine') })).toEqual([]);
  expect(judged('Theirs', edit('Earlier', 'Mine'), { left: shown('Theirs', 'Earlier', 'Mine') })).toEqual([]);
  expect(judged('Mine', edit('Before', 'Mine'), { left: shown('Before', 'Mine') })).toEqual([]);
});

test('what another tab showed counts only when the edit was made on one of its edits', () => {
  const earlier = edit('Theirs', 'Earlier', { id: 'earlier', tab: 'right', n: 1 });
  const seen = { left: shown('Earlier', 'Mine'), right: shown('Theirs', 'Earlier') };
  expect(judged('Theirs', edit('Earlier', 'Mine', { on: ['earlier'] }), seen, [earlier])).toEqual([]);
  expect(judged('Theirs', edit('Earlier', 'Mine'), seen, [earlier])).toEqual([`Rename: ${id}/name`]);
});
