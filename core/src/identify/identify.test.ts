import { describe, expect, test } from '@jest/globals';
import { type JobLookup, lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box, Reading } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { followed, someBox } from '../test-support/followed.js';
import { hiddenBox } from '../test-support/hidden-box.js';
import { Random } from '../test-support/random.js';
import type { Identification } from './answer.js';
import { explanationsOf } from './explaining/explanations.js';
import { identifyBox } from './identify.js';
import { problemOf } from './problem/problem.js';
import { ROLES } from './problem/vocabulary.js';
import { Likelihood } from './weighing/likelihood.js';
import { posteriorOf, roleOfCore } from './weighing/posterior.js';

const AT = '2026-05-04T09:00:00Z';
const known = (job: Job, box: Box): JobLookup => lookup({ ...job, boxes: [box, ...job.boxes.slice(1)] });
const conductor = (result: Identification, id: string) =>
  result.conductors.find((entry) => entry.id === id) as Identification['conductors'][number];

/** The pantry with other readings: feed black on b, lamps black on a, whites and bares joined. */
function pantry(
  readings: (Partial<Reading> & Pick<Reading, 'tool' | 'points' | 'value'>)[],
  change: (job: Job) => void = () => {},
) {
  const job = exampleJob('pantry');
  change(job);
  const box = {
    ...(job.boxes[0] as Box),
    readings: readings.map(
      (reading, at): Reading => ({
        id: `m${at}`,
        at: AT,
        arrangement: 'device-out',
        position: 1,
        breakers: { c4: 'on' },
        ...reading,
      }),
    ),
  };
  return identifyBox(box, known(job, box));
}

describe('what it never does', () => {
  test('nothing is confirmed, or more than a guess, without a reading', () => {
    for (const name of ['galley', 'shed', 'lounge-plate']) {
      const job = exampleJob(name);
      for (const box of job.boxes)
        expect(identifyBox(box, lookup(job)).conductors.every((entry) => entry.grade === 'guess')).toBe(true);
    }
  });

  test('a quiet indicator makes nothing a neutral, and all quiet with the breaker on is a note', () => {
    const insulated = ['pantry-feed-black', 'pantry-feed-white', 'pantry-lamps-black', 'pantry-lamps-white'];
    const result = pantry(insulated.map((point) => ({ tool: 'indicator', points: [point], value: 'quiet' })));
    expect(result.conductors.filter((entry) => entry.grade === 'confirmed')).toEqual([]);
    expect(result.notes.map((note) => note.code)).toContain('no-supply-seen');
  });

  test('supply volts read through a filament never make the load a neutral', () => {
    const result = pantry([
      { tool: 'volts-low-z', points: ['pantry-feed-black', 'reference'], value: 118 },
      { tool: 'volts-low-z', points: ['pantry-feed-black', 'reference'], value: 0, breakers: { c4: 'off' } },
      { tool: 'volts-low-z', points: ['pantry-feed-black', 'pantry-lamps-black'], value: 117 },
      { tool: 'volts', points: ['pantry-feed-black', 'pantry-lamps-black'], value: 118 },
    ]);
    expect(conductor(result, 'pantry-lamps-black')).not.toMatchObject({
      role: 'neutral',
      grade: 'confirmed',
    });
    expect(conductor(result, 'pantry-lamps-black').role).toBe('load');
  });

  test('near zero ohms through a dozen floodlamps never make the load a neutral', () => {
    const floods = (job: Job) => Object.assign(job.loads[0] as object, { count: 12, wattsEach: 150 });
    // 120 x 120 / 1800 / 12 = 0.67 ohm cold.
    const result = pantry(
      [{ tool: 'ohms', points: ['pantry-lamps-black', 'reference'], value: 0.7, breakers: { c4: 'off' } }],
      floods,
    );
    expect(conductor(result, 'pantry-lamps-black')).not.toMatchObject({
      role: 'neutral',
      grade: 'confirmed',
    });
  });

  test('a ghost voltage confirms nothing', () => {
    const result = pantry([
      { tool: 'volts', points: ['pantry-lamps-black', 'reference'], value: 62 },
      { tool: 'volts', points: ['pantry-lamps-white', 'reference'], value: 41 },
    ]);
    expect(result.conductors.filter((entry) => entry.grade === 'confirmed')).toEqual([]);
  });

  test('a hot traveler where the load is never becomes a confirmed line', () => {
    const job = exampleJob('stairs');
    const foot = job.boxes[0] as Box;
    const hot: Reading = {
      id: 'm1',
      at: AT,
      tool: 'volts-low-z',
      arrangement: 'device-out',
      position: 1,
      breakers: { c2: 'on' },
      points: ['foot-link-red', 'reference'],
      value: 119,
    };
    const box = {
      ...foot,
      readings: [hot, { ...hot, id: 'm2', breakers: { c2: 'off' as const }, value: 0 }],
    };
    expect(conductor(identifyBox(box, known(job, box)), 'foot-link-red')).not.toMatchObject({
      role: 'line',
      grade: 'confirmed',
    });
  });
});

