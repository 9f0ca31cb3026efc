import { type Job, putPart, reduce, setParts } from '@inventario/core';
import { describe, expect, test } from '@jest/globals';
import { exampleJob } from '../../test-support/example-job.js';
import { jobOnBase, recordsGone, recordsOf } from './job-on-base.js';
import type { Pending } from './kept-store.js';
import { Tries } from './tries.js';
import { UndoSteps } from './undo-steps.js';

const pace = { beforeSending: 1, firstPause: 100, longestPause: 1000 };

describe('tries', () => {
  test('pauses double up to the longest, and begin anew once the server was heard', () => {
    const tries = new Tries(pace);
    const pauses = Array.from({ length: 5 }, () => {
      tries.longer();
      return tries.pause;
    });
    expect(pauses).toEqual([200, 400, 800, 1000, 1000]);
    expect(tries.reached).toBe(false);
    expect(tries.heard()).toBe(true);
    expect([tries.pause, tries.reached]).toEqual([100, true]);
    expect(tries.heard()).toBe(false);
  });

  test('after a fault edits go one at a time until they are answered', () => {
    const tries = new Tries(pace);
    expect(tries.most).toBeGreaterThan(1);
    tries.takeApart();
    expect(tries.most).toBe(1);
    tries.answered();
    expect(tries.most).toBeGreaterThan(1);
  });

  test('an edit is given up after five faults of its own, and not for those of a batch', () => {
    const tries = new Tries(pace);
    const faults = Array.from({ length: 4 }, () => tries.fault('a', true));
    expect(faults).toEqual([false, false, false, false]);
    // In a batch it is not known which was at fault.
    expect(tries.fault('a', false)).toBe(false);
    expect(tries.fault('b', true)).toBe(false);
    expect(tries.fault('a', true)).toBe(true);
    // Given up, it is counted from the beginning if it comes again.
    expect(tries.fault('a', true)).toBe(false);
  });
});

describe('steps', () => {
  const rename = (job: Job, name: string) => setParts('job', job.id, job, { name });
  const after = (job: Job, parts: ReturnType<typeof rename>) => {
    const made = reduce(job, { parts });
    if (!made.ok) throw new Error(JSON.stringify(made.refusal));
    return made.job;
  };

  test('the last is taken back first, and can be done again', () => {
    const first = exampleJob('pantry');
    const steps = new UndoSteps();
    expect([steps.undoLabel, steps.redoLabel]).toEqual([null, null]);
    const parts = rename(first, 'Two');
    steps.note('e1', 'Rename', first, parts);
    const second = after(first, parts);
    const back = steps.undo(second);
    expect(back).toMatchObject({ label: 'Undo: Rename', left: [] });
    const undone = after(second, back?.parts ?? []);
    expect(undone.name).toBe(first.name);
    steps.turned('e1', second, back?.parts ?? []);
    expect([steps.undoLabel, steps.redoLabel]).toEqual([null, 'Rename']);
    const again = steps.redo(undone);
    expect(after(undone, again?.parts ?? []).name).toBe('Two');
  });

  test('what others changed since stays, and is named', () => {
    const first = exampleJob('pantry');
    const steps = new UndoSteps();
    const parts = rename(first, 'Mine');
    steps.note('e1', 'Rename', first, parts);
    const theirs = after(after(first, parts), rename(after(first, parts), 'Theirs'));
    const back = steps.undo(theirs);
    expect(back?.parts).toEqual([]);
    expect(back?.left).toHaveLength(1);
  });

  test('a new edit ends what could be done again', () => {
    const job = exampleJob('pantry');
    const steps = new UndoSteps();
    steps.note('e1', 'One', job, rename(job, 'One'));
    const after1 = after(job, rename(job, 'One'));
    steps.turned('e1', after1, steps.undo(after1)?.parts ?? []);
    const { dropped } = steps.note('e2', 'Two', job, rename(job, 'Two'));
    expect(dropped).toEqual(['e1']);
    expect(steps.redoLabel).toBeNull();
  });

  test('a further keystroke is the same step: one undo takes both back', () => {
    const job = exampleJob('pantry');
    const steps = new UndoSteps();
    steps.note('e1', 'Rename', job, rename(job, 'A'));
    const half = after(job, rename(job, 'A'));
    const longer = { id: 'e2', label: 'Rename', at: '', device: 'd', parts: rename(job, 'AB') };
    steps.extend('e1', longer as never, half, rename(half, 'AB'));
    const whole = after(half, rename(half, 'AB'));
    expect(steps.all).toHaveLength(1);
    expect(after(whole, steps.undo(whole)?.parts ?? []).name).toBe(job.name);
  });

  test('more than two hundred are not kept', () => {
    const job = exampleJob('pantry');
    const steps = new UndoSteps();
    for (let at = 0; at < 203; at++) steps.note(`e${at}`, `Step ${at}`, job, rename(job, `N${at}`));
    expect(steps.all).toHaveLength(200);
    expect(steps.all[0]?.id).toBe('e3');
    steps.drop('e202');
    expect(steps.undoLabel).toBe('Step 201');
  });
});

describe('a job on its base', () => {
  const pendingOf = (...parts: Pending['edit']['parts'][]): Pending[] =>
    parts.map(
      (own, at) => ({ edit: { id: `e${at}`, label: 'x', at: '', parts: own } }) as unknown as Pending,
    );

  test('shows what is on its way, and leaves out what cannot be carried out there', () => {
    const job = exampleJob('pantry');
    const [room] = job.rooms;
    if (!room) throw new Error('the pantry has a room');
    const base = { job, sequence: 1, generation: 'g' };
    const pending = pendingOf(
      setParts('room', room.id, room, { name: 'Larder' }),
      setParts('room', 'gone', { id: 'gone', name: 'x' }, { name: 'y' }),
      [putPart('room', 'new', { id: 'new', name: 'Porch', floor: 0, order: 9 })],
    );
    const shown = jobOnBase(base, pending);
    expect(shown.rooms.map(({ name }) => name)).toEqual([
      'Larder',
      ...job.rooms.slice(1).map(({ name }) => name),
      'Porch',
    ]);
    expect(job.rooms[0]?.name).not.toBe('Larder');
  });

  test('knows the records that were shown, are changed by what waits, and are no more', () => {
    const before = exampleJob('pantry');
    const [room] = before.rooms;
    if (!room) throw new Error('the pantry has a room');
    const pending = pendingOf(setParts('room', room.id, room, { name: 'Larder' }));
    const gone = recordsGone(before, { ...before, rooms: [] }, pending);
    expect([...gone.values()]).toEqual([room]);
    expect(recordsGone(before, before, pending).size).toBe(0);
    const [renamed] = pending as [Pending];
    const empty = { ...before, rooms: [] };
    const larder = { ...room, name: 'Larder' };
    const known = (shown: Job, base: Job) => Object.values(recordsOf(renamed, shown, base));
    expect(known({ ...before, rooms: [larder] }, before)).toEqual([larder]);
    // Taken out here by a later edit, and still on the server; or nowhere any more.
    expect(known(empty, before)).toEqual([room]);
    expect(known(empty, empty)).toEqual([]);
  });
});
