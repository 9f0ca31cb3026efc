import type { Problem, Test } from '../problem/vocabulary.js';
import { outcomeOf } from '../weighing/outcomes.js';
import type { Entry, Posterior } from '../weighing/posterior.js';
import { coresOfTest } from './bearing.js';
import { SameTest } from './same-test.js';

/** A reading the best explanation does not expect, with what it clashes with. */
export interface Conflict {
  test: number;
  clashes: number[];
  open: boolean;
  cores: ReadonlySet<number>;
}

/** Under the best explanation a reading this unlikely is named. */
const UNLIKELY = 0.02;
/** One that also differs from an identical test is named sooner. */
const UNLIKELY_WHEN_REPEATED = 0.05;

/** Readings that contradict the best explanation or each other. None is dropped silently. */
export function conflictsOf(problem: Problem, posterior: Posterior): Conflict[] {
  const { tests } = posterior.likelihood;
  const each = posterior.best.best.each;
  const same = new SameTest(posterior);
  return tests.flatMap((test, at): Conflict[] => {
    const own = each[at] ?? 0;
    // Most readings are what was expected: only of the others is it asked which are the same test.
    if (own > Math.max(UNLIKELY, UNLIKELY_WHEN_REPEATED)) return [];
    const twins = tests.flatMap((other, index) =>
      index !== at &&
      same.keyOf(other) === same.keyOf(test) &&
      outcomeOf(problem, other) !== outcomeOf(problem, test)
        ? [index]
        : [],
    );
    if (own > UNLIKELY && !(twins.length > 0 && own < UNLIKELY_WHEN_REPEATED)) return [];
    const clashes = twins.length > 0 ? twins : clashesWith(posterior, at);
    return [
      {
        test: at,
        clashes,
        open: isOpen(posterior, test, at, same),
        cores: coresOfTest(problem, posterior.best, test),
      },
    ];
  });
}

/**
 * What would have to be wrong for this reading to be right: readings the best explanation that holds it does
 * not expect.
 */
function clashesWith({ entries, best, likelihood }: Posterior, at: number): number[] {
  const holding = entries
    .filter((entry) => (entry.best.each[at] ?? 0) >= 0.3)
    .reduce<Entry | null>(
      (leader, entry) => (leader === null || entry.merit > leader.merit ? entry : leader),
      null,
    );
  if (!holding) return [];
  return likelihood.tests.flatMap((_, other) =>
    other !== at && (holding.best.each[other] ?? 0) <= 0.1 && (best.best.each[other] ?? 0) > 0.3
      ? [other]
      : [],
  );
}

/**
 * Open until the same test has twice given what the best explanation expects, or a low-impedance meter has
 * read an indicator's point.
 */
function isOpen(posterior: Posterior, test: Test, at: number, same: SameTest): boolean {
  const { tests } = posterior.likelihood;
  const expected = tests.filter(
    (other, index) =>
      index !== at && same.keyOf(other) === same.keyOf(test) && (posterior.best.best.each[index] ?? 0) > 0.3,
  );
  if (expected.length >= 2) return false;
  if (test.reading.tool !== 'indicator') return true;
  const [point] = test.points;
  return !tests.some(
    (other) =>
      other.reading.tool === 'volts-low-z' &&
      other.arrangement.key === test.arrangement.key &&
      other.points.some(
        (candidate) => candidate.kind === 'core' && point?.kind === 'core' && candidate.core === point.core,
      ) &&
      (posterior.best.best.each[tests.indexOf(other)] ?? 0) > 0.3,
  );
}
