import { type EditPart, insist, type RecordProblem, recordProblems, reduce } from '@inventario/core';
import { jobOnBase } from './job-on-base.js';
import type { Base, Pending, Question } from './kept-store.js';

/** What carrying mine through comes to, on the job as it will be when that reaches the server. */
export interface CarriedThrough {
  parts: EditPart[];
  isPossible: boolean;
  /** What is wrong with the records it would leave. */
  problems: readonly RecordProblem[];
}

/**
 * The edit that a question is about, insisted on.
 * @param parts in the place of the edit's own, where the installer changed them
 */
export function carriedThrough(
  { edit, records }: Question,
  parts: EditPart[] | undefined,
  base: Base,
  pending: readonly Pending[],
): CarriedThrough {
  // What waits for an answer, to this question or another, and what was made later comes to the server after
  // what is made here.
  const ground = jobOnBase(
    base,
    pending.filter((row) => row.heldBy === undefined && (row.answered !== undefined || row.edit.n < edit.n)),
  );
  const mine = insist(ground, parts ?? edit.parts, records);
  const result = reduce(ground, { parts: mine });
  return {
    parts: mine,
    isPossible: result.ok,
    problems: result.ok ? recordProblems(result.job, mine) : [],
  };
}
