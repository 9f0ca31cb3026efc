import type { At, Box, Conductor } from './schema/survey.js';

const looseEndsOf = new WeakMap<Box, readonly { conductor: Conductor; at: At }[]>();

/**
 * Every loose end of the box's conductors: one of a cable conductor, two of a pigtail, none of one that
 * passes through. Kept as long as the box object lives: two hundred devices ask for the same.
 */
export function looseEnds(box: Box): readonly { conductor: Conductor; at: At }[] {
  let ends = looseEndsOf.get(box);
  if (!ends) {
    ends = box.conductors.flatMap((conductor) =>
      (conductor.ends ?? (conductor.at ? [conductor.at] : [])).map((at) => ({ conductor, at })),
    );
    looseEndsOf.set(box, ends);
  }
  return ends;
}
