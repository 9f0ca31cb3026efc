import { perObject } from '../units/kept.js';
import type { At, Box, Conductor } from './schema/survey.js';

/**
 * Every loose end of the box's conductors: one of a cable conductor, two of a pigtail, none of one that
 * passes through. Kept as long as the box object lives: two hundred devices ask for the same.
 */
export const looseEnds = perObject((box: Box): readonly { conductor: Conductor; at: At }[] =>
  box.conductors.flatMap((conductor) =>
    (conductor.ends ?? (conductor.at ? [conductor.at] : [])).map((at) => ({ conductor, at })),
  ),
);
