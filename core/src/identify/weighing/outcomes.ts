import type { Arranged } from '../../electrics/arranged.js';
import type { Network, PointState } from '../../electrics/network.js';
import {
  acrossLoad,
  BREAKER,
  coldOhms,
  dividedVolts,
  evenly,
  INDICATOR,
  LAMP,
  loadOutcomes,
  OHMS,
  type OhmBand,
  ohmBand,
  outcomeOfValue,
  VOLTS,
  type VoltBand,
} from '../../practice/instruments.js';
import { entryAt } from '../../units/entry-at.js';
import type { Explanation, Point, Problem, Test } from '../problem/vocabulary.js';

/** What an instrument would show at a box whose electrical state is known: the chance of each outcome. */
export class Outcomes {
  constructor(private readonly problem: Problem) {}

  /** The chance of each outcome of a test, by outcome; empty where the points say nothing. */
  row(
    explanation: Explanation,
    test: Pick<Test, 'points' | 'reading'>,
    network: Network,
    arranged: Arranged,
  ): Readonly<Record<string, number>> {
    const [first, second] = test.points;
    if (!first) return {};
    switch (test.reading.tool) {
      case 'indicator':
        return this.indicatorRow(first, network, arranged);
      case 'volts':
      case 'volts-low-z':
        return second
          ? this.voltRow(first, second, network, arranged, test.reading.tool === 'volts' ? 'high' : 'low')
          : {};
      case 'ohms':
        return second ? this.ohmRow(explanation, first, second, network, arranged) : {};
      case 'lamp':
        return first.kind === 'load' ? LAMP[this.lampState(first.loadId, network)] : {};
      case 'breaker': {
        const circuit =
          first?.kind === 'circuit'
            ? this.problem.circuits.findIndex((entry) => entry.id === first.circuitId)
            : -1;
        const short = network.shorts.includes(circuit);
        return short
          ? { tripped: BREAKER.trips, held: 1 - BREAKER.trips }
          : { held: BREAKER.holds, tripped: 1 - BREAKER.holds };
      }
    }
  }

  private lampState(loadId: string, network: Network): 'lit' | 'dark' | 'divided' {
    let state: 'lit' | 'dark' | 'divided' = 'dark';
    for (const element of network.elements) {
      if (element.loadId !== loadId) continue;
      const own = network.lit(element);
      if (own === 'lit') return 'lit';
      if (own === 'divided') state = 'divided';
    }
    return state;
  }

  private indicatorRow(point: Point, network: Network, arranged: Arranged): Record<string, number> {
    let alert: number = INDICATOR.reference;
    if (point.kind === 'core') {
      const state = this.stateOf(point, network, arranged);
      const beside = this.liveBeside(point.core, network, arranged);
      const live = state.kind === 'source' || (state.kind === 'through' && state.to === 'source');
      if (live) {
        const leg = state.leg;
        const opposite = beside.some((other) => other !== null && leg !== null && other !== leg);
        const bundle = (arranged.sizes[entryAt(arranged.groupOf, point.core)] ?? 1) >= 3;
        alert = opposite || bundle ? INDICATOR.sourceMuffled : INDICATOR.source;
      } else if (state.kind === 'floating')
        alert = beside.length > 0 ? this.problem.practice.floatingAlert : INDICATOR.reference;
      else if (state.kind === 'divided') alert = 0.6;
      else alert = beside.length > 0 ? INDICATOR.referenceBesideLive : INDICATOR.reference;
    }
    return { alert, quiet: 1 - alert };
  }

  private stateOf(point: Point, network: Network, arranged: Arranged): PointState {
    if (point.kind === 'core') return network.state(entryAt(arranged.groupOf, point.core));
    if (point.kind === 'box' && !this.problem.boxIsReference) return { kind: 'floating' };
    return { kind: 'reference', deadLine: false };
  }

  /** In units of the supply. */
  private voltsAt(point: Point, network: Network, arranged: Arranged): number | null {
    if (point.kind === 'core') return network.volts(entryAt(arranged.groupOf, point.core));
    return point.kind === 'box' && !this.problem.boxIsReference ? null : 0;
  }

  /** Legs of the live conductors in the same cable. */
  private liveBeside(core: number, network: Network, arranged: Arranged): (string | null)[] {
    const own = arranged.groupOf[core];
    return (this.problem.cables[this.problem.cores[core]?.cable ?? -1]?.cores ?? []).flatMap((other) => {
      const group = entryAt(arranged.groupOf, other);
      if (other === core || group === own) return [];
      const state = network.state(group);
      return state.kind === 'source' ? [state.leg] : [];
    });
  }

