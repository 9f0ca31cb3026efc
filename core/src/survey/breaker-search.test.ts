import { describe, expect, test } from '@jest/globals';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { looksLeft, nextLook, remaining, type SearchAnswer } from './breaker-search.js';
import { putBackList } from './put-back.js';

describe('which breaker is it', () => {
  test.each([2, 3, 7, 16])(
    'of %i breakers it is found in as few looks as can be, whichever it is',
    (count) => {
      const ids = Array.from({ length: count }, (_, index) => `c${index}`);
      for (const truth of ids) {
        const answers: SearchAnswer[] = [];
        let off = new Set<string>();
        for (
          let look = nextLook(ids, answers, (id) => off.has(id));
          look;
          look = nextLook(ids, answers, (id) => off.has(id))
        ) {
          off = new Set(look.off);
          answers.push({ off: look.off, alive: !off.has(truth) });
        }
        expect(remaining(ids, answers)).toEqual([truth]);
        expect(answers.length).toBeLessThanOrEqual(looksLeft(ids, []));
      }
    },
  );

  test('answers that contradict each other leave none: a box on two breakers', () => {
    expect(
      remaining(
        ['a', 'b'],
        [
          { off: ['a'], alive: true },
          { off: ['b'], alive: true },
        ],
      ),
    ).toEqual([]);
  });
});

test('the way back names every end once', () => {
  const job = exampleJob('galley');
  const box = job.boxes[0] as Box;
  const list = putBackList(box, job);
  expect(list).toHaveLength(
    box.conductors.reduce((sum, conductor) => sum + (conductor.ends?.length ?? 1), 0),
  );
  expect(list.map((line) => line.says)).toContain('the black of Cable sink C: to terminal b of position 1');
});
