import type { Wiring } from '../../electrics/arranged.js';
import { entryAt } from '../../units/entry-at.js';
import { type Enumeration, explanationsOf } from '../explaining/explanations.js';
import {
  type Explanation,
  type InsulatedRole,
  type Problem,
  ROLE_OF,
  ROLES,
  type RoleShares,
  type Test,
} from '../problem/vocabulary.js';
import { type Evaluated, Likelihood } from './likelihood.js';

/** An explanation with what the readings make of it. Weights are not yet divided by their sum. */
export interface Entry {
  explanation: Explanation;
  weight: number;
  best: Evaluated['best'];
  /** Prior times the best hidden things' likelihood: what "best explanation" goes by. */
  merit: number;
}

export interface Posterior {
  likelihood: Likelihood;
  enumeration: Enumeration;
  entries: Entry[];
  total: number;
  best: Entry;
  /** Probability of each role, by core, before and after readings. */
  before: RoleShares[];
  after: RoleShares[];
}

/**
 * What all that is left out may add up to, as a share of the best: well below the promised precision of 1e-9.
 */
const LEFT_OUT = 1e-11;

/** Every explanation weighed by the readings; null when the box has no insulated conductor. */
export function posteriorOf(
  problem: Problem,
  wiring: Wiring,
  tests: readonly Test[] = problem.tests,
): Posterior | null {
  if (problem.cores.length === 0) return null;
  const enumeration = explanationsOf(problem);
  const likelihood = new Likelihood(problem, wiring, tests);
  const negligible = LEFT_OUT / Math.max(1, enumeration.explanations.length);
  const byPrior = [...enumeration.explanations].sort((a, b) => b.prior - a.prior);
  const entries: Entry[] = [];
  let most = 0;
  for (const explanation of byPrior) {
    // Even if every reading suited it, it would be too small to matter.
    if (explanation.prior < most * negligible) break;
    const evaluated = likelihood.evaluate(explanation, (most * negligible) / explanation.prior);
    if (!evaluated) continue;
    const weight = explanation.prior * evaluated.likelihood;
    most = Math.max(most, weight);
    if (weight < most * negligible) continue;
    entries.push({
      explanation,
      weight,
      best: evaluated.best,
      merit: explanation.prior * evaluated.best.weight,
    });
  }
  const kept = entries.filter((entry) => entry.weight >= most * negligible);
  const [first] = kept;
  if (!first) return null;
  const total = kept.reduce((sum, entry) => sum + entry.weight, 0);
  const best = kept.reduce(
    (leader, entry) => (entry.merit > leader.merit * (1 + 1e-9) ? entry : leader),
    first,
  );
  return {
    likelihood,
    enumeration,
    entries: kept,
    total,
    best,
    before: roleShares(problem, enumeration.explanations, (explanation) => explanation.prior),
    after: roleShares(
      problem,
      kept.map((entry) => entry.explanation),
      (_, at) => entryAt(kept, at).weight,
    ),
  };
}

function roleShares(
  problem: Problem,
  explanations: readonly Explanation[],
  weightOf: (explanation: Explanation, at: number) => number,
): RoleShares[] {
  const sums = problem.cores.map(() => new Float64Array(ROLES.length));
  let total = 0;
  explanations.forEach((explanation, at) => {
    const weight = weightOf(explanation, at);
    total += weight;
    explanation.classes.forEach((name, core) => {
      const own = entryAt(sums, core);
      const role = INDEX_OF_ROLE[name];
      own[role] = (own[role] ?? 0) + weight;
    });
  });
  return sums.map(
    (own) => Object.fromEntries(ROLES.map((role, index) => [role, (own[index] ?? 0) / total])) as RoleShares,
  );
}

/** Where the role of a class stands among the roles. */
const INDEX_OF_ROLE = Object.fromEntries(
  Object.entries(ROLE_OF).map(([name, role]) => [name, ROLES.indexOf(role)]),
) as Readonly<Record<keyof typeof ROLE_OF, number>>;

export function roleOfCore(explanation: Explanation, core: number): InsulatedRole {
  return ROLE_OF[entryAt(explanation.classes, core)];
}

const withRole = new WeakMap<Posterior, Map<string, Entry | null>>();

/**
 * The best explanation that gives a core a role, evaluated in full even where it is hopeless; null where none
 * gives it.
 */
export function bestWithRole(posterior: Posterior, core: number, role: InsulatedRole): Entry | null {
  const kept = withRole.get(posterior) ?? new Map<string, Entry | null>();
  withRole.set(posterior, kept);
  const key = `${core} ${role}`;
  let best = kept.get(key);
  if (best === undefined) {
    best = findWithRole(posterior, core, role);
    kept.set(key, best);
  }
  return best;
}

function findWithRole(posterior: Posterior, core: number, role: InsulatedRole): Entry | null {
  let best: Entry | null = null;
  for (const entry of posterior.entries)
    if (roleOfCore(entry.explanation, core) === role && (best === null || entry.merit > best.merit))
      best = entry;
  if (best) return best;
  // By prior, and no further than one could still be better: readings suit an explanation by at most 1.
  const hopeless = posterior.enumeration.explanations
    .filter((explanation) => roleOfCore(explanation, core) === role)
    .sort((a, b) => b.prior - a.prior);
  for (const explanation of hopeless) {
    if (best !== null && explanation.prior <= best.merit) break;
    const evaluated = posterior.likelihood.evaluate(
      explanation,
      best === null ? 0 : best.merit / explanation.prior,
    );
    if (!evaluated) continue;
    const merit = explanation.prior * evaluated.best.weight;
    if (best === null || merit > best.merit)
      best = { explanation, weight: explanation.prior * evaluated.likelihood, best: evaluated.best, merit };
  }
  return best;
}
