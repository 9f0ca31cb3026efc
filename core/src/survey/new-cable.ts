import type { Box, Conductor } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import type { PracticeId, WireSize } from '../terms/trade.js';

/**
 * One more cable of two and a ground, in the practice's colours of today, nothing joined yet.
 * @returns the box's lists with it, and its first conductor
 */
export function withNewCable(
  box: Pick<Box, 'cables' | 'conductors'>,
  job: { practice: PracticeId },
  size: WireSize,
  newId: () => string,
): Pick<Box, 'cables' | 'conductors'> & { first: Conductor } {
  const { line, neutral, ground } = profileOf(job).colours.today;
  const cableId = newId();
  const core = (colour: Conductor['colour']): Conductor => ({
    id: newId(),
    cableId,
    size,
    colour,
    at: { capped: true },
  });
  const first = core(line);
  return {
    cables: [...box.cables, { id: cableId, label: `cable ${box.cables.length + 1}` }],
    conductors: [...box.conductors, first, core(neutral), core(ground)],
    first,
  };
}

/** The size a new cable usually has on a breaker of so many amperes. */
export function usualSize(job: { practice: PracticeId }, amps: number | undefined): WireSize {
  const sizes = profileOf(job).sizes.cable;
  const found = sizes.find(({ upToAmps }) => (amps ?? 0) <= upToAmps) ?? sizes.at(-1);
  if (!found) throw new Error(`The practice "${job.practice}" names no size for a cable`);
  return found.size;
}
