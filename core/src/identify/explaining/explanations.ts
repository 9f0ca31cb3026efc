import type { Load } from '../../job/schema/job.js';
import { ODDS } from '../problem/priors.js';
import {
  type CoreClass,
  comesBack,
  type Explanation,
  type FarKind,
  type Problem,
  type SwitchPosition,
} from '../problem/vocabulary.js';
import { cablePatterns } from './cable-patterns.js';
import {
  agrees,
  type NetKind,
  netKind,
  netWeight,
  positionWeight,
  travelerWeight,
} from './structure-weights.js';

/** The most structures that are looked at; beyond it the result says that the cap was reached. */
const CAP = 60_000;
/**
 * A structure this much less likely than the likeliest could be is left out; readings cannot bring it back
 * within 1e-9.
 */
const NEGLIGIBLE = 1e-13;

export interface Enumeration {
  explanations: Explanation[];
  capped: boolean;
}

/**
 * Every whole explanation of the box that its joints and terminals allow, with its weight before readings.
 * Nets are typed first (cable by cable, cut short where two members of a net disagree), then circuits, then
 * loads.
 */
export function explanationsOf(problem: Problem): Enumeration {
  const strict = structures(problem, false);
  // A box recorded in a way no usual wiring explains still gets an answer, from structures that break a rule
  // somewhere.
  const found = strict.list.length > 0 ? strict : structures(problem, true);
  const made = found.list.flatMap((structure) =>
    withCircuits(problem, structure).flatMap((entry) => withLoads(problem, entry)),
  );
  const most = made.reduce((leader, entry) => Math.max(leader, entry.prior), 0);
  return { explanations: made.filter((entry) => entry.prior >= most * NEGLIGIBLE), capped: found.capped };
}

interface Structure {
  classes: CoreClass[];
  far: (FarKind | null)[];
  weight: number;
}

/**
 * Every way to class the cables that the nets and devices allow.
 * @param relaxed nets, devices and far ends are not held to, for boxes recorded in a way no usual wiring
 * explains
 */
export function structures(problem: Problem, relaxed: boolean): { list: Structure[]; capped: boolean } {
  const cables = problem.cables
    .map((cable, index) => ({ index, cable, ...cablePatterns(problem, index) }))
    .filter((entry) => entry.cable.cores.length > 0);
  const order = byConnection(problem, cables);
  const bestRest = order.map((_, at) =>
    order
      .slice(at)
      .reduce((product, entry) => product * Math.max(...entry.patterns.map((pattern) => pattern.weight)), 1),
  );
  const most = bestRest[0] ?? 1;
  const classes: CoreClass[] = Array(problem.cores.length);
  const far: (FarKind | null)[] = Array(problem.cables.length).fill(null);
  const kinds: (NetKind | null)[] = Array(problem.nets.length).fill(null);
  const closing = closingAt(problem, order);
  const list: Structure[] = [];
  let capped = cables.some(({ cut }) => cut);
  let full = false;

  /** The share of its weight the structure keeps by the nets and devices this cable was the last of. */
  const closed = (at: number): number => {
    const { nets, positions } = closing[at] as (typeof closing)[number];
    let weight = 1;
    for (const net of nets) {
      const own = problem.nets[net] as Problem['nets'][number];
      const { cores } = own;
      const kind = netKind(problem, classes, far, cores);
      if (kind === undefined) return 0;
      kinds[net] = kind;
      weight *= netWeight(problem, classes, cores, kind, own);
      if (weight === 0) return 0;
    }
    for (const position of positions) {
      weight *= positionWeight(position, kinds);
      if (weight === 0) return 0;
    }
    return weight;
  };
  const visit = (at: number, weight: number): void => {
    if (full) return;
    const entry = order[at];
    if (!entry) {
      const factor = relaxed ? 1 : travelerWeight(problem, classes, far, kinds);
      if (factor === 0) return;
      list.push({ classes: [...classes], far: [...far], weight: weight * factor });
      if (list.length >= CAP) {
        full = true;
        capped = true;
      }
      return;
    }
    const { cores } = entry.cable;
    for (const pattern of entry.patterns) {
      const possible = weight * pattern.weight * (bestRest[at + 1] ?? 1);
      if (possible < most * NEGLIGIBLE) continue;
      for (let index = 0; index < cores.length; index++)
        classes[cores[index] as number] = pattern.classes[index] as CoreClass;
      far[entry.index] = pattern.far;
      if (relaxed) visit(at + 1, weight * pattern.weight);
      else if (cores.every((core) => agrees(problem, classes, core))) {
        const share = closed(at);
        if (possible * share >= most * NEGLIGIBLE) visit(at + 1, weight * pattern.weight * share);
      }
    }
    for (const core of cores) delete classes[core];
    far[entry.index] = null;
  };
  visit(0, 1);
  return { list, capped };
}

