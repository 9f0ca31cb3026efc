import { entryAt } from '../../units/entry-at.js';
import { colourPrior, patternsOf, SINGLE_WEIGHTS } from '../problem/priors.js';
import type { CablePattern, CoreClass, Problem } from '../problem/vocabulary.js';

/** The most ways a cable of more cores than usual is looked at; beyond it the result says so. */
const MOST_SINGLES = 4000;

/**
 * What one cable can be, core by core in its own order, with what that weighs by how usual it is and by its
 * colours. `cut`: there were more ways than are looked at.
 */
export function cablePatterns(problem: Problem, cable: number): { patterns: CablePattern[]; cut: boolean } {
  const { cores, end } = entryAt(problem.cables, cable);
  const made: CablePattern[] = [];
  const usual = patternsOf(cores.length, problem.practice);
  for (const pattern of usual) {
    // Travelers and switched lines come into question only where something suggests a switch elsewhere.
    if (!problem.multiLocation && (pattern.far !== undefined || pattern.classes.includes('switched-line')))
      continue;
    for (const classes of orders(pattern.classes)) {
      const colour = cores.reduce(
        (product, core, index) =>
          product *
          colourPrior(
            problem.practice,
            entryAt(classes, index),
            problem.cores[core]?.colour ?? 'unknown',
            pattern.loop === true,
          ),
        1,
      );
      made.push({
        classes,
        far: pattern.far ?? null,
        weight: (pattern.weight * colour) / orderCount(pattern.classes),
      });
    }
  }
  const alone = usual.length === 0 ? singles(problem, cores) : [];
  const cut = alone.length > MOST_SINGLES;
  made.push(...alone.slice(0, MOST_SINGLES));
  if (!end || end.kind === 'box') return { patterns: made, cut };
  const fits = (pattern: CablePattern) =>
    end.kind === 'circuit' ? pattern.classes.includes('line') : pattern.classes.includes('load');
  const patterns = made.map((pattern) => ({
    ...pattern,
    weight: pattern.weight * (fits(pattern) ? end.weight : 1 - end.weight),
  }));
  return { patterns, cut };
}

/**
 * More conductors than any usual cable has: each for itself, as in conduit; the likeliest first where there
 * are too many.
 */
function singles(problem: Problem, cores: readonly number[]): CablePattern[] {
  let made: CablePattern[] = [{ classes: [], far: null, weight: 1 }];
  for (const core of cores) {
    made = made.flatMap((pattern) =>
      SINGLE_WEIGHTS.filter(
        ([name, weight]) => weight > 0 && (problem.multiLocation || name !== 'switched-line'),
      ).map(([name, weight]) => ({
        classes: [...pattern.classes, name],
        far: null,
        weight:
          pattern.weight *
          weight *
          colourPrior(problem.practice, name, problem.cores[core]?.colour ?? 'unknown', false),
      })),
    );
    // Each core weighs for itself: what is among the most likely in the end is so at every step. One more
    // tells that some were left out.
    if (made.length > MOST_SINGLES)
      made = made.sort((a, b) => b.weight - a.weight).slice(0, MOST_SINGLES + 1);
  }
  return made;
}

/** The distinct orders of a pattern's conductors. */
function orders(classes: readonly CoreClass[]): CoreClass[][] {
  if (classes.length === 0) return [[]];
  const seen = new Set<CoreClass>();
  return classes.flatMap((first, at) => {
    if (seen.has(first)) return [];
    seen.add(first);
    return orders(classes.toSpliced(at, 1)).map((rest) => [first, ...rest]);
  });
}

function orderCount(classes: readonly CoreClass[]): number {
  return orders(classes).length;
}
