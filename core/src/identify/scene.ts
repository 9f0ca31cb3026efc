import { type Arranged, arrange } from '../electrics/arranged.js';
import { type Element, Network } from '../electrics/network.js';
import { conducts } from '../practice/instruments.js';
import type { Wiring } from './problem.js';
import { type MaybeJoined, Reach } from './reach.js';
import type { Arrangement, Explanation, Problem, Test } from './vocabulary.js';

/** Hidden things of an explanation that hold for all its readings. */
export interface Hidden {
  /** Whether a circuit nobody named is on. */
  outsideOn: boolean;
  /** Which contact "up" makes, by position with a multi-location switch, and by cable for the far one. */
  polarity: ReadonlyMap<number, boolean>;
  farPolarity: ReadonlyMap<number, boolean>;
  missing: ReadonlySet<string>;
  /** For loads of other boxes: how each is fed. */
  outside: ReadonlyMap<string, OutsideFeed>;
}

/** How a lamp that is not of this box gets its supply: through a line-on of this box, or apart from it. */
export interface OutsideFeed {
  through: number | null;
  circuit: number | null;
  on: boolean;
}

/** Hidden things that are settled before any reading is looked at. */
export type OuterHidden = Pick<Hidden, 'outsideOn' | 'polarity' | 'farPolarity'>;

/** A network, and whether a circuit is on in it. */
export interface State {
  network: Network;
  on(circuit: number): boolean;
}

/** What the scenes of one box share: how it is arranged, and which far switches its readings name. */
export class Stage {
  private readonly arranged = new Map<string, Arranged>();
  private readonly byArrangement = new WeakMap<Arrangement, Arranged>();
  /** Switches of other boxes that the readings name. */
  readonly foreign: readonly string[];
  private readonly farKeyCache = new Map<number, string[]>();

  constructor(
    readonly problem: Problem,
    private readonly wiring: Wiring,
    tests: readonly Test[],
  ) {
    const keys = tests.flatMap((test) => [...test.arrangement.switches.keys()]).filter((key) => key.includes('/'));
    this.foreign = [...new Set(keys)];
  }

  /** One object for all arrangements with the same key: what is kept of a state is kept by it. */
  arrangedAs(arrangement: Arrangement): Arranged {
    let known = this.byArrangement.get(arrangement);
    if (!known) {
      known = this.arranged.get(arrangement.key) ?? arrange(this.problem, this.wiring, arrangement);
      this.arranged.set(arrangement.key, known);
      this.byArrangement.set(arrangement, known);
    }
    return known;
  }

  /** Whether the far switch of a cable is named, and which way its states together stand. */
  farState(cable: number, arrangement: Arrangement): boolean | null {
    const keys = this.farKeys(cable);
    if (keys.length === 0 || keys.some((key) => !arrangement.switches.has(key))) return null;
    return keys.reduce((state, key) => state !== arrangement.switches.get(key), false);
  }

  private farKeys(cable: number): string[] {
    let keys = this.farKeyCache.get(cable);
    if (!keys) {
      const { problem } = this;
      const nets = new Set(problem.cables[cable]?.cores.map((core) => problem.cores[core]?.net));
      const here = problem.positions.filter((position) => [...position.nets.values()].some((net) => nets.has(net)));
      const partners = [...new Set((here.length > 0 ? here : problem.positions).flatMap((position) => position.partners))];
      const end = problem.cables[cable]?.end;
      const along = end?.kind === 'box' ? partners.filter((key) => key.startsWith(`${end.boxId}/`)) : [];
      keys = along.length > 0 ? along : partners.length > 0 ? partners : this.foreign.length === 1 ? [...this.foreign] : [];
      this.farKeyCache.set(cable, keys);
    }
    return keys;
  }

  farIsParted(cable: number, arrangement: Arrangement): boolean {
    if (arrangement.farParted.size === 0) return false;
    const end = this.problem.cables[cable]?.end;
    return end?.kind === 'box' && arrangement.farParted.has(end.boxId);
  }
}

/** What is worked out once for an arrangement under an explanation, whatever the hidden things. */
interface Setting {
  reach: Reach | null;
  /** Positions whose switch is left in and not named, and what else is open whatever is tested. */
  switches: number[] | null;
  always: string[] | null;
  questions: Map<string, string[]>;
}

/** A box under one explanation: the networks its arrangements make, and what a test in them can rest on. */
export class Scene {
  private readonly settings = new Map<Arranged, Setting>();
  private readonly scopes = new Map<string, string[]>();
  /** Networks with every load there, under the outer hidden things of the last call. */
  private built = new Map<Arranged, Map<string, State[]>>();
  private builtFor: OuterHidden | null = null;

  private readonly wiring: FarEnds;

