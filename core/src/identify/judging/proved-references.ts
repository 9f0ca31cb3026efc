import type { Problem, Test } from '../problem/vocabulary.js';

/**
 * A bonded box, or a ground by the bundle it is in; null for what is no reference. Grounds on the screw of a
 * metal box are the box.
 */
export function referenceName(problem: Problem, point: Test['points'][number]): string | null {
  switch (point.kind) {
    case 'reference':
      return 'reference';
    case 'box':
      return problem.boxIsReference ? 'box' : null;
    case 'ground': {
      const bundle = problem.groundBundle.get(point.id);
      if (bundle === undefined) return `ground:${point.id}`;
      return bundle === problem.screwBundle
        ? problem.boxIsReference
          ? 'box'
          : `bundle:${bundle}`
        : `bundle:${bundle}`;
    }
    default:
      return null;
  }
}

/**
 * The known earth, and everything read at most 1 ohm from it or from what was so read.
 *
 *      known earth --0.4-- ground of a cable --0.3-- metal box --7.2-- another ground
 *       proved                proved                   proved            not proved
 *
 * A chain is as good as its worst link, and a link in which one end is proved proves the other.
 */
export function provedReferences(problem: Problem, tests: readonly Test[]): ReadonlySet<string> {
  const proved = new Set(['reference']);
  const links = tests.flatMap(({ reading, points }) => {
    if (reading.tool !== 'ohms' || typeof reading.value !== 'number' || reading.value > 1) return [];
    const [one, other] = points.map((point) => referenceName(problem, point));
    return one && other ? [[one, other] as const] : [];
  });
  for (let grown = true; grown; ) {
    grown = false;
    for (const [one, other] of links) {
      if (proved.has(one) === proved.has(other)) continue;
      proved.add(one).add(other);
      grown = true;
    }
  }
  return proved;
}