/** Which nets and positions are complete once the cable at each place of the order is classed. */
function closingAt(
  problem: Problem,
  order: readonly { cable: { cores: number[] } }[],
): { nets: number[]; positions: SwitchPosition[] }[] {
  const placeOf = new Map<number, number>();
  order.forEach((entry, at) => {
    for (const core of entry.cable.cores) placeOf.set(core, at);
  });
  const last = (net: number) =>
    Math.max(0, ...(problem.nets[net]?.cores ?? []).map((core) => placeOf.get(core) ?? 0));
  return order.map((_, at) => ({
    nets: problem.nets.flatMap((_, net) => (last(net) === at ? [net] : [])),
    positions: problem.positions.filter(
      (position) => Math.max(0, ...[...position.nets.values()].map(last)) === at,
    ),
  }));
}

/** Cables that share nets next to each other, so that disagreement shows early. */
function byConnection<Entry extends { cable: { cores: number[] } }>(
  problem: Problem,
  cables: Entry[],
): Entry[] {
  const rest = [...cables];
  const seen = new Set<number>();
  const order: Entry[] = [];
  const shared = (entry: Entry) =>
    entry.cable.cores.filter((core) => seen.has((problem.cores[core] as { net: number }).net)).length;
  while (rest.length > 0) {
    let best = 0;
    rest.forEach((entry, index) => {
      if (shared(entry) > shared(rest[best] as Entry)) best = index;
    });
    const [entry] = rest.splice(best, 1) as [Entry];
    for (const core of entry.cable.cores) seen.add((problem.cores[core] as { net: number }).net);
    order.push(entry);
  }
  return order;
}

type Part = Omit<Explanation, 'prior' | 'loadsOfCore' | 'loadsOfCable'> & { prior: number };

/** Which circuit each line is of; a neutral is of the line it came with. */
function withCircuits(problem: Problem, { classes, far, weight }: Structure): Part[] {
  const { circuits } = problem;
  const blank: Part = {
    classes,
    far,
    prior: weight,
    circuitOfCore: Array(classes.length).fill(null),
    legOfCore: Array(classes.length).fill(null),
    circuitOfCable: Array(far.length).fill(null),
  };
  let parts = [blank];
  problem.cables.forEach((cable, index) => {
    const lines = cable.cores.filter((core) => classes[core] === 'line');
    const neutral = cable.cores.find((core) => classes[core] === 'neutral-in');
    const told = cable.end?.kind === 'circuit' ? cable.end : null;
    const options: { ids: number[]; legs: (string | null)[]; prior: number }[] = [];
    if (lines.length === 1)
      circuits.forEach((circuit, at) => {
        const known = told
          ? circuit.id !== null && at === told.circuit
            ? told.weight
            : (1 - told.weight) / circuits.length
          : circuit.prior;
        options.push({ ids: [at], legs: [circuit.leg], prior: known });
      });
    else if (lines.length === 2) {
      circuits.forEach((first, a) => {
        circuits.forEach((second, b) => {
          if (a === b && first.id !== null && first.volts < 200) return;
          // Two conductors of one two-pole breaker stand on two legs; so do the lines of a shared neutral
          // that was wired right.
          const legs: [string | null, string | null] = a === b ? ['one', 'other'] : [first.leg, second.leg];
          options.push({ ids: [a, b], legs, prior: first.prior * second.prior });
        });
      });
    }
    if (options.length > 0)
      parts = parts.flatMap((part) =>
        options.map(({ ids, legs, prior }) => {
          const circuitOfCore = [...part.circuitOfCore];
          const legOfCore = [...part.legOfCore];
          lines.forEach((core, at) => {
            circuitOfCore[core] = ids[at] as number;
            legOfCore[core] = legs[at] ?? null;
          });
          if (neutral !== undefined && ids.length === 1) circuitOfCore[neutral] = ids[0] as number;
          return { ...part, circuitOfCore, legOfCore, prior: part.prior * prior };
        }),
      );
    if (
      far[index] === 'fed' ||
      cable.cores.some((core) => classes[core] === 'switched-line' && !comesBack(far[index]))
    )
      parts = parts.flatMap((part) =>
        circuits.map((circuit, at) => ({
          ...part,
          circuitOfCable: part.circuitOfCable.with(index, at),
          prior: part.prior * circuit.prior,
        })),
      );
  });
  // Feeds joined in one net are of one circuit, or it would be a short between breakers.
  return parts.filter((part) =>
    problem.nets.every((net) => {
      const fed = new Set(
        net.cores.filter((core) => classes[core] === 'line').map((core) => part.circuitOfCore[core]),
      );
      return fed.size <= 1;
    }),
  );
}