describe('contradictions', () => {
  const good = exampleJob('pantry').boxes[0]?.readings as Reading[];

  test('a reading against all others is named with what it clashes with, and holds grades back', () => {
    const job = exampleJob('pantry');
    const odd: Reading = { ...(good[4] as Reading), id: 'odd', value: 0.2 };
    const box = { ...(job.boxes[0] as Box), readings: [...good, odd] };
    const result = identifyBox(box, known(job, box));
    expect(result.conflicts).toMatchObject([
      { readingIds: expect.arrayContaining(['odd', 'pantry-r5']), open: true },
    ]);
    expect(conductor(result, 'pantry-feed-black').grade).not.toBe('confirmed');
  });

  test('it is settled when the same test has twice shown what was expected', () => {
    const job = exampleJob('pantry');
    const again = (id: string, value: number): Reading => ({ ...(good[4] as Reading), id, value });
    const box = { ...(job.boxes[0] as Box), readings: [...good, again('odd', 0.2), again('m1', 118.7)] };
    const result = identifyBox(box, known(job, box));
    expect(result.conflicts).toMatchObject([{ open: false }]);
    expect(conductor(result, 'pantry-feed-black').grade).toBe('confirmed');
  });
});

describe('whatever the box', () => {
  test.each([1, 2, 3, 4, 5, 6])(
    'probabilities sum to 1, and renaming or reordering changes nothing (seed %i)',
    (seed) => {
      const hidden = someBox(seed);
      const { box, result } = followed(hidden);
      for (const entry of result.conductors)
        expect(
          entry.probability + entry.alternatives.reduce((sum, other) => sum + other.probability, 0),
        ).toBeCloseTo(1, 9);
      const turned: Box = {
        ...box,
        cables: [...box.cables].reverse(),
        conductors: [...box.conductors].reverse(),
        joints: [...box.joints].reverse(),
        readings: [...box.readings].reverse(),
        positions: [...box.positions].reverse(),
      };
      const text = JSON.stringify(turned).replaceAll(/"(w\d+)"/g, '"zz-$1"');
      const renamed = JSON.parse(text) as Box;
      const again = identifyBox(renamed, known(hidden.job, renamed));
      for (const entry of result.conductors) {
        const other = conductor(again, `zz-${entry.id}`);
        expect([other.role, other.grade]).toEqual([entry.role, entry.grade]);
        expect(Math.abs(other.probability - entry.probability)).toBeLessThan(1e-9);
      }
    },
  );

  test('the sum over explanations agrees with plain enumeration of every hidden thing', () => {
    for (const seed of [11, 12, 13]) {
      const hidden = hiddenBox(new Random(seed), 'us', 1, true);
      const { box } = followed(hidden);
      const { problem, wiring } = problemOf(box, known(hidden.job, box));
      const fast = posteriorOf(problem, wiring);
      const plain = new Likelihood(problem, wiring, problem.tests);
      const weights = explanationsOf(problem).explanations.map((explanation) => ({
        explanation,
        weight: explanation.prior * plain.inFull(explanation),
      }));
      const total = weights.reduce((sum, entry) => sum + entry.weight, 0);
      problem.cores.forEach((_, core) => {
        ROLES.forEach((role) => {
          const share =
            weights.reduce(
              (sum, entry) => sum + (roleOfCore(entry.explanation, core) === role ? entry.weight : 0),
              0,
            ) / total;
          expect(Math.abs((fast?.after[core]?.[role] as number) - share)).toBeLessThan(1e-9);
        });
      });
    }
  });
});
