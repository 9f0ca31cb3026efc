import { entryAt } from '../../units/entry-at.js';
import { ODDS } from '../problem/priors.js';
import {
  type CoreClass,
  comesBack,
  type FarKind,
  type Net,
  type Problem,
  type SwitchPosition,
} from '../problem/vocabulary.js';

/** What a net carries, whatever its members are called. */
export type NetKind = 'hot' | 'switched' | 'neutral' | 'traveler' | 'spare';

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

/**
 * What a core makes of its net; a switched line that comes back from the far switch stands with the load it
 * feeds.
 */
function kindOf(
  problem: Problem,
  classes: readonly CoreClass[],
  far: readonly (FarKind | null)[],
  core: number,
): NetKind {
  const name = entryAt(classes, core);
  if (name === 'switched-line' && comesBack(far[problem.cores[core]?.cable ?? -1])) return 'switched';
  return KIND[name];
}

/** Whether a core agrees with the members of its net that are classed already. */
export function agrees(problem: Problem, classes: readonly CoreClass[], core: number): boolean {
  const net = problem.nets[problem.cores[core]?.net ?? -1];
  const own = KIND[entryAt(classes, core)];
  for (const other of net?.cores ?? []) {
    const name = classes[other];
    if (other === core || name === undefined) continue;
    const kind = KIND[name];
    const mixed = classes[core] === 'switched-line' || name === 'switched-line';
    if (kind !== own && !(mixed && (kind === 'switched' || own === 'switched'))) return false;
  }
  return true;
}

export function netKind(
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

export function netWeight(
  problem: Problem,
  classes: readonly CoreClass[],
  cores: readonly number[],
  kind: NetKind | null,
  net: Net,
): number {
  const onTerminal = net.terminals.length > 0;
  const count = (name: CoreClass) => cores.filter((core) => classes[core] === name).length;
  const alone = cores.length === 1 && !onTerminal;
  switch (kind) {
    case 'hot': {
      const feeds = count('line') + count('switched-line');
      if (feeds === 0) return 0;
      return (
        (feeds > 1 ? ODDS.ring ** (feeds - 1) * problem.practice.evidence.ring : 1) *
        (alone ? ODDS.usedButCapped : 1)
      );
    }
    case 'neutral': {
      const feeds = count('neutral-in');
      if (feeds === 0) return cores.length === 1 && alone ? ODDS.usedButCapped * ODDS.usedButCapped : 0;
      return feeds > 1 ? ODDS.twoFeedsOneNeutral ** (feeds - 1) : 1;
    }
    case 'switched':
      return (onTerminal ? 1 : count('switched-line') > 0 ? 1 : ODDS.loadNotOnSwitch) * passedOn(net);
    case 'spare':
      return (cores.length > 1 ? ODDS.spareJoined : 1) * (onTerminal ? ODDS.spareOnTerminal : 1);
    default:
      return alone ? ODDS.usedButCapped : 1;
  }
}

/**
 * Two under one screw, and a joint with one tail to a switch, are a line that is carried on before they are a
 * load.
 */
function passedOn(net: Net): number {
  return (net.underOneScrew ? ODDS.loadUnderOneScrew : 1) * (net.tailToSwitch ? ODDS.loadByTail : 1);
}

const PLAIN = new Set(['single-pole', 'timer', 'sensor', 'dimmer', 'fan-control']);

/** How well a device explains what its terminals would carry. */
export function positionWeight(position: SwitchPosition, kinds: readonly (NetKind | null)[]): number {
  const at = (terminal: string): NetKind | null => {
    const net = position.nets.get(terminal);
    return net === undefined ? null : (kinds[net] ?? null);
  };
  if (position.nets.size === 0) return 1;
  if (position.roles) return smartWeight(position, at);
  const multi =
    position.existing === 'three-way' || (PLAIN.has(position.existing) && position.nets.has('common'));
  if (multi) return threeWay(at('common'), at('t1'), at('t2'));
  if (PLAIN.has(position.existing)) return contact(at('a') ?? at('u1'), at('b') ?? at('u2'));
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
  if (travelers === 2) return betweenTravelers(common);
  if (travelers === 1)
    return [t1, t2].includes(null) && (common === 'hot' || common === 'switched') ? 0.02 : 0;
  const [used] = [t1, t2].filter((kind) => kind !== null);
  if ([t1, t2].includes(null) || [t1, t2].includes('spare'))
    return ODDS.threeWayAsPlain * contact(common, used ?? null);
  return 0;
}

/** What the common of a switch between two travelers may be. */
function betweenTravelers(common: NetKind | null): number {
  if (common === 'hot' || common === 'switched') return 1;
  if (common === null) return 0.05;
  return common === 'traveler' ? 0.02 : 0;
}

const hotHalf = (kind: NetKind | null) =>
  kind === 'hot' || kind === null ? 1 : kind === 'switched' ? ODDS.receptacleSwitched : 0;
const half = (kind: NetKind | null) => (kind === 'neutral' || kind === null ? 1 : 0);

/** Whether a terminal of a role belongs on a net of this kind. */
function suits(role: string | undefined, kind: NetKind | null, interchangeable: boolean): boolean {
  switch (role) {
    case 'line':
      return kind === 'hot' || (interchangeable && kind === 'switched');
    case 'load':
      return kind === 'switched' || (interchangeable && kind === 'hot');
    case 'neutral':
      return kind === 'neutral';
    case 'traveler':
      return kind === 'traveler' || kind === 'spare';
    default:
      return true;
  }
}

function smartWeight(position: SwitchPosition, at: (terminal: string) => NetKind | null): number {
  let weight = 1;
  for (const terminal of position.nets.keys()) {
    const { interchangeable } = position;
    // What was fitted may be fitted wrongly.
    weight *= suits(position.roles?.get(terminal), at(terminal), interchangeable) ? 1 : 0.01;
  }
  return weight;
}

/**
 * Far ends against this end: where the common here is hot the far one feeds the load, and the other way
 * round.
 */
export function travelerWeight(
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
      const onCommon = problem.nets[problem.cores[link ?? -1]?.net ?? -1]?.terminals.some(
        ({ terminal }) => terminal === 'common',
      );
      if (!onCommon) weight *= 0.05;
      return;
    }
    const fedThere = kind === 'fed' || kind === 'fed-by-third';
    const pair = cable.cores
      .filter((core) => classes[core] === 'traveler')
      .map((core) => problem.cores[core]?.net ?? -1);
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
        const across = [...position.nets.values()]
          .filter((net) => !pair.includes(net))
          .flatMap((net) => problem.nets[net]?.cores ?? []);
        const others = new Set(across.map((core) => far[problem.cores[core]?.cable ?? -1]));
        if ([...others].some((other) => other && (other === 'fed' || other === 'fed-by-third') === fedThere))
          weight = 0;
      } else if ((here === 'hot' && fedThere) || (here === 'switched' && !fedThere)) weight = 0;
    } else if (one?.other !== undefined && one.other === two?.other) {
      const other = far[one.other];
      if (!other || (other === 'fed' || other === 'fed-by-third') === fedThere) weight = 0;
    } else weight *= 0.05;
  });
  return weight;
}
