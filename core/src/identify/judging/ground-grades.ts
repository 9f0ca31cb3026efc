import { GROUND_BANDS } from '../../practice/instruments.js';
import { entryAt } from '../../units/entry-at.js';
import { GROUND_PRIOR } from '../problem/priors.js';
import type { Problem, Test } from '../problem/vocabulary.js';
import { outcomeOf } from '../weighing/outcomes.js';
import { CONFIRMED, type Grade, INDICATED } from './grade.js';
import { provedReferences, referenceName } from './proved-references.js';

export interface GroundGrade {
  id: string;
  probability: number;
  grade: Grade;
  because: number[];
}

/**
 * Grounds by their looks, confirmed by at most 1 ohm to a proved reference or bonded box. Members of the
 * ground bundle share it. Only readings to earth speak against one: ohms to a lamp behind a driver, or to a
 * dead line, say nothing of it.
 */
export function groundGrades(problem: Problem, tests: readonly Test[]): GroundGrade[] {
  const proved = provedReferences(problem, tests);
  return problem.grounds.map(({ id, colour }) => {
    const prior = GROUND_PRIOR[colour] ?? 0.9;
    const own = tests.flatMap((test, index) => {
      if (test.reading.tool !== 'ohms') return [];
      const mine = test.points.some((point) => point.kind === 'ground' && sameBundle(problem, point.id, id));
      const partner = test.points.some(
        (point) =>
          !(point.kind === 'ground' && sameBundle(problem, point.id, id)) &&
          (proved.has(referenceName(problem, point) ?? '') ||
            (point.kind === 'box' && problem.boxIsReference)),
      );
      return mine && partner ? [index] : [];
    });
    let odds = prior / (1 - prior);
    for (const index of own) {
      const outcome = outcomeOf(problem, entryAt(tests, index));
      if (outcome !== null)
        odds *= (GROUND_BANDS.ground[outcome] ?? 0.001) / (GROUND_BANDS.loose[outcome] ?? 0.001);
    }
    const probability = odds / (1 + odds);
    const read = own.filter((index) => outcomeOf(problem, entryAt(tests, index)) === 'to-1');
    const grade: Grade =
      read.length > 0 && probability >= CONFIRMED
        ? 'confirmed'
        : own.length > 0 && probability >= INDICATED
          ? 'indicated'
          : 'guess';
    return { id, probability, grade, because: read.length > 0 ? read : own };
  });
}

function sameBundle(problem: Problem, a: string, b: string): boolean {
  return (
    a === b ||
    (problem.groundBundle.get(a) !== undefined && problem.groundBundle.get(a) === problem.groundBundle.get(b))
  );
}
