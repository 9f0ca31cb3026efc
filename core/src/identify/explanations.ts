import type { Load } from '../job/schema/job.js';
import { colourPrior, ODDS, patternsOf, SINGLE_WEIGHT } from './priors.js';
import {
  type CablePattern,
  type CoreClass,
  comesBack,
  type Explanation,
  type FarKind,
  type Problem,
  type SwitchPosition,
} from './vocabulary.js';

/** The most structures that are looked at; beyond it the result says that the cap was reached. */
const CAP = 60_000;
/** A structure this much less likely than the likeliest could be is left out; readings cannot bring it back within 1e-9. */
const NEGLIGIBLE = 1e-13;

export interface Enumeration {
  explanations: Explanation[];
  capped: boolean;
}

type NetKind = 'hot' | 'switched' | 'neutral' | 'traveler' | 'spare';

/**
 * Every whole explanation of the box that its joints and terminals allow, with its weight before readings. Nets are typed first
 * (cable by cable, cut short where two members of a net disagree), then circuits, then loads.
 */
export function explanationsOf(problem: Problem): Enumeration {
  const strict = structures(problem, false);
  // A box recorded in a way no usual wiring explains still gets an answer, from structures that break a rule somewhere.
  const found = strict.list.length > 0 ? strict : structures(problem, true);
  const made = found.list.flatMap((structure) => withCircuits(problem, structure).flatMap((entry) => withLoads(problem, entry)));
  const most = made.reduce((leader, entry) => Math.max(leader, entry.prior), 0);
  return { explanations: made.filter((entry) => entry.prior >= most * NEGLIGIBLE), capped: found.capped };
}

interface Structure {
  classes: CoreClass[];
  far: (FarKind | null)[];
  weight: number;
}

