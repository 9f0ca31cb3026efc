import { expect, test } from '@jest/globals';
import type { EditPart } from '../../job/edit/edit.js';
import { recordName } from '../../job/records.js';
import type { Job } from '../../job/schema/job.js';
import { exampleJob } from '../../test-support/examples.js';
import { conflictFacts, partFacts, recordWords, wordProblem } from './changes.js';

const job = exampleJob('pantry');
const [box] = job.boxes as [Job['boxes'][number]];
const [conductor] = box.conductors as [Job['boxes'][number]['conductors'][number]];
const set = (field: string, was: unknown, now: unknown): EditPart => ({
  kind: 'box',
  id: box.id,
  base: 1,
  set: { [field]: { was, now } },
});

test('a change of one conductor is told by that conductor, not by the list', () => {
  const now = box.conductors.map((one) => (one === conductor ? { ...one, colour: 'red' } : one));
  const [fact, ...more] = partFacts(job, set('conductors', box.conductors, now));
  expect(more).toEqual([]);
  expect(fact).toMatchObject({ was: conductor.colour, now: 'red' });
  expect(fact?.what).toMatch(new RegExp(`^box ${box.name}: the ${conductor.colour}.*: colour$`));
});

test('where it ends, what it is, what is ticked and what is read are told in words', () => {
  const moved = { ...conductor, at: { position: 1, terminal: 'L' } };
  const to = (at: object) => [{ ...conductor, at }];
  expect(partFacts(job, set('conductors', to({ capped: true }), [moved]))[0]).toMatchObject({
    was: 'capped',
    now: 'on terminal L of position 1',
  });
  const joint = box.joints[0]?.id as string;
  expect(partFacts(job, set('conductors', to({ joint }), to({ boxScrew: true })))[0]).toMatchObject({
    was: 'in joint 1',
    now: 'on the screw of the box',
  });
  const label = { conductorId: conductor.id, role: 'line', circuitId: job.circuits[0]?.id };
  expect(partFacts(job, set('labels', [], [label]))[0]).toMatchObject({
    was: 'nothing',
    now: `line, breaker ${job.circuits[0]?.breaker}`,
  });
  expect(partFacts(job, set('hazards', null, ['scorch', 'water']))[0]).toMatchObject({
    now: 'scorch, water',
  });
});

test('records are called what an installer calls them', () => {
  expect(recordWords(job, 'room', 'entry')).toBe('room Entry');
  expect(recordWords(job, 'circuit', job.circuits[0]?.id as string)).toMatch(/^breaker \S+ \(.+\)$/);
  expect(recordWords(job, 'selection', `${box.id}/1`)).toBe(`choice for ${box.name}, position 1`);
  expect(partFacts(job, { kind: 'room', id: 'r9', base: null, put: { id: 'r9', name: 'Attic' } })).toEqual([
    { what: 'room Attic', was: 'not there', now: 'added' },
  ]);
});

test('a question says what it was, theirs and mine; texts and numbers can be written anew', () => {
  const name = {
    part: 0,
    kind: 'box' as const,
    id: box.id,
    field: 'name',
    was: 'A',
    theirs: 'B',
    yours: 'C',
  };
  expect(conflictFacts(job, name)).toEqual({
    what: `box ${box.name}: name`,
    was: 'A',
    theirs: 'B',
    mine: 'C',
    writes: 'text',
  });
  expect(conflictFacts(job, { ...name, field: 'order', was: null, theirs: 2, yours: 3 }).writes).toBe(
    'number',
  );
  expect(
    conflictFacts(job, { ...name, field: 'conductors', path: [conductor.id, 'colour'] }).writes,
  ).toBeNull();
  const gone = conflictFacts(job, { part: 0, kind: 'room', id: 'gone', theirs: null });
  expect(gone).toMatchObject({ theirs: 'taken out', mine: 'changed' });
  expect(
    conflictFacts(job, { part: 0, kind: 'room', id: 'entry', theirs: job.rooms[0], yours: null }),
  ).toMatchObject({
    theirs: 'changed',
    mine: 'taken out',
  });
});

test('what was taken out meanwhile is named as it was known', () => {
  const without = { ...job, boxes: [] };
  const conflict = { part: 0, kind: 'box' as const, id: box.id, field: 'conductors', theirs: null };
  const about = { ...conflict, path: [conductor.id, 'colour'] };
  const { what } = conflictFacts(job, about);
  expect(what).toContain(`box ${box.name}: `);
  expect(conflictFacts(without, about, { [recordName(about)]: box }).what).toBe(what);
  expect(conflictFacts(without, about).what).not.toBe(what);
});

test('a wrong word is told why', () => {
  expect(wordProblem({ message: 'is missing: it must be a string' })).toBe('It cannot be left empty.');
  expect(wordProblem({ message: 'must be a number' })).toBe('It must be a number.');
});
