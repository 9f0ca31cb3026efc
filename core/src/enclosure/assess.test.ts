import { expect, test } from '@jest/globals';
import { type JobLookup, lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { EXAMPLES, exampleJob } from '../test-support/examples.js';
import { sameEntries } from '../units/kept.js';
import { assessBox, assessmentRestsOn } from './assess.js';

/** Which part of a job each map of a lookup is made from. */
const MADE_FROM: Record<keyof Omit<JobLookup, 'job'>, keyof Job> = {
  devices: 'catalogue',
  hubs: 'catalogue',
  loads: 'loads',
  circuits: 'circuits',
  rooms: 'rooms',
  boxes: 'boxes',
  selections: 'selections',
  groups: 'groups',
};

/** The parts of a job that are read while it is asked, by name. */
function partsRead(job: Job, ask: (known: JobLookup) => void): Set<keyof Job> {
  const read = new Set<keyof Job>();
  const watched = new Proxy(job, {
    get(target, part: keyof Job) {
      read.add(part);
      return target[part];
    },
  });
  ask(
    new Proxy(lookup(job), {
      get(target, map: keyof JobLookup) {
        if (map === 'job') return watched;
        read.add(MADE_FROM[map]);
        return target[map];
      },
    }),
  );
  return read;
}

test.each(['found', 'planned'] as const)(
  'an assessment as %s reads no part of the job it does not name',
  (which) => {
    for (const example of EXAMPLES) {
      const job: Job = { overrides: [], brief: {}, ...exampleJob(example) };
      const named = job.boxes.flatMap((box) => assessmentRestsOn(box, lookup(job), which));
      const read = partsRead(job, (known) => {
        for (const box of job.boxes) assessBox(box, known, which);
      });
      expect(read.size).toBeGreaterThan(0);
      expect([...read].filter((part) => part !== 'boxes' && !named.includes(job[part]))).toEqual([]);
    }
  },
);

test('a figure the job sets itself makes another assessment', () => {
  const job = exampleJob('pantry');
  const own: Job = { ...job, overrides: [{ figure: 'fill.device.single', value: 3 }] };
  const [box] = job.boxes as [Job['boxes'][number]];
  const basis = (of: Job) => assessmentRestsOn(box, lookup(of), 'found');
  expect(sameEntries(basis(job), basis(own))).toBe(false);
  expect(sameEntries(basis(own), basis({ ...own }))).toBe(true);
});

test('as planned it rests on the boxes that share its light, and on no others', () => {
  const job = exampleJob('stairs');
  const [foot, head] = job.boxes as [Job['boxes'][number], Job['boxes'][number]];
  const without = { ...job, selections: [] };
  expect(assessmentRestsOn(foot, lookup(job), 'planned')).toContain(head);
  expect(assessmentRestsOn(foot, lookup(without), 'planned')).not.toContain(head);
  expect(assessmentRestsOn(foot, lookup(job), 'found')).not.toContain(head);
});
