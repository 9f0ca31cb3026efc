import { describe, expect, test } from '@jest/globals';
import { assessBoxes } from './enclosure/assess.js';
import { matchJob } from './match/match.js';
import { EXAMPLES, exampleJob, expected } from './test-support/examples.js';
import { missingParts } from './test-support/part-of.js';

describe.each(EXAMPLES)('the worked example %s', (name) => {
  const worked = expected(name);

  test.each(['fill', 'fill --planned'])('%s', (command) => {
    const printed = { boxes: assessBoxes(exampleJob(name), command === 'fill' ? 'found' : 'planned') };
    expect(missingParts(worked[command] ?? {}, printed)).toEqual([]);
  });

  test('match', () => {
    expect(missingParts(worked.match ?? {}, { places: matchJob(exampleJob(name)) })).toEqual([]);
  });
});

test('the comparison notices a wrong figure, a missing entry and a list that should be empty', () => {
  expect(missingParts({ a: 1 }, { a: 1.02 })).toHaveLength(1);
  expect(missingParts({ list: [{ id: 'x' }] }, { list: [{ id: 'y' }] })).toHaveLength(1);
  expect(missingParts({ list: [] }, { list: [1] })).toHaveLength(1);
});
