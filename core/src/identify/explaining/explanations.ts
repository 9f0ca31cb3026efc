import type { Load } from '../../job/schema/job.js';
import { entryAt } from '../../units/entry-at.js';
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
  return new StructureSearch(problem, relaxed).run();
}

type Ordered = { index: number; cable: Problem['cables'][number] } & ReturnType<typeof cablePatterns>;

/** Depth first over the cables, each in every pattern; a branch ends where no rest can bring it back. */
class StructureSearch {
  private readonly order: Ordered[];
  /** The most that the cables from each place of the order on can still weigh. */
  private readonly bestRest: number[];
  private readonly closing: ReturnType<typeof closingAt>;
  private readonly classes: CoreClass[];
  private readonly far: (FarKind | null)[];
  private readonly kinds: (NetKind | null)[];
  private readonly list: Structure[] = [];
  private capped: boolean;

  constructor(
    private readonly problem: Problem,
    private readonly relaxed: boolean,
  ) {
    const cables = problem.cables
      .map((cable, index) => ({ index, cable, ...cablePatterns(problem, index) }))
      .filter((entry) => entry.cable.cores.length > 0);
    this.order = byConnection(problem, cables);
    this.bestRest = this.order.map((_, at) =>
      this.order
        .slice(at)
        .reduce((product, { patterns }) => product * Math.max(...patterns.map(({ weight }) => weight)), 1),
    );
    this.closing = closingAt(problem, this.order);
    this.classes = Array(problem.cores.length);
    this.far = Array(problem.cables.length).fill(null);
    this.kinds = Array(problem.nets.length).fill(null);
    this.capped = cables.some(({ cut }) => cut);
  }

  run(): { list: Structure[]; capped: boolean } {
    this.visit(0, 1);
    return { list: this.list, capped: this.capped };
  }

  private visit(at: number, weight: number): void {
    if (this.list.length >= CAP) return;
    const entry = this.order[at];
    if (!entry) {
      this.keep(weight);
      return;
    }
    const { cores } = entry.cable;
    const least = (this.bestRest[0] ?? 1) * NEGLIGIBLE;
    for (const pattern of entry.patterns) {
      const possible = weight * pattern.weight * (this.bestRest[at + 1] ?? 1);
      if (possible < least) continue;
      cores.forEach((core, index) => {
        this.classes[core] = entryAt(pattern.classes, index);
      });
      this.far[entry.index] = pattern.far;
      if (this.relaxed) this.visit(at + 1, weight * pattern.weight);
      else if (cores.every((core) => agrees(this.problem, this.classes, core))) {
        const share = this.closed(at);
        if (possible * share >= least) this.visit(at + 1, weight * pattern.weight * share);
      }
    }
    for (const core of cores) delete this.classes[core];
    this.far[entry.index] = null;
  }

  private keep(weight: number): void {
    const { problem, classes, far, kinds } = this;
    const factor = this.relaxed ? 1 : travelerWeight(problem, classes, far, kinds);
    if (factor === 0) return;
    this.list.push({ classes: [...classes], far: [...far], weight: weight * factor });
    if (this.list.length >= CAP) this.capped = true;
  }

  /** The share of its weight the structure keeps by the nets and devices this cable was the last of. */
  private closed(at: number): number {
    const { problem, classes, far, kinds } = this;
    const { nets, positions } = entryAt(this.closing, at);
    let weight = 1;
    for (const net of nets) {
      const own = entryAt(problem.nets, net);
      const kind = netKind(problem, classes, far, own.cores);
      if (kind === undefined) return 0;
      kinds[net] = kind;
      weight *= netWeight(problem, classes, own.cores, kind, own);
      if (weight === 0) return 0;
    }
    for (const position of positions) {
      weight *= positionWeight(position, kinds);
      if (weight === 0) return 0;
    }
    return weight;
  }
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
    entry.cable.cores.filter((core) => seen.has(entryAt(problem.cores, core).net)).length;
  while (rest.length > 0) {
    let best = 0;
    rest.forEach((entry, index) => {
      if (shared(entry) > shared(entryAt(rest, best))) best = index;
    });
    const entry = entryAt(rest, best);
    rest.splice(best, 1);
    for (const core of entry.cable.cores) seen.add(entryAt(problem.cores, core).net);
    order.push(entry);
  }
  return order;
}

