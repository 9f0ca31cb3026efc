import { conducts } from '../../practice/instruments.js';
import { entryAt } from '../../units/entry-at.js';
import { coresOfTest } from '../judging/bearing.js';
import type { CoreGrade } from '../judging/grades.js';
import type { Problem, Test } from '../problem/vocabulary.js';
import { bestWithRole, type Posterior } from '../weighing/posterior.js';
import type { Candidate } from './candidates.js';
import { predicted } from './gains.js';

/** An outcome worth counting on, and how much likelier it has to be to rule a rival out. */
const LIKELY = 0.25;
const LIKELIER = 20;

/**
 * Tests likely to rule out a rival that no meter reading has ruled out yet: their expected outcome is twenty
 * times likelier under the best explanation than under the best one that gives the conductor the rival role.
 * @returns how many of two things such a test settles, by its index: both, where the evidence of the role is
 *   there already
 */
export function excludingTests(
  problem: Problem,
  posterior: Posterior,
  grades: readonly CoreGrade[],
  open: readonly number[],
  tests: readonly Test[],
): Map<number, number> {
  const found = new Map<number, number>();
  const expected = predicted(posterior, posterior.best, tests);
  for (const core of open) {
    const { missing, rival, isEvidenced } = entryAt(grades, core);
    const other = missing === 'rival' && rival ? bestWithRole(posterior, core, rival) : null;
    if (!other) continue;
    const under = predicted(posterior, other, tests);
    tests.forEach((test, at) => {
      if (test.reading.tool === 'indicator' || !coresOfTest(problem, posterior.best, test).has(core)) return;
      const row = entryAt(expected, at);
      for (const outcome in row)
        if ((row[outcome] ?? 0) >= LIKELY && (row[outcome] ?? 0) >= LIKELIER * (under[at]?.[outcome] ?? 0))
          found.set(at, Math.max(found.get(at) ?? 0, isEvidenced ? 2 : 1));
    });
  }
  return found;
}

/** Whether a test can supply evidence that a grade of this core still asks for. */
export function serves(
  { reason, test }: Candidate,
  grades: readonly CoreGrade[],
  open: readonly number[],
  problem: Problem,
): boolean {
  return open.some((core) => {
    const grade = grades[core];
    if (
      !grade ||
      grade.isEvidenced ||
      !test.points.some(
        (point) =>
          (point.kind === 'core' && problem.cores[point.core]?.net === problem.cores[core]?.net) ||
          point.kind === 'load',
      )
    )
      return false;
    switch (grade.role) {
      case 'line':
        return reason.purpose === 'line' || reason.purpose === 'gone' || reason.purpose === 'apart';
      case 'load':
        return reason.purpose === 'load' || reason.purpose === 'line';
      case 'neutral':
        return reason.purpose === 'neutral';
      case 'traveler':
        return reason.purpose === 'traveler' || (reason.purpose === 'load' && test.reading.tool === 'lamp');
      case 'line-on':
        return reason.purpose === 'onward' || reason.purpose === 'apart';
      default:
        return false;
    }
  });
}

/**
 * Across a driver an ohmmeter reads open with its lamp in as with it out: that seldom proves a load, and
 * comes after what does.
 */
export function servesWell({ reason, test }: Candidate, { positions, loads }: Problem): number {
  if (reason.purpose !== 'load' || test.reading.tool !== 'ohms') return 1;
  const own = positions.flatMap(({ loadIds }) => loadIds.flatMap((id) => loads.get(id) ?? []));
  return own.length === 0 || own.some(({ kind }) => conducts(kind)) ? 1 : SELDOM;
}

const SELDOM = 0.05;
