import type { Identification } from '../identify/answer.js';
import { identifyBox } from '../identify/identify.js';
import { lookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { type HiddenBox, hiddenBox } from './hidden-box.js';
import { Random } from './random.js';

/** What is made of a hidden box as it stands with these readings. */
export function identifyHidden(hidden: HiddenBox, box: Box): Identification {
  return identifyBox(box, lookup({ ...hidden.job, boxes: [box, ...hidden.job.boxes.slice(1)] }));
}

/** Follows the proposed tests to the end. @param draw answers as instruments give them, not truly */
export function followed(
  hidden: HiddenBox,
  draw?: Random,
): { result: Identification; box: Box; steps: number } {
  let { box } = hidden;
  let result = identifyHidden(hidden, box);
  let steps = 0;
  for (; steps < 60 && result.next[0]; steps++) {
    box = { ...box, readings: [...box.readings, hidden.answer(result.next[0], `m${steps}`, draw)] };
    result = identifyHidden(hidden, box);
  }
  return { result, box, steps };
}

/** A box in any practice, of one to three positions; every twentieth of four. */
export function someBox(seed: number): HiddenBox {
  const random = new Random(seed);
  return hiddenBox(
    random,
    random.pick(['us', 'us', 'ca', 'gb', 'modular'] as const),
    seed % 20 === 16 ? 4 : random.int(1, 3),
    random.chance(0.7),
  );
}
