import type { Verdict } from './run.js';
import { failings } from './runs.js';

/** What many runs came to, in one line; those that failed by their seed. */
export function told(verdicts: readonly Verdict[]): string {
  const sum = (count: (verdict: Verdict) => number) =>
    verdicts.reduce((all, verdict) => all + count(verdict), 0);
  const failed = verdicts.filter((verdict) =>
    Object.values(failings(verdict)).some((list) => list.length > 0),
  );
  const words =
    `${verdicts.length} runs of three devices on two servers: ${sum((one) => one.edits)} edits, ` +
    `${sum((one) => one.questions)} questions`;
  return failed.length === 0
    ? `${words}, all converged, none lost, none swallowed, nobody's word written over unasked`
    : `${words}; FAILED with seeds ${failed.map((verdict) => verdict.seed).join(', ')}`;
}