  constructor(
    private readonly stage: Stage,
    readonly explanation: Explanation,
    /** Every question counts for every test, for checking what is left out. */
    private readonly plain = false,
  ) {
    this.wiring = farEnds(stage.problem, explanation);
  }

  private settingOf(arranged: Arranged): Setting {
    let setting = this.settings.get(arranged);
    if (!setting) {
      setting = { reach: null, switches: null, always: null, questions: new Map() };
      this.settings.set(arranged, setting);
    }
    return setting;
  }

  /**
   * The states that suit an arrangement, one for each way what it does not record may stand.
   * @param open from {@link questionsOf}
   * @param missing loads that are not there
   */
  statesOf(arrangement: Arrangement, open: readonly string[], outer: OuterHidden, missing: ReadonlySet<string>): readonly State[] {
    if (this.builtFor !== outer) {
      this.built = new Map();
      this.builtFor = outer;
    }
    const arranged = this.stage.arrangedAs(arrangement);
    const ofArranged = this.built.get(arranged) ?? new Map<string, State[]>();
    this.built.set(arranged, ofArranged);
    const key = open.length === 0 ? '' : open.join();
    let whole = ofArranged.get(key);
    if (!whole) {
      whole = [];
      for (let mask = 0; mask < 2 ** open.length; mask++) {
        const answer = (question: string): boolean => {
          const at = open.indexOf(question);
          return at >= 0 && (mask & (1 << at)) !== 0;
        };
        whole.push({
          network: this.network(arrangement, arranged, outer, answer),
          on: (circuit: number) => this.isOn(circuit, arrangement, outer, answer),
        });
      }
      ofArranged.set(key, whole);
    }
    if (missing.size === 0) return whole;
    const keyMissing = `${key}|${[...missing].join()}`;
    let states = ofArranged.get(keyMissing);
    if (!states) {
      states = whole.map(({ network, on }) => ({ network: network.without(missing), on }));
      ofArranged.set(keyMissing, states);
    }
    return states;
  }

  /**
   * What a test does not record and its outcome may rest on: breakers, far switches, and those switches here that can be reached from
   * its points (and from what lies beside them in their cables) without passing a source or the reference.
   * @param key equal for tests that ask the same in the same state
   */
  questionsOf(test: Pick<Test, 'arrangement' | 'points' | 'reading'>, key: string, alsoCircuits: readonly number[]): readonly string[] {
    const arranged = this.stage.arrangedAs(test.arrangement);
    const setting = this.settingOf(arranged);
    const kept = setting.questions.get(key);
    if (kept) return kept;
    setting.always ??= this.questionsWhatever(test.arrangement);
    setting.switches ??= [...new Set(arranged.contacts.map((contact) => contact.position))].filter(
      (position) => !test.arrangement.switches.has(String(position)),
    );
    const { switches } = setting;
    const reached = switches.length > 1 && !this.plain ? this.switchesAt(test) : null;
    const list = [
      ...this.breakersOpen(test.arrangement, alsoCircuits),
      ...switches.filter((position) => !reached || reached.has(position)).map((position) => `switch:${position}`),
      ...setting.always,
    ];
    setting.questions.set(key, list);
    return list;
  }

  /** Positions whose switch can matter to a test: at its points and, for an indicator or a floating wire, beside them in their cables. */
  private switchesAt(test: Pick<Test, 'arrangement' | 'points' | 'reading'>): ReadonlySet<number> {
    const { cables, cores } = this.stage.problem;
    const { groupOf, contacts } = this.stage.arrangedAs(test.arrangement);
    if (test.points.some((point) => point.kind === 'circuit')) return new Set(contacts.map((contact) => contact.position));
    const reach = this.reachIn(test.arrangement);
    const found = new Set<number>();
    for (const { nodes, evenFixed } of this.startsOf(test, reach))
      for (const position of reach.switchesFrom(nodes, evenFixed)) found.add(position);
    const beside = test.points.flatMap((point) => (point.kind === 'core' ? (cables[cores[point.core]?.cable ?? -1]?.cores ?? []) : []));
    for (const position of reach.switchesFrom(
      beside.map((core) => groupOf[core] as number),
      false,
    ))
      found.add(position);
    return found;
  }

  /** Loads a test's outcome may rest on. */
  scopeOf(test: Test): readonly string[] {
    const kept = this.scopes.get(test.key);
    if (kept) return kept;
    const scope = new Set<string>();
    const reach = this.reachIn(test.arrangement);
    for (const { nodes, evenFixed } of this.startsOf(test, reach)) for (const load of reach.loadsFrom(nodes, evenFixed)) scope.add(load);
    for (const point of test.points) if (point.kind === 'load') scope.add(point.loadId);
    const list = [...scope];
    this.scopes.set(test.key, list);
    return list;
  }