/** Which loads each load conductor feeds: those of the position it hangs on, seldom others. */
function withLoads(problem: Problem, part: Part): Explanation[] {
  const { classes } = part;
  let list: Explanation[] = [
    { ...part, loadsOfCore: classes.map(() => []), loadsOfCable: part.far.map(() => []) },
  ];
  problem.nets.forEach((net) => {
    const cores = net.cores.filter((core) => classes[core] === 'load');
    if (cores.length === 0) return;
    const likely = likelyLoads(problem, net.terminals, part);
    const choices = distributions(cores, likely, problem);
    list = list.flatMap((entry) =>
      choices.map(({ loads, prior }) => {
        const loadsOfCore = [...entry.loadsOfCore];
        cores.forEach((core, at) => {
          loadsOfCore[core] = loads[at] ?? [];
        });
        return { ...entry, loadsOfCore, prior: entry.prior * prior };
      }),
    );
  });
  return list.map((entry) => ({
    ...entry,
    loadsOfCable: entry.far.map((kind, cable) => (kind === 'load' ? farLoads(problem, cable) : [])),
  }));
}

const FANS = new Set<Load['kind']>(['fan-ac', 'fan-dc', 'fan-remote', 'exhaust-fan']);

function likelyLoads(
  problem: Problem,
  terminals: readonly { position: number; terminal: string }[],
  part: Part,
): string[] {
  const ids = terminals.flatMap(({ position, terminal }) => {
    const at = problem.positions.find((entry) => entry.index === position);
    const own = at?.loadIds ?? [];
    if (at?.existing !== 'fan-light') return own;
    return own.filter((id) => FANS.has(problem.loads.get(id)?.kind ?? 'led') === (terminal === 'fan'));
  });
  if (ids.length > 0) return [...new Set(ids)];
  // A load wire on no switch: with a switched line that comes back it is what the multi-location switch here
  // works.
  return part.far.includes('load-by-third')
    ? [
        ...new Set(
          problem.positions
            .filter((position) => position.partners.length > 0 || position.existing === 'three-way')
            .flatMap((position) => position.loadIds),
        ),
      ]
    : [];
}

function farLoads(problem: Problem, cable: number): string[] {
  const nets = (problem.cables[cable]?.cores ?? []).map((core) => problem.cores[core]?.net);
  const here = problem.positions.filter((position) =>
    [...position.nets.values()].some((net) => nets.includes(net)),
  );
  return [
    ...new Set(
      (here.length > 0
        ? here
        : problem.positions.filter((position) => position.existing === 'three-way')
      ).flatMap((position) => position.loadIds),
    ),
  ];
}

/** Loads over the conductors that could feed them. */
function distributions(
  cores: readonly number[],
  loads: readonly string[],
  problem: Problem,
): { loads: string[][]; prior: number }[] {
  const unnamed = { loads: cores.map(() => []), prior: loads.length > 0 ? ODDS.unnamedLoad : 1 };
  if (loads.length === 0) {
    const ends = cores.map((core) => problem.cables[problem.cores[core]?.cable ?? -1]?.end);
    return [{ ...unnamed, loads: ends.map((end) => (end?.kind === 'load' ? [end.loadId] : [])) }];
  }
  const rest = 1 - ODDS.unnamedLoad;
  if (cores.length === 1) return [{ loads: [[...loads]], prior: rest }, unnamed];
  if (loads.length === 1) return [{ loads: cores.map(() => [...loads]), prior: rest }, unnamed];
  let made: string[][][] = [cores.map(() => [])];
  for (const load of loads)
    made = made.flatMap((entry) =>
      cores.map((_, at) => entry.map((own, index) => (index === at ? [...own, load] : own))),
    );
  const every = made.filter((entry) => entry.every((own) => own.length > 0));
  const kept = every.length > 0 ? every : made;
  return [...kept.map((entry) => ({ loads: entry, prior: rest / kept.length })), unnamed];
}
