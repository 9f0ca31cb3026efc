import { entryAt } from '../../units/entry-at.js';
import type { Problem, Test } from '../problem/vocabulary.js';
import type { Entry } from '../weighing/posterior.js';

/**
 * The cores a test speaks of: its points with their in-place nets; for a lamp, every conductor its current
 * runs through under the best explanation. Indexes of cores.
 */
export function coresOfTest(problem: Problem, best: Entry, test: Test): Set<number> {
  const cores = new Set<number>();
  for (const point of test.points) {
    if (point.kind === 'core')
      for (const core of problem.nets[problem.cores[point.core]?.net ?? -1]?.cores ?? []) cores.add(core);
    if (point.kind === 'load') for (const core of lampPath(problem, best, point.loadId)) cores.add(core);
  }
  return cores;
}

/** Conductors the current of a load runs through: its own, the hot side of its switch, its way back. */
function lampPath(problem: Problem, best: Entry, loadId: string): Set<number> {
  const { explanation } = best;
  const { classes } = explanation;
  const path = new Set<number>();
  const addNet = (net: number | undefined) => {
    for (const core of problem.nets[net ?? -1]?.cores ?? []) path.add(core);
  };
  const outside = best.best.hidden.outside.get(loadId);
  if (outside) {
    if (outside.through !== null) {
      addNet(problem.cores[outside.through]?.net);
      const cable = problem.cables[problem.cores[outside.through]?.cable ?? -1];
      for (const core of cable?.cores ?? [])
        if (classes[core] === 'neutral-out') addNet(problem.cores[core]?.net);
    }
    return path;
  }
  classes.forEach((name, core) => {
    const { cable, net } = entryAt(problem.cores, core);
    const own = name === 'load' && explanation.loadsOfCore[core]?.includes(loadId);
    const far =
      explanation.loadsOfCable[cable]?.includes(loadId) && (name === 'traveler' || name === 'return');
    if (!own && !far) return;
    addNet(net);
    for (const other of problem.cables[cable]?.cores ?? [])
      if (classes[other] === 'return') addNet(problem.cores[other]?.net);
  });
  // The other terminals of the switches these hang on, and what shares their nets.
  for (const position of problem.positions) {
    const nets = [...position.nets.values()];
    if (
      nets.some(
        (net) =>
          problem.nets[net]?.cores.some((core) => path.has(core)) &&
          !problem.nets[net]?.cores.some(
            (core) => classes[core] === 'return' || classes[core] === 'neutral-in',
          ),
      )
    )
      for (const net of nets) addNet(net);
  }
  return path;
}
