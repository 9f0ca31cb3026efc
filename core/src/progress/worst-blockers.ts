import type { Blocker, BoxProgress } from './progress.js';
import { STAGES } from './stages.js';

/** A kind of blocker over the house: how many boxes it holds up, and the first of them. */
export interface HouseBlocker {
  code: Blocker['code'];
  stage: Blocker['stage'];
  boxIds: string[];
}

/**
 * What holds the house up, worst first. Only the first stage that is due in each box counts: later ones
 * cannot be worked yet. Faults (over-full, too deep, pairing failed) come before work that is merely waiting;
 * then by the number of boxes.
 */
export function worstBlockers(boxes: readonly BoxProgress[]): HouseBlocker[] {
  const found = new Map<Blocker['code'], HouseBlocker>();
  for (const box of boxes)
    for (const { code, stage } of box.blockers) {
      if (stage !== box.next && !FAULTS.has(code)) continue;
      const known = found.get(code) ?? { code, stage, boxIds: [] };
      known.boxIds.push(box.boxId);
      found.set(code, known);
    }
  const rank = (blocker: HouseBlocker) => (FAULTS.has(blocker.code) ? 0 : 1);
  return [...found.values()].sort(
    (a, b) =>
      rank(a) - rank(b) ||
      b.boxIds.length - a.boxIds.length ||
      STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage),
  );
}

const FAULTS: ReadonlySet<Blocker['code']> = new Set([
  'stopped',
  'labels-clash',
  'over-full',
  'too-deep',
  'pairing-failed',
]);
