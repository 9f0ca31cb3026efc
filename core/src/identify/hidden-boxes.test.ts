import { expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Reading } from '../job/schema/survey.js';
import { followed, identifyHidden, someBox } from '../test-support/followed.js';
import { Random } from '../test-support/random.js';
import type { Identification } from './answer.js';
import { everyTest } from './asking/next-tests.js';
import { problemOf } from './problem/problem.js';

const conductor = (result: Identification, id: string) =>
  result.conductors.find((entry) => entry.id === id) as Identification['conductors'][number];

test('sixty boxes with hidden wiring, answered truly: nothing confirmed is wrong, and what stays open is said', () => {
  let needed = 0;
  let confirmed = 0;
  for (let seed = 100; seed < 160; seed++) {
    const hidden = someBox(seed);
    const { box, result } = followed(hidden);
    for (const [id, role] of hidden.truth) {
      const entry = conductor(result, id);
      if (entry.grade === 'confirmed') expect({ seed, id, role: entry.role }).toEqual({ seed, id, role });
      if (role === 'line' || role === 'load' || role === 'neutral') {
        needed += 1;
        if (entry.grade === 'confirmed') confirmed += 1;
      }
    }
    expect(result.conflicts).toEqual([]);
    // Whatever all feasible tests together confirm, following the proposals confirmed too. (Hundreds of
    // readings of larger boxes take minutes.)
    if (hidden.box.positions.length > 2) continue;
    const every = everyTest(problemOf(hidden.box, lookup(hidden.job)).problem).map((next, at) =>
      hidden.answer(next, `e${at}`),
    );
    const whole = { ...box, readings: [...box.readings, ...every] };
    for (const entry of identifyHidden(hidden, whole).conductors)
      if (entry.grade === 'confirmed' && ['line', 'load', 'neutral'].includes(entry.role))
        expect({ seed, id: entry.id, grade: conductor(result, entry.id).grade }).toEqual({
          seed,
          id: entry.id,
          grade: 'confirmed',
        });
  }
  expect(confirmed / needed).toBeGreaterThan(0.8);
});

test('thirty boxes with readings as instruments give them: at most one in a hundred confirmed roles is wrong', () => {
  let confirmed = 0;
  let wrong = 0;
  for (let seed = 300; seed < 330; seed++) {
    const hidden = someBox(seed);
    const { result } = followed(hidden, new Random(seed * 7));
    for (const [id, role] of hidden.truth) {
      const entry = conductor(result, id);
      if (entry.grade !== 'confirmed') continue;
      confirmed += 1;
      if (entry.role !== role) wrong += 1;
    }
  }
  expect(confirmed).toBeGreaterThan(100);
  expect(wrong / confirmed).toBeLessThanOrEqual(0.01);
});

test('a single wrong meter value is named, or leaves what it would change unconfirmed', () => {
  let flipped = 0;
  let silent = 0;
  for (let seed = 400; seed < 407; seed++) {
    const hidden = someBox(seed);
    const { box } = followed(hidden);
    box.readings.forEach((reading, at) => {
      const value = wrong(reading);
      if (value === null) return;
      flipped += 1;
      const spoiled = { ...box, readings: box.readings.with(at, { ...reading, value }) };
      const result = identifyHidden(hidden, spoiled);
      const named = result.conflicts.some((conflict) => conflict.readingIds.includes(reading.id));
      const misled = result.conductors.some(
        ({ id, grade, role }) => grade === 'confirmed' && (hidden.truth.get(id) ?? role) !== role,
      );
      if (misled && !named) silent += 1;
    });
  }
  expect(flipped).toBeGreaterThan(40);
  expect(silent / flipped).toBeLessThanOrEqual(0.05);
});

/** What the meter would have shown on the other side; null for what is no meter. */
function wrong({ tool, value }: Reading): Reading['value'] | null {
  if (tool === 'ohms') return value === 'open' || (typeof value === 'number' && value > 50) ? 0.3 : 'open';
  if (tool === 'volts' || tool === 'volts-low-z') return typeof value === 'number' && value > 60 ? 0.4 : 119;
  return null;
}