  private voltRow(
    p: Point,
    q: Point,
    network: Network,
    arranged: Arranged,
    meter: 'high' | 'low',
  ): Readonly<Record<VoltBand, number>> {
    if (
      p.kind === 'core' &&
      q.kind === 'core' &&
      network.same(entryAt(arranged.groupOf, p.core), entryAt(arranged.groupOf, q.core))
    )
      return VOLTS.same[meter];
    const [a, b] = ordered(this.stateOf(p, network, arranged), this.stateOf(q, network, arranged));
    if (a.kind === 'divided' || b.kind === 'divided') {
      const [one, other] = [this.voltsAt(p, network, arranged), this.voltsAt(q, network, arranged)];
      return one === null || other === null
        ? VOLTS.sourceToFloating[meter]
        : dividedVolts(Math.abs(one - other));
    }
    const through = (state: PointState & { kind: 'through' }) =>
      (state.conducts ? VOLTS.throughFilament : VOLTS.throughDriver)[meter];
    const legs = (one: string | null, two: string | null, sameCircuit: boolean) => {
      if (sameCircuit && one === two) return VOLTS.oneLeg[meter];
      if (one !== null && two !== null) return (one === two ? VOLTS.oneLeg : VOLTS.twoLegs)[meter];
      return evenly(VOLTS.oneLeg[meter], VOLTS.twoLegs[meter]);
    };
    if (a.kind === 'source') {
      if (b.kind === 'source') return legs(a.leg, b.leg, a.circuit === b.circuit);
      if (b.kind === 'reference') return VOLTS.sourceToReference[meter];
      if (b.kind === 'through') return b.to === 'reference' ? through(b) : VOLTS.oneLeg[meter];
      return VOLTS.sourceToFloating[meter];
    }
    if (a.kind === 'through' && a.to === 'source') {
      if (b.kind === 'reference') return through(a);
      if (b.kind === 'through') return b.to === 'source' ? VOLTS.oneLeg[meter] : through(a.conducts ? b : a);
      return VOLTS.sourceToFloating[meter];
    }
    if (b.kind !== 'floating') return VOLTS.same[meter];
    const floating = [p, q].filter(
      (point): point is Point & { kind: 'core' } =>
        point.kind === 'core' && network.state(entryAt(arranged.groupOf, point.core)).kind === 'floating',
    );
    const beside = floating.some((point) => this.liveBeside(point.core, network, arranged).length > 0);
    return (beside ? VOLTS.floatingBesideLive : VOLTS.floatingAlone)[meter];
  }

  private ohmRow(
    explanation: Explanation,
    p: Point,
    q: Point,
    network: Network,
    arranged: Arranged,
  ): Readonly<Record<OhmBand, number>> {
    const reference = arranged.groups;
    const node = (point: Point): number | null =>
      point.kind === 'core'
        ? entryAt(arranged.groupOf, point.core)
        : point.kind === 'box' && !this.problem.boxIsReference
          ? null
          : reference;
    const [a, b] = [node(p), node(q)];
    if (a === null || b === null) return OHMS.open;
    if (network.same(a, b) || (network.isIsolated(a) && network.isIsolated(b))) return OHMS.same;
    if (network.isReference(a) && network.isReference(b))
      return this.tripped(explanation, [a, b], arranged) ? TRIPPED : OHMS.same;
    const lineSide = (at: number) =>
      network.isLineSide(at) ||
      explanation.classes.some(
        (name, core) => name === 'line-on' && network.same(entryAt(arranged.groupOf, core), at),
      );
    const hasNeutral = (at: number) =>
      explanation.classes.some(
        (name, core) =>
          (name === 'neutral-in' || name === 'neutral-out') &&
          network.same(entryAt(arranged.groupOf, core), at),
      );
    // Where the breaker opens both, its line is open to earth, though not to its own neutral.
    const opened = (line: number) => this.problem.isolating.has(network.circuitOf(line) ?? -1);
    const neutralSide = (at: number, line: number) =>
      hasNeutral(at) || network.isIsolated(at) || (network.isReference(at) && !opened(line));
    const across = network.path(a, b);
    if ((lineSide(a) && neutralSide(b, a)) || (lineSide(b) && neutralSide(a, b))) return OHMS.lineSide;
    if (!across) {
      // From the line side through a load, or the other way about, whatever else is left on closes the
      // circle.
      const viaLine = (from: number, to: number) =>
        lineSide(from) &&
        (opened(from) ? network.reachesIsolated(to) : network.state(to).kind !== 'floating');
      return viaLine(a, b) || viaLine(b, a) ? OHMS.lineSide : OHMS.open;
    }
    return this.acrossLoads(across.loads);
  }

  /** Neutrals that reach the reference only through a protection that may stand open while it is off. */
  private tripped(explanation: Explanation, groups: readonly number[], arranged: Arranged): boolean {
    if (this.problem.trips.size === 0) return false;
    return groups.some((group) => {
      const neutrals = explanation.classes.flatMap((name, core) =>
        name === 'neutral-in' && arranged.groupOf[core] === group ? [core] : [],
      );
      return (
        neutrals.length > 0 &&
        neutrals.every((core) => {
          const circuit = explanation.circuitOfCore[core];
          return typeof circuit === 'number' && this.problem.trips.has(circuit);
        })
      );
    });
  }

  private acrossLoads(ids: readonly string[]): Readonly<Record<OhmBand, number>> {
    const loads = ids.flatMap((id) => this.problem.loads.get(id) ?? []);
    const volts = this.problem.circuits[0]?.volts ?? 120;
    if (loads.length === 0) return acrossLoad(['to-50', 'to-2000', 'above', 'open']);
    if (loads.length === 1 && loads[0]) return acrossLoad(loadOutcomes(loads[0], volts));
    const values = loads.flatMap((load) => coldOhms(load, volts) ?? []);
    if (values.length === loads.length)
      return acrossLoad([ohmBand(values.reduce((sum, value) => sum + value, 0))]);
    return acrossLoad(['to-2000', 'above', 'open']);
  }
}

/** As often closed as open. */
const TRIPPED = evenly(OHMS.same, OHMS.open);

const RANK: Record<PointState['kind'], number> = {
  source: 0,
  through: 1,
  divided: 1,
  reference: 2,
  floating: 3,
};

/** Sources first, then what reaches one through a load, the reference, what reaches it, floating. */
function ordered(a: PointState, b: PointState): [PointState, PointState] {
  const rank = (state: PointState) =>
    RANK[state.kind] + (state.kind === 'through' && state.to === 'reference' ? 1.5 : 0);
  return rank(a) <= rank(b) ? [a, b] : [b, a];
}

/** The outcome a reading stands for. Null: it cannot count. */
export function outcomeOf(problem: Problem, test: Pick<Test, 'reading' | 'points'>): string | null {
  return outcomeOfValue(test.reading.tool, test.reading.value, problem.practice, problem.provedVolts);
}