  /** Where a test looks: at its points; for ohms beyond a tied point too, unless the other is the reference. */
  private startsOf(test: Pick<Test, 'arrangement' | 'points' | 'reading'>, reach: Reach): { nodes: number[]; evenFixed: boolean }[] {
    const { groupOf } = this.stage.arrangedAs(test.arrangement);
    const nodes = test.points.flatMap((point) =>
      point.kind === 'core' ? [groupOf[point.core] as number] : point.kind === 'load' ? reach.endsOf(point.loadId) : [],
    );
    const between = test.reading.tool === 'ohms' && nodes.length === 2 && !nodes.some((node) => reach.isReference(node));
    return [{ nodes, evenFixed: between }];
  }

  private reachIn(arrangement: Arrangement): Reach {
    const arranged = this.stage.arrangedAs(arrangement);
    const setting = this.settingOf(arranged);
    if (!setting.reach) {
      const network = new Network(arranged.groups + 1 + this.stage.problem.cables.length);
      setting.reach = new Reach(network, this.sureTies(network, arrangement, arranged));
    }
    return setting.reach;
  }

  /** Ties that hold whatever is hidden go into the network; given back is what may be joined besides. */
  private sureTies(network: Network, arrangement: Arrangement, arranged: Arranged): MaybeJoined[] {
    const { groupOf, groups } = arranged;
    const group = (core: number | null) => (core === null ? groups : (groupOf[core] as number));
    const here = ({ cable }: { cable: number }) => !this.stage.farIsParted(cable, arrangement);
    const maybe: MaybeJoined[] = [];
    network.tieReference(groups);
    for (const { core, circuit, leg } of this.wiring.lines.filter(here)) network.tieSource(group(core), circuit, leg, true);
    for (const { core } of this.wiring.neutrals.filter(here)) network.tieReference(group(core));
    for (const { core, back, hanging } of this.wiring.loads.filter(here)) hang(network, group(core), group(back), hanging, arrangement);
    for (const far of this.wiring.far.filter(here)) {
      const common = groups + 1 + far.cable;
      if (far.source) network.tieSource(common, far.source.circuit, far.source.leg, true);
      if (far.hanging) hang(network, common, group(far.back), far.hanging, arrangement);
      if (far.third !== null) network.merge(common, group(far.third));
      for (const traveler of [far.one, far.two]) if (traveler !== null) maybe.push({ a: common, b: group(traveler), position: null });
    }
    // Which contact of a multi-location switch a state makes is hidden; that an ordinary one is open is not.
    for (const { from, to, position, when } of arranged.contacts)
      if (when !== 'on' || arrangement.switches.get(String(position)) !== false) maybe.push({ a: from, b: to, position });
    return maybe;
  }

  /** Breakers of this box's sources that the arrangement does not name. */
  private breakersOpen(arrangement: Arrangement, alsoCircuits: readonly number[]): string[] {
    const { circuitOfCore, circuitOfCable } = this.explanation;
    const { circuits } = this.stage.problem;
    if (circuits.every(({ id }) => id === null || arrangement.breakers.has(id))) return [];
    const open = new Set<string>();
    for (const circuit of [...circuitOfCore, ...circuitOfCable, ...alsoCircuits]) {
      const id = circuit === null ? null : circuits[circuit]?.id;
      if (circuit !== null && id && !arrangement.breakers.has(id)) open.add(`breaker:${circuit}`);
    }
    return [...open];
  }

  /** Far switches that the arrangement does not name. */
  private questionsWhatever(arrangement: Arrangement): string[] {
    const { explanation } = this;
    const { problem } = this.stage;
    const open: string[] = [];
    explanation.far.forEach((kind, cable) => {
      if (kind && this.stage.farState(cable, arrangement) === null) open.push(`far:${cable}`);
    });
    explanation.classes.forEach((name, core) => {
      const cable = problem.cores[core]?.cable ?? -1;
      if (name === 'switched-line' && explanation.far[cable] !== 'load-by-third' && this.stage.farState(cable, arrangement) === null)
        open.push(`switched:${core}`);
    });
    return open;
  }

  private isOn(circuit: number, arrangement: Arrangement, outer: OuterHidden, answer: (question: string) => boolean): boolean {
    const id = this.stage.problem.circuits[circuit]?.id;
    if (!id) return outer.outsideOn;
    return arrangement.breakers.get(id) ?? answer(`breaker:${circuit}`);
  }