type WithCircuits = Omit<Explanation, 'prior' | 'loadsOfCore' | 'loadsOfCable'> & { prior: number };

/** Which circuit each line is of; a neutral is of the line it came with. */
function withCircuits(problem: Problem, { classes, far, weight }: Structure): WithCircuits[] {
  let ways: WithCircuits[] = [
    {
      classes,
      far,
      prior: weight,
      circuitOfCore: Array(classes.length).fill(null),
      legOfCore: Array(classes.length).fill(null),
      circuitOfCable: Array(far.length).fill(null),
    },
  ];
  problem.cables.forEach((cable, index) => {
    const lines = cable.cores.filter((core) => classes[core] === 'line');
    const neutral = cable.cores.find((core) => classes[core] === 'neutral-in');
    const feeds = feedsOf(problem, cable, lines.length);
    if (feeds.length > 0) ways = ways.flatMap((way) => feeds.map((feed) => fedBy(way, feed, lines, neutral)));
    const fedElsewhere =
      far[index] === 'fed' ||
      cable.cores.some((core) => classes[core] === 'switched-line' && !comesBack(far[index]));
    if (fedElsewhere)
      ways = ways.flatMap((way) =>
        problem.circuits.map((circuit, at) => ({
          ...way,
          circuitOfCable: way.circuitOfCable.with(index, at),
          prior: way.prior * circuit.prior,
        })),
      );
  });
  // Feeds joined in one net are of one circuit, or it would be a short between breakers.
  return ways.filter((way) =>
    problem.nets.every((net) => {
      const fed = new Set(
        net.cores.filter((core) => classes[core] === 'line').map((core) => way.circuitOfCore[core]),
      );
      return fed.size <= 1;
    }),
  );
}

/** A circuit and a leg for each line of a cable, in the order of its cores. */
interface Feed {
  ids: number[];
  legs: (string | null)[];
  prior: number;
}

function feedsOf({ circuits }: Problem, { end }: Problem['cables'][number], lines: number): Feed[] {
  const told = end?.kind === 'circuit' ? end : null;
  const priorOf = (at: number, { id, prior }: Problem['circuits'][number]) => {
    if (!told) return prior;
    return id !== null && at === told.circuit ? told.weight : (1 - told.weight) / circuits.length;
  };
  if (lines === 1)
    return circuits.map((circuit, at) => ({
      ids: [at],
      legs: [circuit.leg],
      prior: priorOf(at, circuit),
    }));
  if (lines !== 2) return [];
  return circuits.flatMap((first, a) =>
    circuits.flatMap((second, b): Feed[] => {
      if (a === b && first.id !== null && first.volts < 200) return [];
      // Two conductors of one two-pole breaker stand on two legs; so do the lines of a shared neutral that
      // was wired right.
      const legs = a === b ? ['one', 'other'] : [first.leg, second.leg];
      return [{ ids: [a, b], legs, prior: first.prior * second.prior }];
    }),
  );
}

function fedBy(
  way: WithCircuits,
  feed: Feed,
  lines: readonly number[],
  neutral: number | undefined,
): WithCircuits {
  const circuitOfCore = [...way.circuitOfCore];
  const legOfCore = [...way.legOfCore];
  lines.forEach((core, at) => {
    circuitOfCore[core] = entryAt(feed.ids, at);
    legOfCore[core] = feed.legs[at] ?? null;
  });
  if (neutral !== undefined && feed.ids.length === 1) circuitOfCore[neutral] = entryAt(feed.ids, 0);
  return { ...way, circuitOfCore, legOfCore, prior: way.prior * feed.prior };
}

/** Which loads each load conductor feeds: those of the position it hangs on, seldom others. */
function withLoads(problem: Problem, way: WithCircuits): Explanation[] {
  const { classes } = way;
  let list: Explanation[] = [
    { ...way, loadsOfCore: classes.map(() => []), loadsOfCable: way.far.map(() => []) },
  ];
  problem.nets.forEach((net) => {
    const cores = net.cores.filter((core) => classes[core] === 'load');
    if (cores.length === 0) return;
    const likely = likelyLoads(problem, net.terminals, way);
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
  way: WithCircuits,
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
  return way.far.includes('load-by-third')
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
