import type { Arranged } from '../../electrics/arranged.js';
import { Network } from '../../electrics/network.js';
import { entryAt } from '../../units/entry-at.js';
import type { Arrangement, Explanation, OuterHidden } from '../problem/vocabulary.js';
import { type FarEnds, farEnds, hang } from './far-ends.js';
import type { Looked, Shape } from './shape.js';
import type { Stage } from './stage.js';

/** A network, and whether a circuit is on in it. */
export interface State {
  network: Network;
  on(circuit: number): boolean;
}

/** A box under one explanation: the networks its arrangements make, and what a test in them can rest on. */
export class Scene {
  private readonly questions = new Map<string, readonly string[]>();
  /** Networks with every load there, under the outer hidden things of the last call. */
  private built = new Map<Arranged, Map<string, State[]>>();
  private builtFor: OuterHidden | null = null;

  private readonly wiring: FarEnds;

  constructor(
    private readonly stage: Stage,
    private readonly shape: Shape,
    readonly explanation: Explanation,
    /** Every question counts for every test, for checking what is left out. */
    private readonly plain = false,
  ) {
    this.wiring = farEnds(stage.problem, explanation);
  }

  /**
   * The states that suit an arrangement, one for each way what it does not record may stand.
   * @param open from {@link questionsOf}
   * @param missing loads that are not there
   */
  statesOf(
    arrangement: Arrangement,
    open: readonly string[],
    outer: OuterHidden,
    missing: ReadonlySet<string>,
  ): readonly State[] {
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
   * What a test does not record and its outcome may rest on: breakers, far switches, and those switches here
   * that can be reached from its points (and from what lies beside them in their cables) without passing a
   * source or the reference.
   */
  questionsOf(test: Looked, alsoCircuits: readonly number[]): readonly string[] {
    const kept = this.questions.get(test.key);
    if (kept) return kept;
    const breakers = this.breakersOpen(test.arrangement, alsoCircuits);
    const switches = this.shape.switchQuestions(test, this.plain);
    const list = breakers.length === 0 ? switches : [...breakers, ...switches];
    this.questions.set(test.key, list);
    return list;
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

  private isOn(
    circuit: number,
    arrangement: Arrangement,
    outer: OuterHidden,
    answer: (question: string) => boolean,
  ): boolean {
    const id = this.stage.problem.circuits[circuit]?.id;
    if (!id) return outer.outsideOn;
    return arrangement.breakers.get(id) ?? answer(`breaker:${circuit}`);
  }

  private network(
    arrangement: Arrangement,
    arranged: Arranged,
    hidden: OuterHidden,
    answer: (question: string) => boolean,
  ): Network {
    const { groupOf, groups } = arranged;
    const { isolating, circuits, cables } = this.stage.problem;
    const elsewhere = groups + 1 + cables.length;
    const network = new Network(isolating.size > 0 ? elsewhere + 1 : elsewhere);
    const isOn = (circuit: number) => this.isOn(circuit, arrangement, hidden, answer);
    network.tieReference(groups);
    // What returns elsewhere does so to the house, or to a neutral that is open while its breaker is off.
    const away = isolating.size > 0 && circuits.every(({ id }, at) => id === null || isolating.has(at));
    const open = away && circuits.some(({ id }, at) => id !== null && !isOn(at));
    if (open) network.tieIsolated(elsewhere);
    const group = (core: number | null) => (core === null ? groups : entryAt(groupOf, core));
    const building: Building = {
      network,
      arrangement,
      hidden,
      answer,
      isOn,
      group,
      returnOf: (core) => (core === null && open ? elsewhere : group(core)),
      commonOf: (cable) => groups + 1 + cable,
    };
    this.tieCables(building);
    this.tieFarSwitches(building);
    mergeContacts(building, arranged);
    return network;
  }

  /** Feeds, neutrals, what a switch elsewhere feeds, and loads: each unless its other end is parted. */
  private tieCables({ network, arrangement, hidden, answer, isOn, group, returnOf }: Building): void {
    const parted = (cable: number) => this.stage.farIsParted(cable, arrangement);
    for (const { core, cable, circuit, leg } of this.wiring.lines)
      if (!parted(cable)) network.tieSource(group(core), circuit, leg, isOn(circuit));
    for (const { core, cable, opened } of this.wiring.neutrals) {
      if (parted(cable)) continue;
      if (opened.some((circuit) => !isOn(circuit))) network.tieIsolated(group(core));
      else network.tieReference(group(core));
    }
    for (const { core, cable, circuit, leg } of this.wiring.switched) {
      if (parted(cable)) continue;
      const state = this.stage.farState(cable, arrangement, hidden.swapped);
      const closed =
        state === null ? answer(`switched:${core}`) : state !== (hidden.farPolarity.get(cable) ?? false);
      if (closed) network.tieSource(group(core), circuit, leg, isOn(circuit));
    }
    for (const { core, cable, back, hanging } of this.wiring.loads)
      if (!parted(cable)) hang(network, group(core), returnOf(back), hanging, arrangement);
  }

  /** The far switch of each traveler cable, with what feeds it or hangs on it. */
  private tieFarSwitches(building: Building): void {
    const { network, arrangement, hidden, answer, isOn, group, returnOf } = building;
    for (const far of this.wiring.far) {
      const { cable } = far;
      if (this.stage.farIsParted(cable, arrangement)) continue;
      const common = building.commonOf(cable);
      if (far.source) network.tieSource(common, far.source.circuit, far.source.leg, isOn(far.source.circuit));
      if (far.hanging) hang(network, common, returnOf(far.back), far.hanging, arrangement);
      if (far.third !== null) network.merge(common, group(far.third));
      const state = this.stage.farState(cable, arrangement, hidden.swapped) ?? answer(`far:${cable}`);
      const first = state !== (hidden.farPolarity.get(cable) ?? false);
      if (far.one !== null && first) network.merge(common, group(far.one));
      if (far.two !== null && !first) network.merge(common, group(far.two));
    }
  }
}

/** A network in the making, with what its ties ask. */
interface Building {
  network: Network;
  arrangement: Arrangement;
  hidden: OuterHidden;
  answer: (question: string) => boolean;
  isOn: (circuit: number) => boolean;
  group: (core: number | null) => number;
  /** Where a load returns to: its core's group, or the house. */
  returnOf: (core: number | null) => number;
  /** The common of the switch at the far end of a cable. */
  commonOf: (cable: number) => number;
}

/** The contacts of the box's own switches that are closed in this state. */
function mergeContacts({ network, arrangement, hidden, answer }: Building, arranged: Arranged): void {
  for (const contact of arranged.contacts) {
    const state = arrangement.switches.get(String(contact.position)) ?? answer(`switch:${contact.position}`);
    const turned = contact.when === 'on' ? false : (hidden.polarity.get(contact.position) ?? false);
    const closed = contact.when === 'down' ? state === turned : state !== turned;
    if (closed) network.merge(contact.from, contact.to);
  }
}