  private network(arrangement: Arrangement, arranged: Arranged, hidden: OuterHidden, answer: (question: string) => boolean): Network {
    const { groupOf, groups } = arranged;
    const network = new Network(groups + 1 + this.stage.problem.cables.length);
    const group = (core: number | null) => (core === null ? groups : (groupOf[core] as number));
    network.tieReference(groups);
    for (const { core, cable, circuit, leg } of this.wiring.lines)
      if (!this.stage.farIsParted(cable, arrangement))
        network.tieSource(group(core), circuit, leg, this.isOn(circuit, arrangement, hidden, answer));
    for (const { core, cable } of this.wiring.neutrals) if (!this.stage.farIsParted(cable, arrangement)) network.tieReference(group(core));
    for (const { core, cable, circuit, leg } of this.wiring.switched) {
      if (this.stage.farIsParted(cable, arrangement)) continue;
      const state = this.stage.farState(cable, arrangement);
      const closed = state === null ? answer(`switched:${core}`) : state !== (hidden.farPolarity.get(cable) ?? false);
      if (closed) network.tieSource(group(core), circuit, leg, this.isOn(circuit, arrangement, hidden, answer));
    }
    for (const { core, cable, back, hanging } of this.wiring.loads)
      if (!this.stage.farIsParted(cable, arrangement)) hang(network, group(core), group(back), hanging, arrangement);
    for (const far of this.wiring.far) {
      const { cable } = far;
      if (this.stage.farIsParted(cable, arrangement)) continue;
      const common = groups + 1 + cable;
      if (far.source) {
        const { circuit, leg } = far.source;
        network.tieSource(common, circuit, leg, this.isOn(circuit, arrangement, hidden, answer));
      }
      if (far.hanging) hang(network, common, group(far.back), far.hanging, arrangement);
      if (far.third !== null) network.merge(common, group(far.third));
      const state = this.stage.farState(cable, arrangement) ?? answer(`far:${cable}`);
      const first = state !== (hidden.farPolarity.get(cable) ?? false);
      if (far.one !== null && first) network.merge(common, group(far.one));
      if (far.two !== null && !first) network.merge(common, group(far.two));
    }
    for (const contact of arranged.contacts) {
      const state = arrangement.switches.get(String(contact.position)) ?? answer(`switch:${contact.position}`);
      const turned = contact.when === 'on' ? false : (hidden.polarity.get(contact.position) ?? false);
      const closed = contact.when === 'down' ? state === turned : state !== turned;
      if (closed) network.merge(contact.from, contact.to);
    }
    return network;
  }
}

/** What hangs on the far ends of the cables, by what it is: the explanation read once for all networks. */
interface FarEnds {
  lines: { core: number; cable: number; circuit: number; leg: string | null }[];
  neutrals: { core: number; cable: number }[];
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

type Hanging = Pick<Element, 'loadId' | 'conducts'>;

function farEnds(problem: Problem, explanation: Explanation): FarEnds {
  const { classes } = explanation;
  const ends: FarEnds = { lines: [], neutrals: [], switched: [], loads: [], far: [] };
  const hanging = (loads: readonly string[]): Hanging[] =>
    loads.length === 0
      ? [{ loadId: null, conducts: false }]
      : loads.map((loadId) => ({ loadId, conducts: conducts(problem.loads.get(loadId)?.kind ?? 'led') }));
  const sourceOf = (circuit: number) => ({ circuit, leg: problem.circuits[circuit]?.leg ?? null });
  problem.cables.forEach(({ cores }, cable) => {
    const only = (name: Explanation['classes'][number]) => cores.find((core) => classes[core] === name) ?? null;
    const back = only('return');
    const kind = explanation.far[cable];
    for (const core of cores) {
      const name = classes[core];
      const circuit = explanation.circuitOfCable[cable];
      if (name === 'line')
        ends.lines.push({ core, cable, circuit: explanation.circuitOfCore[core] as number, leg: explanation.legOfCore[core] ?? null });
      else if (name === 'neutral-in') ends.neutrals.push({ core, cable });
      else if (name === 'load') ends.loads.push({ core, cable, back, hanging: hanging(explanation.loadsOfCore[core] ?? []) });
      else if (name === 'switched-line' && kind !== 'load-by-third' && circuit !== null && circuit !== undefined)
        ends.switched.push({ core, cable, ...sourceOf(circuit) });
    }
    if (!kind) return;
    const [one = null, two = null] = cores.filter((core) => classes[core] === 'traveler');
    ends.far.push({
      cable,
      source: kind === 'fed' ? sourceOf(explanation.circuitOfCable[cable] as number) : null,
      hanging: kind === 'load' ? hanging(explanation.loadsOfCable[cable] ?? []) : null,
      back,
      third: kind === 'fed-by-third' ? only('line-on') : kind === 'load-by-third' ? only('switched-line') : null,
      one,
      two,
    });
  });
  return ends;
}

function hang(network: Network, a: number, b: number, hanging: readonly Hanging[], arrangement: Arrangement): void {
  for (const { loadId, conducts: pulls } of hanging)
    if (loadId === null || !arrangement.out.has(loadId)) network.addElement({ a, b, loadId, conducts: pulls });
}
