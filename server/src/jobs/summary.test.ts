import {
  boxProgress,
  houseBlockerText,
  type Job,
  jobProgress,
  lookup,
  STAGES,
  worstBlockers,
} from '@inventario/core';
import { quillonPoint } from '@inventario/demo';
import { describe, expect, test } from '@jest/globals';
import { summarise } from './summary.js';

/** The demo, and the demo with something the matter in one box or another. */
const JOBS: [string, (job: Job) => void][] = [
  ['as it is', () => {}],
  [
    'with no box',
    (job) => {
      Object.assign(job, { boxes: [], selections: [], groups: [], runs: [], pairings: [], photos: [] });
      job.events = job.events.filter(({ boxId }) => boxId === undefined);
    },
  ],
  [
    'with every box too shallow',
    (job) => {
      for (const box of job.boxes) box.enclosure = { ...box.enclosure, depth: 12, rings: [] };
    },
  ],
  [
    'with a live wire while its breaker is off',
    (job) => {
      const box = job.boxes.find(
        ({ conductors, circuitIds }) => conductors.length > 0 && circuitIds.length === 1,
      );
      const [circuitId] = box?.circuitIds ?? [];
      if (!box || !circuitId) throw new Error('a box of the demo has one circuit');
      box.readings.push({
        id: 'live',
        at: '2026-05-04T10:00:00Z',
        tool: 'volts-low-z',
        arrangement: 'in-place',
        breakers: { [circuitId]: 'off' },
        points: [String(box.conductors[0]?.id), 'reference'],
        value: 118,
      } as Job['boxes'][number]['readings'][number]);
    },
  ],
];

describe.each(JOBS)('the list of jobs, of the demo %s', (_, change) => {
  const job = quillonPoint();
  change(job);
  const summary = summarise(job, new Date('2026-05-04T12:00:00Z'));

  test('names the blocker that the board names first', () => {
    const known = lookup(job);
    const [worst] = worstBlockers(job.boxes.map((box) => boxProgress(box, known)));
    expect(summary.blocker).toBe(worst ? houseBlockerText(worst) : null);
  });

  test('counts each stage as the rooms of the board do', () => {
    for (const stage of STAGES) {
      const rooms = jobProgress(job).map(({ counts }) => counts[stage]);
      expect(summary.stages[stage]).toEqual({
        done: rooms.reduce((sum, { done }) => sum + done, 0),
        of: rooms.reduce((sum, { of }) => sum + of, 0),
      });
    }
    expect(summary).toMatchObject({ rooms: job.rooms.length, boxes: job.boxes.length });
  });
});

test('what is the matter in one box is named before what waits in many', () => {
  const [, , , [, change]] = JOBS as [unknown, unknown, unknown, (typeof JOBS)[number]];
  const job = quillonPoint();
  change(job);
  expect(summarise(job, new Date()).blocker).not.toBe(summarise(quillonPoint(), new Date()).blocker);
});
