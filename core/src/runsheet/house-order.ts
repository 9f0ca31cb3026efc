import type { Batch } from './vocabulary.js';

/**
 * Batches that cost the same in another order are put in the one that suits the house: those that take the
 * router away come first, so that pairing waits least. Batches at the same panels may stand in any order
 * among themselves, and the whole may be turned round; neither changes a trip.
 * @param early whether a batch is better done early
 */
export function houseOrder(batches: readonly Batch[], early: (batch: Batch) => boolean): Batch[] {
  const sorted = (list: readonly Batch[]): Batch[] =>
    runsOf(list).flatMap((run) => [...run].sort((a, b) => Number(early(b)) - Number(early(a))));
  const [one, other] = [sorted(batches), sorted([...batches].reverse())];
  const lastEarly = (list: readonly Batch[]) => list.findLastIndex(early);
  return lastEarly(other) < lastEarly(one) ? other : one;
}

/** Neighbours at the same panels. */
function runsOf(batches: readonly Batch[]): Batch[][] {
  const runs: Batch[][] = [];
  let at: string | null = null;
  for (const batch of batches) {
    const panels = [...batch.panels].sort().join('\n');
    if (panels === at) runs.at(-1)?.push(batch);
    else runs.push([batch]);
    at = panels;
  }
  return runs;
}
