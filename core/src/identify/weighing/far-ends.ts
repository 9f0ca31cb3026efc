import type { Element, Network } from '../../electrics/network.js';
import { conducts, warmOhms } from '../../practice/instruments.js';
import {
  type Arrangement,
  type CoreClass,
  comesBack,
  type Explanation,
  type FarKind,
  type Problem,
} from '../problem/vocabulary.js';

/** What hangs on the far ends of the cables, by what it is: the explanation read once for all networks. */
export interface FarEnds {
  lines: { core: number; cable: number; circuit: number; leg: string | null }[];
  /** `opened`: circuits whose breakers open it too; while one of them is off it hangs on nothing. */
  neutrals: { core: number; cable: number; opened: readonly number[] }[];
  switched: { core: number; cable: number; circuit: number; leg: string | null }[];
  /** `back`: the core its current returns on; null: it returns elsewhere, to the reference. */
  loads: { core: number; cable: number; back: number | null; hanging: Hanging[] }[];
  /** A multi-location switch at the far end: its common and the travelers it chooses between. */
  far: {
    cable: number;
    source: { circuit: number; leg: string | null } | null;
    hanging: Hanging[] | null;
    back: number | null;
    third: number | null;
    one: number | null;
    two: number | null;
  }[];
}

type Hanging = Omit<Element, 'a' | 'b'>;

export function farEnds(problem: Problem, explanation: Explanation): FarEnds {
  const { classes } = explanation;
  const ends: FarEnds = { lines: [], neutrals: [], switched: [], loads: [], far: [] };
  const volts = problem.circuits[0]?.volts ?? 120;
  const hanging = (loads: readonly string[]): Hanging[] =>
    loads.length === 0
      ? [{ loadId: null, conducts: false, ohms: warmOhms(undefined, volts) }]
      : loads.map((loadId) => {
          const load = problem.loads.get(loadId);
          return { loadId, conducts: conducts(load?.kind ?? 'led'), ohms: warmOhms(load, volts) };
        });
  const sourceOf = (circuit: number) => ({ circuit, leg: problem.circuits[circuit]?.leg ?? null });
  problem.cables.forEach(({ cores }, cable) => {
    const only = (name: Explanation['classes'][number]) =>
      cores.find((core) => classes[core] === name) ?? null;
    const back = only('return');
    const kind = explanation.far[cable];
    const pair = legsOf(problem, explanation, cable);
    for (const core of cores) {
      const name = classes[core];
      const circuit = explanation.circuitOfCable[cable];
      if (name === 'line')
        ends.lines.push({
          core,
          cable,
          circuit: circuitAt(problem, explanation.circuitOfCore, core),
          leg: explanation.legOfCore[core] ?? null,
        });
      else if (name === 'neutral-in')
        ends.neutrals.push({ core, cable, opened: openedBy(problem, explanation, cable) });
      else if (name === 'load' && pair?.[1] === core) continue;
      else if (name === 'load' && pair)
        ends.loads.push({
          core,
          cable,
          back: pair[1],
          hanging: hanging(explanation.loadsOfCore[core] ?? []),
        });
      else if (name === 'load')
        ends.loads.push({ core, cable, back, hanging: hanging(explanation.loadsOfCore[core] ?? []) });
      else if (name === 'switched-line' && !comesBack(kind) && circuit !== null && circuit !== undefined)
        ends.switched.push({ core, cable, ...sourceOf(circuit) });
    }
    if (!kind) return;
    const [one = null, two = null] =
      kind === 'conversion'
        ? [only('line-on') ?? only('line'), only('switched-line') ?? only('load')]
        : cores.filter((core) => classes[core] === 'traveler');
    ends.far.push({
      cable,
      source: kind === 'fed' ? sourceOf(circuitAt(problem, explanation.circuitOfCable, cable)) : null,
      hanging: kind === 'load' ? hanging(explanation.loadsOfCable[cable] ?? []) : null,
      back,
      third: thirdOf(kind, only),
      one,
      two,
    });
  });
  return ends;
}

/** The circuit of a core or cable that is fed; of three lines in a cable each is of one nobody named. */
function circuitAt({ circuits }: Problem, named: readonly (number | null)[], at: number): number {
  return named[at] ?? circuits.length - 1;
}

/** Two hot conductors and nothing else, to one and the same load: it hangs between them, on two legs. */
function legsOf(
  problem: Problem,
  { classes, loadsOfCore }: Explanation,
  cable: number,
): readonly [number, number] | null {
  const [one, other, ...more] = problem.cables[cable]?.cores ?? [];
  if (one === undefined || other === undefined || more.length > 0) return null;
  const same = loadsOfCore[one]?.length && loadsOfCore[one]?.join() === loadsOfCore[other]?.join();
  return classes[one] === 'load' && classes[other] === 'load' && same ? [one, other] : null;
}

/**
 * The circuits that a neutral came with, where their breakers open it: of the lines of its cable, else of the
 * whole box.
 */
function openedBy(problem: Problem, explanation: Explanation, cable: number): number[] {
  if (problem.isolating.size === 0) return [];
  const cores = problem.cables[cable]?.cores ?? [];
  const lines = cores.flatMap((core) =>
    explanation.classes[core] === 'line' ? (explanation.circuitOfCore[core] ?? []) : [],
  );
  const circuits =
    lines.length > 0 ? lines : problem.circuits.flatMap(({ id }, at) => (id === null ? [] : [at]));
  return circuits.every((circuit) => problem.isolating.has(circuit)) ? circuits : [];
}

/** The core that the common of the far switch is on. */
function thirdOf(kind: FarKind, only: (name: CoreClass) => number | null): number | null {
  switch (kind) {
    case 'fed-by-third':
      return only('line-on');
    case 'load-by-third':
      return only('switched-line');
    case 'conversion':
      return only('traveler');
    default:
      return null;
  }
}

/** Hangs loads between two nodes, but for those an arrangement took out. */
export function hang(
  network: Network,
  a: number,
  b: number,
  hanging: readonly Hanging[],
  arrangement: Arrangement,
): void {
  for (const { loadId, conducts: pulls, ohms } of hanging)
    if (loadId === null || !arrangement.out.has(loadId))
      network.addElement({ a, b, loadId, conducts: pulls, ohms });
}