function structures(problem: Problem, relaxed: boolean): { list: Structure[]; capped: boolean } {
  const cables = problem.cables
    .map((cable, index) => ({ index, cable, patterns: cablePatterns(problem, index) }))
    .filter((entry) => entry.cable.cores.length > 0);
  const order = byConnection(problem, cables);
  const bestRest = order.map((_, at) =>
    order.slice(at).reduce((product, entry) => product * Math.max(...entry.patterns.map((pattern) => pattern.weight)), 1),
  );
  const most = bestRest[0] ?? 1;
  const classes: CoreClass[] = Array(problem.cores.length);
  const far: (FarKind | null)[] = Array(problem.cables.length).fill(null);
  const kinds: (NetKind | null)[] = Array(problem.nets.length).fill(null);
  const closing = closingAt(problem, order);
  const list: Structure[] = [];
  let capped = false;

  /** The share of its weight the structure keeps by the nets and devices this cable was the last of. */
  const closed = (at: number): number => {
    const { nets, positions } = closing[at] as (typeof closing)[number];
    let weight = 1;
    for (const net of nets) {
      const { cores, terminals } = problem.nets[net] as Problem['nets'][number];
      const kind = netKind(problem, classes, far, cores);
      if (kind === undefined) return 0;
      kinds[net] = kind;
      weight *= netWeight(problem, classes, cores, kind, terminals.length > 0);
      if (weight === 0) return 0;
    }
    for (const position of positions) {
      weight *= positionWeight(position, kinds);
      if (weight === 0) return 0;
    }
    return weight;
  };
  const visit = (at: number, weight: number): void => {
    if (capped) return;
    const entry = order[at];
    if (!entry) {
      const factor = relaxed ? 1 : travelerWeight(problem, classes, far, kinds);
      if (factor === 0) return;
      list.push({ classes: [...classes], far: [...far], weight: weight * factor });
      if (list.length >= CAP) capped = true;
      return;
    }
    const { cores } = entry.cable;
    for (const pattern of entry.patterns) {
      const possible = weight * pattern.weight * (bestRest[at + 1] ?? 1);
      if (possible < most * NEGLIGIBLE) continue;
      for (let index = 0; index < cores.length; index++) classes[cores[index] as number] = pattern.classes[index] as CoreClass;
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
function closingAt(problem: Problem, order: readonly { cable: { cores: number[] } }[]): { nets: number[]; positions: SwitchPosition[] }[] {
  const placeOf = new Map<number, number>();
  order.forEach((entry, at) => {
    for (const core of entry.cable.cores) placeOf.set(core, at);
  });
  const last = (net: number) => Math.max(0, ...(problem.nets[net]?.cores ?? []).map((core) => placeOf.get(core) ?? 0));
  return order.map((_, at) => ({
    nets: problem.nets.flatMap((_, net) => (last(net) === at ? [net] : [])),
    positions: problem.positions.filter((position) => Math.max(0, ...[...position.nets.values()].map(last)) === at),
  }));
}

/** Cables that share nets next to each other, so that disagreement shows early. */
function byConnection<Entry extends { cable: { cores: number[] } }>(problem: Problem, cables: Entry[]): Entry[] {
  const rest = [...cables];
  const seen = new Set<number>();
  const order: Entry[] = [];
  const shared = (entry: Entry) => entry.cable.cores.filter((core) => seen.has((problem.cores[core] as { net: number }).net)).length;
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

function cablePatterns(problem: Problem, cable: number): CablePattern[] {
  const { cores, end } = problem.cables[cable] as Problem['cables'][number];
  const made: CablePattern[] = [];
  const usual = patternsOf(cores.length, problem.practice);
  for (const pattern of usual) {
    // Travelers and switched lines come into question only where something suggests a switch elsewhere.
    if (!problem.multiLocation && (pattern.far !== undefined || pattern.classes.includes('switched-line'))) continue;
    for (const classes of orders(pattern.classes)) {
      const colour = cores.reduce(
        (product, core, index) =>
          product *
          colourPrior(problem.practice, classes[index] as CoreClass, problem.cores[core]?.colour ?? 'unknown', pattern.loop === true),
        1,
      );
      made.push({ classes, far: pattern.far ?? null, weight: (pattern.weight * colour) / orderCount(pattern.classes) });
    }
  }
  if (usual.length === 0) made.push(...singles(problem, cores));
  if (!end || end.kind === 'box') return made;
  const fits = (pattern: CablePattern) => (end.kind === 'circuit' ? pattern.classes.includes('line') : pattern.classes.includes('load'));
  return made.map((pattern) => ({ ...pattern, weight: pattern.weight * (fits(pattern) ? end.weight : 1 - end.weight) }));
}

/** More conductors than any usual cable has: each for itself, as in conduit. */
function singles(problem: Problem, cores: readonly number[]): CablePattern[] {
  let made: CablePattern[] = [{ classes: [], far: null, weight: 1 }];
  for (const core of cores)
    made = made.flatMap((pattern) =>
      (Object.entries(SINGLE_WEIGHT) as [CoreClass, number][])
        .filter(([name, weight]) => weight > 0 && (problem.multiLocation || name !== 'switched-line'))
        .map(([name, weight]) => ({
          classes: [...pattern.classes, name],
          far: null,
          weight: pattern.weight * weight * colourPrior(problem.practice, name, problem.cores[core]?.colour ?? 'unknown', false),
        })),
    );
  return made.sort((a, b) => b.weight - a.weight).slice(0, 4000);
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

const KIND: Record<CoreClass, NetKind> = {
  line: 'hot',
  'line-on': 'hot',
  'switched-line': 'hot',
  load: 'switched',
  'neutral-in': 'neutral',
  'neutral-out': 'neutral',
  return: 'neutral',
  traveler: 'traveler',
  spare: 'spare',
};

/** What a core makes of its net; a switched line that comes back from the far switch stands with the load it feeds. */
function kindOf(problem: Problem, classes: readonly CoreClass[], far: readonly (FarKind | null)[], core: number): NetKind {
  const name = classes[core] as CoreClass;
  if (name === 'switched-line' && comesBack(far[problem.cores[core]?.cable ?? -1])) return 'switched';
  return KIND[name];
}

/** Whether a core agrees with the members of its net that are classed already. */
function agrees(problem: Problem, classes: readonly CoreClass[], core: number): boolean {
  const net = problem.nets[problem.cores[core]?.net ?? -1];
  const own = KIND[classes[core] as CoreClass];
  for (const other of net?.cores ?? []) {
    const name = classes[other];
    if (other === core || name === undefined) continue;
    const kind = KIND[name];
    const mixed = classes[core] === 'switched-line' || name === 'switched-line';
    if (kind !== own && !(mixed && (kind === 'switched' || own === 'switched'))) return false;
  }
  return true;
}

function netKind(
  problem: Problem,
  classes: readonly CoreClass[],
  far: readonly (FarKind | null)[],
  cores: readonly number[],
): NetKind | null | undefined {
  let kind: NetKind | null = null;
  for (const core of cores) {
    const own = kindOf(problem, classes, far, core);
    if (kind === null) kind = own;
    else if (kind !== own) return undefined;
  }
  return kind;
}

function netWeight(
  problem: Problem,
  classes: readonly CoreClass[],
  cores: readonly number[],
  kind: NetKind | null,
  onTerminal: boolean,
): number {
  const count = (name: CoreClass) => cores.filter((core) => classes[core] === name).length;
  const alone = cores.length === 1 && !onTerminal;
  switch (kind) {
    case 'hot': {
      const feeds = count('line') + count('switched-line');
      if (feeds === 0) return 0;
      return (feeds > 1 ? ODDS.ring ** (feeds - 1) * (problem.practice === 'gb' ? 10 : 1) : 1) * (alone ? ODDS.usedButCapped : 1);
    }
    case 'neutral': {
      const feeds = count('neutral-in');
      if (feeds === 0) return cores.length === 1 && alone ? ODDS.usedButCapped * ODDS.usedButCapped : 0;
      return feeds > 1 ? ODDS.twoFeedsOneNeutral ** (feeds - 1) : 1;
    }
    case 'switched':
      return onTerminal ? 1 : count('switched-line') > 0 ? 1 : ODDS.loadNotOnSwitch;
    case 'spare':
      return (cores.length > 1 ? ODDS.spareJoined : 1) * (onTerminal ? ODDS.spareOnTerminal : 1);
    default:
      return alone ? ODDS.usedButCapped : 1;
  }
}

const PLAIN = new Set(['single-pole', 'timer', 'sensor', 'dimmer', 'fan-control']);

/** How well a device explains what its terminals would carry. */
function positionWeight(position: SwitchPosition, kinds: readonly (NetKind | null)[]): number {
  const at = (terminal: string): NetKind | null => {
    const net = position.nets.get(terminal);
    return net === undefined ? null : (kinds[net] ?? null);
  };
  if (position.nets.size === 0) return 1;
  if (position.roles) return smartWeight(position, at);
  const multi = position.existing === 'three-way' || (PLAIN.has(position.existing) && position.nets.has('common'));
  if (multi) return threeWay(at('common'), at('t1'), at('t2'));
  if (PLAIN.has(position.existing)) return contact(at('a'), at('b'));
  switch (position.existing) {
    case 'double-pole':
    case 'double-single-pole':
      return contact(at('a1'), at('b1'), true) * contact(at('a2'), at('b2'), true);
    case 'four-way':
      return ['t1', 't2', 't3', 't4'].reduce(
        (weight, terminal) => weight * (at(terminal) === null ? 0.3 : at(terminal) === 'traveler' ? 1 : 0),
        1,
      );
    case 'fan-light':
      return (
        (at('line') === 'hot' ? 1 : 0) *
        (['switched', null].includes(at('fan')) ? 1 : 0) *
        (['switched', null].includes(at('light')) ? 1 : 0)
      );
    case 'receptacle':
      return hotHalf(at('hot')) * hotHalf(at('hot2')) * half(at('neutral')) * half(at('neutral2'));
    default:
      return 1;
  }
}

/** The two sides of one contact: one hot, the other what it works; turned round is as likely. */
function contact(a: NetKind | null, b: NetKind | null, neutralToo = false): number {
  if (a === null && b === null) return 1;
  if ((a === 'hot' && b === 'switched') || (a === 'switched' && b === 'hot')) return 0.5;
  if (a === 'neutral' && b === 'neutral') return neutralToo ? 0.2 : ODDS.neutralSwitched;
  if (a === null || b === null || a === 'spare' || b === 'spare') return ODDS.idleTerminal;
  return 0;
}

function threeWay(common: NetKind | null, t1: NetKind | null, t2: NetKind | null): number {
  const travelers = [t1, t2].filter((kind) => kind === 'traveler').length;
  // By conversion the commons are linked, and line and switched line stand on the outer terminals.
  if (common === 'traveler' && [t1, t2].includes('hot') && [t1, t2].includes('switched')) return 0.3;
  if (travelers === 2) return common === 'hot' || common === 'switched' ? 1 : common === null ? 0.05 : common === 'traveler' ? 0.02 : 0;
  if (travelers === 1) return [t1, t2].includes(null) && (common === 'hot' || common === 'switched') ? 0.02 : 0;
  const [used] = [t1, t2].filter((kind) => kind !== null);
  if ([t1, t2].includes(null) || [t1, t2].includes('spare')) return ODDS.threeWayAsPlain * contact(common, used ?? null);
  return 0;
}

const hotHalf = (kind: NetKind | null) => (kind === 'hot' || kind === null ? 1 : kind === 'switched' ? ODDS.receptacleSwitched : 0);
const half = (kind: NetKind | null) => (kind === 'neutral' || kind === null ? 1 : 0);

function smartWeight(position: SwitchPosition, at: (terminal: string) => NetKind | null): number {
  let weight = 1;
  for (const terminal of position.nets.keys()) {
    const kind = at(terminal);
    const role = position.roles?.get(terminal);
    const fits =
      role === 'line'
        ? kind === 'hot' || (position.interchangeable && kind === 'switched')
        : role === 'load'
          ? kind === 'switched' || (position.interchangeable && kind === 'hot')
          : role === 'neutral'
            ? kind === 'neutral'
            : role === 'traveler'
              ? kind === 'traveler' || kind === 'spare'
              : true;
    // What was fitted may be fitted wrongly.
    weight *= fits ? 1 : 0.01;
  }
  return weight;
}

/** Far ends against this end: where the common here is hot the far one feeds the load, and the other way round. */
function travelerWeight(
  problem: Problem,
  classes: readonly CoreClass[],
  far: readonly (FarKind | null)[],
  kinds: readonly (NetKind | null)[],
): number {
  let weight = 1;
  problem.cables.forEach((cable, index) => {
    const kind = far[index];
    if (!kind) return;
    if (kind === 'conversion') {
      const link = cable.cores.find((core) => classes[core] === 'traveler');
      const onCommon = problem.nets[problem.cores[link ?? -1]?.net ?? -1]?.terminals.some(({ terminal }) => terminal === 'common');
      if (!onCommon) weight *= 0.05;
      return;
    }
    const fedThere = kind === 'fed' || kind === 'fed-by-third';
    const pair = cable.cores.filter((core) => classes[core] === 'traveler').map((core) => problem.cores[core]?.net ?? -1);
    if (pair[0] === pair[1]) {
      weight = 0;
      return;
    }
    const ends = pair.map((net) => {
      const terminal = problem.nets[net]?.terminals[0];
      const other = problem.nets[net]?.cores.find((core) => problem.cores[core]?.cable !== index);
      return { terminal, other: other === undefined ? undefined : problem.cores[other]?.cable };
    });
    const [one, two] = ends;
    if (one?.terminal && two?.terminal && one.terminal.position === two.terminal.position) {
      const position = problem.positions.find((entry) => entry.index === one.terminal?.position);
      const common = position?.nets.get('common');
      const here = common === undefined ? null : kinds[common];
      if (position?.existing === 'four-way') {
        // The pair on the other side must come from the other end.
        const across = [...position.nets.values()].filter((net) => !pair.includes(net)).flatMap((net) => problem.nets[net]?.cores ?? []);
        const others = new Set(across.map((core) => far[problem.cores[core]?.cable ?? -1]));
        if ([...others].some((other) => other && (other === 'fed' || other === 'fed-by-third') === fedThere)) weight = 0;
      } else if ((here === 'hot' && fedThere) || (here === 'switched' && !fedThere)) weight = 0;
    } else if (one?.other !== undefined && one.other === two?.other) {
      const other = far[one.other];
      if (!other || (other === 'fed' || other === 'fed-by-third') === fedThere) weight = 0;
    } else weight *= 0.05;
  });
  return weight;
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
          // Two conductors of one two-pole breaker stand on two legs; so do the lines of a shared neutral that was wired right.
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
    if (far[index] === 'fed' || cable.cores.some((core) => classes[core] === 'switched-line' && !comesBack(far[index])))
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
      const fed = new Set(net.cores.filter((core) => classes[core] === 'line').map((core) => part.circuitOfCore[core]));
      return fed.size <= 1;
    }),
  );
}

/** Which loads each load conductor feeds: those of the position it hangs on, seldom others. */
function withLoads(problem: Problem, part: Part): Explanation[] {
  const { classes } = part;
  let list: Explanation[] = [{ ...part, loadsOfCore: classes.map(() => []), loadsOfCable: part.far.map(() => []) }];
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

function likelyLoads(problem: Problem, terminals: readonly { position: number; terminal: string }[], part: Part): string[] {
  const ids = terminals.flatMap(({ position, terminal }) => {
    const at = problem.positions.find((entry) => entry.index === position);
    const own = at?.loadIds ?? [];
    if (at?.existing !== 'fan-light') return own;
    return own.filter((id) => FANS.has(problem.loads.get(id)?.kind ?? 'led') === (terminal === 'fan'));
  });
  if (ids.length > 0) return [...new Set(ids)];
  // A load wire on no switch: with a switched line that comes back it is what the multi-location switch here works.
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
  const here = problem.positions.filter((position) => [...position.nets.values()].some((net) => nets.includes(net)));
  return [
    ...new Set(
      (here.length > 0 ? here : problem.positions.filter((position) => position.existing === 'three-way')).flatMap(
        (position) => position.loadIds,
      ),
    ),
  ];
}

/** Loads over the conductors that could feed them. */
function distributions(cores: readonly number[], loads: readonly string[], problem: Problem): { loads: string[][]; prior: number }[] {
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
    made = made.flatMap((entry) => cores.map((_, at) => entry.map((own, index) => (index === at ? [...own, load] : own))));
  const every = made.filter((entry) => entry.every((own) => own.length > 0));
  const kept = every.length > 0 ? every : made;
  return [...kept.map((entry) => ({ loads: entry, prior: rest / kept.length })), unnamed];
}
