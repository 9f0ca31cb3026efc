import { entryAt } from '../../units/entry-at.js';
import { type InsulatedRole, type Problem, ROLES, type Test } from '../problem/vocabulary.js';
import { bestWithRole, type Posterior, roleOfCore } from '../weighing/posterior.js';
import { coresOfTest } from './bearing.js';
import type { Conflict } from './conflicts.js';
import { Evidence } from './evidence.js';
import { CONFIRMED, type Grade, INDICATED } from './grade.js';

/** Why a core's grade is not better: what is still missing. */
export type Missing = 'probability' | 'conflict' | 'rival' | 'evidence' | 'reading';

export interface CoreGrade {
  role: InsulatedRole;
  probability: number;
  grade: Grade;
  missing: Missing | null;
  /** Readings the grade rests on. */
  because: number[];
  rival: InsulatedRole | null;
  /** What its role asks for was read; where a rival stands, more of it would tell nothing. */
  isEvidenced: boolean;
}

/** A rival that was less likely than this before readings needs no excluding. */
const RIVAL_FROM = 1e-4;
const LIKELIER = 20;

const NO_LINES: ReadonlySet<number> = new Set();

/** How surely each core is what it most probably is, with the evidence each role asks for. */
export function gradesOf(
  problem: Problem,
  posterior: Posterior,
  conflicts: readonly Conflict[],
): CoreGrade[] {
  const grading = new Grading(problem, posterior);
  const grades = problem.cores.map((_, core) => grading.grade(core, conflicts, NO_LINES));
  // A neutral may rest on a line that is confirmed, so it is asked once the lines are known.
  const lines = new Set(
    grades.flatMap((grade, core) => (grade.role === 'line' && grade.grade === 'confirmed' ? [core] : [])),
  );
  return grades.map((grade, core) =>
    grade.role === 'neutral' ? grading.grade(core, conflicts, lines) : grade,
  );
}

class Grading {
  private readonly bearing: Set<number>[];
  private readonly evidence: Evidence;

  constructor(
    private readonly problem: Problem,
    private readonly posterior: Posterior,
  ) {
    this.evidence = new Evidence(problem, posterior);
    this.bearing = posterior.likelihood.tests.map((test) => coresOfTest(problem, posterior.best, test));
  }

  private get tests(): readonly Test[] {
    return this.posterior.likelihood.tests;
  }

  grade(core: number, conflicts: readonly Conflict[], confirmedLines: ReadonlySet<number>): CoreGrade {
    const shares = entryAt(this.posterior.after, core);
    const role = ROLES.reduce<InsulatedRole>(
      (most, other) => (shares[other] > shares[most] + 1e-12 ? other : most),
      ROLES[0],
    );
    const probability = shares[role];
    const bears = this.tests.flatMap((_, test) => (this.bearing[test]?.has(core) ? [test] : []));
    const result = (
      grade: Grade,
      missing: Missing | null,
      because: number[] = bears,
      rival: InsulatedRole | null = null,
      isEvidenced = grade === 'confirmed',
    ): CoreGrade => ({
      role,
      probability,
      grade,
      missing,
      because,
      rival,
      isEvidenced,
    });
    if (bears.length === 0) return result('guess', 'reading');
    const least: Grade = probability >= INDICATED ? 'indicated' : 'guess';
    if (probability < CONFIRMED) return result(least, 'probability');
    if (conflicts.some((conflict) => conflict.open && conflict.cores.has(core)))
      return result(least, 'conflict');
    const evidence = this.evidence.of(core, role, confirmedLines);
    const rival = this.openRival(core, role, bears);
    if (rival) return result(least, 'rival', bears, rival, evidence !== null);
    return evidence ? result('confirmed', null, evidence) : result(least, 'evidence');
  }

  /**
   * A role that no reading (other than an indicator's) on this conductor or its net has made twenty times
   * less likely.
   */
  private openRival(core: number, role: InsulatedRole, bears: readonly number[]): InsulatedRole | null {
    const before = entryAt(this.posterior.before, core);
    const { best } = this.posterior;
    const own = roleOfCore(best.explanation, core) === role ? best : bestWithRole(this.posterior, core, role);
    if (!own) return role;
    for (const rival of ROLES) {
      if (rival === role || before[rival] < RIVAL_FROM) continue;
      if ((rival === 'traveler' || rival === 'switched-line') && !this.problem.multiLocation) continue;
      const other = bestWithRole(this.posterior, core, rival);
      if (!other) continue;
      const excluded = bears.some(
        (test) =>
          this.tests[test]?.reading.tool !== 'indicator' &&
          (own.best.each[test] ?? 0) >= LIKELIER * (other.best.each[test] ?? 0),
      );
      if (!excluded) return rival;
    }
    return null;
  }
}
