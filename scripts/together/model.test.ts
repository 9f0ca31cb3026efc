import { expect, test } from '@jest/globals';
import { failings, modelRuns } from './runs.js';

const NOTHING = { lost: [], swallowed: [], missing: [], apart: [], overwritten: [], broken: [] };

test('three devices on two servers converge, and nothing acknowledged is lost and nothing recorded swallowed, whatever breaks', async () => {
  const seeds = Array.from({ length: 10 }, (_, index) => index + 1);
  const verdicts = await modelRuns(seeds, 5, 3);
  expect(verdicts.map((verdict) => ({ seed: verdict.seed, ...failings(verdict) }))).toEqual(
    seeds.map((seed) => ({ seed, ...NOTHING })),
  );
  // Otherwise the runs would tell nothing.
  expect(verdicts.reduce((sum, verdict) => sum + verdict.edits, 0)).toBeGreaterThan(150);
  expect(verdicts.reduce((sum, verdict) => sum + verdict.questions, 0)).toBeGreaterThan(0);
});
