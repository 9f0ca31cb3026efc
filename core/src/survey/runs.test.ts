import { describe, expect, test } from '@jest/globals';
import { readJobDocument } from '../document/read.js';
import { reduce } from '../job/edit/reduce.js';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { farEnds, runOf, runParts, withoutRunOf } from './runs.js';

const stairs = (): Job => ({ ...exampleJob('stairs'), runs: [] });
const foot = (job: Job) => job.boxes[0] as Box;
const said = (
  job: Job,
  far: Parameters<typeof runParts>[0]['far'],
  sure: 'seen' | 'tested' | 'supposed' = 'seen',
  id = 'run-1',
): Job => {
  const parts = runParts({ box: foot(job), cableId: 'foot-link', far, how: sure }, lookup(job), () => id).map(
    (part) => ({
      ...part,
      base: null,
    }),
  );
  const result = reduce(job, { parts });
  if (!result.ok) throw new Error(JSON.stringify(result.refusal));
  expect(
    readJobDocument(JSON.parse(JSON.stringify(result.job))).problems.filter(
      (problem) => problem.severity === 'error',
    ),
  ).toEqual([]);
  return result.job;
};

describe('where a cable goes', () => {
  test('to another box: its conductors are paired where their colour is alone at both ends', () => {
    const job = said(stairs(), { boxId: 'head', cableId: 'head-link' }, 'tested');
    expect(runOf('foot', 'foot-link', lookup(job))).toMatchObject({
      far: { boxId: 'head' },
      run: { id: 'run-1', known: 'tested' },
    });
    expect(job.runs?.[0]?.pairs).toContainEqual(['foot-link-red', 'head-link-red']);
    const twoReds = stairs();
    for (const conductor of (twoReds.boxes[1] as Box).conductors)
      if (conductor.id === 'head-link-black') conductor.colour = 'red';
    const pairs = said(twoReds, { boxId: 'head', cableId: 'head-link' }).runs?.[0]?.pairs ?? [];
    expect(pairs.map(([id]) => id).sort()).toEqual(['foot-link-bare', 'foot-link-white']);
  });

  test('is read from either end, and changed in place', () => {
    let job = said(stairs(), { boxId: 'head', cableId: 'head-link' });
    expect(runOf('head', 'head-link', lookup(job))?.far).toEqual({ boxId: 'foot', cableId: 'foot-link' });
    job = said(job, { circuitId: 'c2' }, 'supposed', 'run-2');
    expect(job.runs).toHaveLength(1);
    expect(job.runs?.[0]).toMatchObject({
      id: 'run-1',
      known: 'supposed',
      ends: [{ cableId: 'foot-link' }, { circuitId: 'c2' }],
    });
    expect(job.runs?.[0]?.pairs).toBeUndefined();
    expect(said(job, null).runs).toEqual([]);
  });

  test('is offered once: a cable end that has a run is not offered to another', () => {
    const job = stairs();
    expect(farEnds(foot(job), 'foot-link', lookup(job))).toContainEqual({
      boxId: 'head',
      cableId: 'head-link',
    });
    const taken = said(job, { boxId: 'head', cableId: 'head-link' });
    expect(farEnds(foot(taken), 'foot-feed', lookup(taken))).not.toContainEqual({
      boxId: 'head',
      cableId: 'head-link',
    });
    expect(farEnds(foot(taken), 'foot-link', lookup(taken))).toContainEqual({
      boxId: 'head',
      cableId: 'head-link',
    });
    expect(farEnds(foot(job), 'foot-link', lookup(job))).not.toContainEqual({
      boxId: 'foot',
      cableId: 'foot-feed',
    });
  });

  test('goes with the cable', () => {
    const job = said(stairs(), { boxId: 'head', cableId: 'head-link' });
    expect(withoutRunOf('foot', 'foot-link', lookup(job))).toHaveLength(1);
    expect(withoutRunOf('foot', 'foot-feed', lookup(job))).toEqual([]);
  });
});
