import { type Arranged, arrange } from '../electrics/arranged.js';
import { Network } from '../electrics/network.js';
import { conducts, LAMP, missingPrior } from '../practice/instruments.js';
import { Outcomes, outcomeOf } from './outcomes.js';
import type { Wiring } from './problem.js';
import type { Arrangement, Explanation, Point, Problem, Test } from './vocabulary.js';

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

export interface Evaluated {
  /** Sum over hidden things of their priors and the readings' likelihoods. */
  likelihood: number;
  /** The hidden things that suit all readings best, and each reading's likelihood under them. */
  best: { weight: number; hidden: Hidden; each: Float64Array };
}

const EVERYTHING_THERE: Hidden = { outsideOn: true, polarity: new Map(), farPolarity: new Map(), missing: new Set(), outside: new Map() };

/** Readings of a problem against explanations; keeps what explanations share. */
export class Likelihood {
  private readonly arranged = new Map<string, Arranged>();
  private readonly foreign: string[];
  private readonly outsideLoads = new Map<string, string[]>();
  /** States of the explanation and outer hidden things in hand, by arrangement and missing loads. */
  private readonly networks = new Map<string, { network: Network; on: (circuit: number) => boolean }[]>();

  private readonly outcomes: Outcomes;

  constructor(
    readonly problem: Problem,
    readonly wiring: Wiring,
    readonly tests: readonly Test[],
  ) {
    this.outcomes = new Outcomes(problem);
    const keys = tests.flatMap((test) => [...test.arrangement.switches.keys()]).filter((key) => key.includes('/'));
    this.foreign = [...new Set(keys)];
  }

  arrangedAs(arrangement: Arrangement): Arranged {
    let known = this.arranged.get(arrangement.key);
    if (!known) {
      known = arrange(this.problem, this.wiring, arrangement);
      this.arranged.set(arrangement.key, known);
    }
    return known;
  }

  /** @param least below this likelihood the explanation is given up, its sum being too small to matter */
  evaluate(explanation: Explanation, least = 0): Evaluated | null {
    const { tests } = this;
    let likelihood = 0;
    let best: Evaluated['best'] | null = null;
    const loads = [...new Set([...explanation.loadsOfCore.flat(), ...explanation.loadsOfCable.flat()])];
    const parts = this.byScope(explanation, loads);
    for (const outer of this.outerHidden(explanation)) {
      this.networks.clear();
      let sum = outer.prior;
      let most = outer.prior;
      const each = new Float64Array(tests.length);
      const missing = new Set<string>();
      const outside = new Map<string, OutsideFeed>();
      for (const part of parts) {
        const bound = least / sum;
        const result =
          part.outside === null
            ? this.overMissing(explanation, outer, part, bound)
            : this.overFeeds(explanation, outer, part.outside, part.tests);
        sum *= result.sum;
        most *= result.most;
        if (sum <= least) break;
        part.tests.forEach((test, at) => {
          each[test] = result.each[at] as number;
        });
        for (const load of result.missing) missing.add(load);
        if (part.outside !== null && result.feed) outside.set(part.outside, result.feed);
      }
      // Every reading suits it by at most 1, so what is given up here is smaller than what matters.
      if (sum <= least) continue;
      likelihood += sum;
      if (best === null || most > best.weight)
        best = {
          weight: most,
          hidden: { outsideOn: outer.outsideOn, polarity: outer.polarity, farPolarity: outer.farPolarity, missing, outside },
          each,
        };
    }
    return best === null ? null : { likelihood, best };
  }

  /** The same sum the plain way, every missing lamp and every feed enumerated together; for checking {@link evaluate}. */
  inFull(explanation: Explanation): number {
    const own = [...new Set([...explanation.loadsOfCore.flat(), ...explanation.loadsOfCable.flat()])];
    const every = {
      loads: own,
      tests: this.tests.flatMap((test, at) => (test.points[0]?.kind === 'load' && !own.includes(test.points[0].loadId) ? [] : [at])),
    };
    let total = 0;
    for (const outer of this.outerHidden(explanation)) {
      this.networks.clear();
      let sum = outer.prior * this.overMissing(explanation, outer, every, 0).sum;
      const outside = new Set(
        this.tests.flatMap((test) =>
          test.points[0]?.kind === 'load' && !own.includes(test.points[0].loadId) ? [test.points[0].loadId] : [],
        ),
      );
      for (const load of outside) {
        const tests = this.tests.flatMap((test, at) => (test.points[0]?.kind === 'load' && test.points[0].loadId === load ? [at] : []));
        sum *= this.overFeeds(explanation, outer, load, tests).sum;
      }
      total += sum;
    }
    return total;
  }

  private *outerHidden(explanation: Explanation): Generator<Omit<Hidden, 'missing' | 'outside'> & { prior: number }> {
    const { problem } = this;
    const last = problem.circuits.length - 1;
    const usesOutside = explanation.circuitOfCore.includes(last) || explanation.circuitOfCable.includes(last);
    const multi = problem.positions.filter(
      (position) =>
        position.nets.size > 1 && (position.existing === 'three-way' || position.existing === 'four-way' || position.nets.has('common')),
    );
    const cables = explanation.far.flatMap((kind, cable) =>
      kind || this.switchedElsewhere(explanation, cable) !== undefined ? [cable] : [],
    );
    const bits = multi.length + cables.length;
    for (const outsideOn of usesOutside ? [true, false] : [true])
      for (let mask = 0; mask < 2 ** bits; mask++) {
        const polarity = new Map(multi.map((position, at) => [position.index, (mask & (1 << at)) !== 0]));
        const farPolarity = new Map(cables.map((cable, at) => [cable, (mask & (1 << (multi.length + at))) !== 0]));
        yield { outsideOn, polarity, farPolarity, prior: (usesOutside ? (outsideOn ? 0.7 : 0.3) : 1) / 2 ** bits };
      }
  }

  /** Tests by the loads whose presence they can depend on: groups with none in common are summed apart. */
  private byScope(explanation: Explanation, loads: readonly string[]): { loads: string[]; tests: number[]; outside: string | null }[] {
    const own = new Set(loads);
    const parts: { loads: Set<string>; tests: number[] }[] = [];
    const outside = new Map<string, number[]>();
    this.tests.forEach((test, at) => {
      const [point] = test.points;
      if (point?.kind === 'load' && !own.has(point.loadId)) {
        outside.set(point.loadId, [...(outside.get(point.loadId) ?? []), at]);
        return;
      }
      const scope = this.scopeOf(explanation, test);
      const joined = parts.filter((part) => scope.some((load) => part.loads.has(load)));
      if (joined.length === 0) {
        parts.push({ loads: new Set(scope), tests: [at] });
        return;
      }
      const [first, ...rest] = joined as [(typeof parts)[number], ...typeof parts];
      for (const load of scope) first.loads.add(load);
      first.tests.push(at);
      for (const part of rest) {
        for (const load of part.loads) first.loads.add(load);
        first.tests.push(...part.tests);
        parts.splice(parts.indexOf(part), 1);
      }
    });
    return [
      ...parts.map((part) => ({ loads: [...part.loads], tests: part.tests.sort((a, b) => a - b), outside: null })),
      ...[...outside].map(([load, tests]) => ({ loads: [], tests, outside: load })),
    ];
  }

  private readonly scopes = new WeakMap<Explanation, Map<string, string[]>>();
  private readonly asked = new WeakMap<Explanation, Map<string, string[]>>();

  /**
   * What a test does not record and its outcome may rest on: breakers, far switches, and those switches here that can be reached from
   * its points (and from what lies beside them in their cables) without passing a source or the reference.
   */
  private openQuestionsOf(
    explanation: Explanation,
    test: Pick<Test, 'arrangement' | 'points'>,
    key: string,
    alsoCircuits: readonly number[],
  ): string[] {
    const known = this.asked.get(explanation) ?? new Map<string, string[]>();
    this.asked.set(explanation, known);
    const kept = known.get(key);
    if (kept) return kept;
    const arranged = this.arrangedAs(test.arrangement);
    const open = this.openQuestions(explanation, test.arrangement, arranged, alsoCircuits);
    const switches = open.filter((question) => question.startsWith('switch:'));
    const list =
      switches.length < 2
        ? open
        : open.filter(
            (question) =>
              !question.startsWith('switch:') || this.reachedContacts(explanation, test, arranged).has(Number(question.slice(7))),
          );
    known.set(key, list);
    return list;
  }

  /** Positions whose contact can matter to the points of a test. */
  private reachedContacts(explanation: Explanation, test: Pick<Test, 'arrangement' | 'points'>, arranged: Arranged): Set<number> {
    const network = this.network(explanation, test.arrangement, { ...arranged, contacts: [] }, EVERYTHING_THERE, () => true);
    const start: number[] = [];
    for (const point of test.points) {
      if (point.kind === 'core')
        for (const core of this.problem.cables[this.problem.cores[point.core]?.cable ?? -1]?.cores ?? [])
          start.push(arranged.groupOf[core] as number);
      if (point.kind === 'load')
        for (const element of network.elements) if (element.loadId === point.loadId) start.push(element.a, element.b);
      if (point.kind === 'circuit') return new Set(arranged.contacts.map((contact) => contact.position));
    }
    const fixed = (node: number) => network.isReference(node) || network.isLineSide(node);
    const seen = new Set(start.map((node) => network.find(node)));
    const queue = [...seen];
    const reached = new Set<number>();
    for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
      const onward = (a: number, b: number) => {
        const [left, right] = [network.find(a), network.find(b)];
        const next = left === at ? right : right === at ? left : null;
        if (next !== null && !seen.has(next) && !fixed(next)) {
          seen.add(next);
          queue.push(next);
        }
        return next;
      };
      const here = at;
      for (const contact of arranged.contacts) {
        const [a, b] = [network.find(contact.from), network.find(contact.to)];
        if (a !== here && b !== here) continue;
        // From a source or the reference outward nothing comes back, but for another source on the far side.
        if (fixed(here) && !fixed(a === here ? b : a)) continue;
        reached.add(contact.position);
        onward(contact.from, contact.to);
      }
      if (!fixed(here)) for (const element of network.elements) onward(element.a, element.b);
    }
    return reached;
  }

  /** Loads a test's outcome may rest on: those that can be reached from its points without passing a source or the reference. */
  private scopeOf(explanation: Explanation, test: Test): string[] {
    const known = this.scopes.get(explanation) ?? new Map<string, string[]>();
    this.scopes.set(explanation, known);
    const kept = known.get(test.key);
    if (kept) return kept;
    const scope = new Set<string>();
    const arranged = this.arrangedAs(test.arrangement);
    const network = this.network(explanation, test.arrangement, arranged, EVERYTHING_THERE, () => true, true);
    for (const point of test.points) {
      if (point.kind === 'load') {
        scope.add(point.loadId);
        for (const element of network.elements)
          if (element.loadId === point.loadId) for (const node of [element.a, element.b]) this.reach(network, node, scope);
      } else if (point.kind === 'core') this.reach(network, arranged.groupOf[point.core] as number, scope);
    }
    if (test.points[0]?.kind === 'circuit') for (const element of network.elements) if (element.loadId) scope.add(element.loadId);
    const list = [...scope];
    known.set(test.key, list);
    return list;
  }

  private reach(network: Network, node: number, scope: Set<string>): void {
    // At a source or the reference the state is what it is, whatever hangs on it.
    if (network.isReference(node) || network.isLineSide(node)) return;
    const seen = new Set([network.find(node)]);
    const queue = [network.find(node)];
    for (let at = queue.shift(); at !== undefined; at = queue.shift())
      for (const element of network.elements) {
        const [a, b] = [network.find(element.a), network.find(element.b)];
        const next = a === at ? b : b === at ? a : null;
        if (next === null) continue;
        if (element.loadId !== null) scope.add(element.loadId);
        if (seen.has(next) || network.isReference(next) || network.isLineSide(next)) continue;
        seen.add(next);
        queue.push(next);
      }
  }

  private overMissing(
    explanation: Explanation,
    outer: Omit<Hidden, 'missing' | 'outside'>,
    part: { loads: string[]; tests: number[] },
    bound: number,
  ): PartResult {
    let sum = 0;
    let result: PartResult = { sum: 0, most: 0, each: part.tests.map(() => 0), missing: [] };
    const priors = part.loads.map((load) => missingPrior(this.problem.loads.get(load)?.kind ?? 'led'));
    for (let mask = 0; mask < 2 ** part.loads.length; mask++) {
      const gone = part.loads.filter((_, at) => (mask & (1 << at)) !== 0);
      let weight = priors.reduce((product, prior, at) => product * ((mask & (1 << at)) !== 0 ? prior : 1 - prior), 1);
      const hidden: Hidden = { ...outer, missing: new Set(gone), outside: new Map() };
      const each: number[] = [];
      for (const at of part.tests) {
        const value = this.ofTest(explanation, this.tests[at] as Test, hidden);
        each.push(value);
        weight *= value;
        if (weight * 2 ** part.loads.length <= bound) break;
      }
      sum += weight;
      if (weight > result.most) result = { sum: 0, most: weight, each, missing: gone };
    }
    return { ...result, sum };
  }

  /** A lamp of another box: fed apart from this one, or through one of its line-ons; its own switch on or off throughout. */
  private overFeeds(
    explanation: Explanation,
    outer: Omit<Hidden, 'missing' | 'outside'>,
    load: string,
    tests: readonly number[],
  ): PartResult {
    const onward = explanation.classes.flatMap((name, core) => (name === 'line-on' ? [core] : []));
    const feeds: { feed: OutsideFeed; prior: number }[] = [];
    for (const on of [true, false]) {
      const prior = on ? 0.7 : 0.3;
      const apart = onward.length > 0 ? 0.5 : 1;
      this.problem.circuits.forEach((circuit, at) => {
        feeds.push({ feed: { through: null, circuit: at, on }, prior: prior * apart * circuit.prior });
      });
      for (const core of onward) feeds.push({ feed: { through: core, circuit: null, on }, prior: (prior * 0.5) / onward.length });
    }
    const absent = missingPrior(this.problem.loads.get(load)?.kind ?? 'led');
    let sum = 0;
    let result: PartResult = { sum: 0, most: 0, each: tests.map(() => 0), missing: [] };
    for (const { feed, prior } of feeds)
      for (const gone of [false, true]) {
        let weight = prior * (gone ? absent : 1 - absent);
        const each: number[] = [];
        for (const at of tests) {
          const value = this.ofOutsideLamp(explanation, this.tests[at] as Test, outer, feed, gone, load);
          each.push(value);
          weight *= value;
        }
        sum += weight;
        if (weight > result.most) result = { sum: 0, most: weight, each, missing: gone ? [load] : [], feed };
      }
    return { ...result, sum };
  }

  ofOutsideLamp(
    explanation: Explanation,
    test: Test,
    outer: Omit<Hidden, 'missing' | 'outside'>,
    feed: OutsideFeed,
    gone: boolean,
    load: string,
  ): number {
    const { arrangement } = test;
    const keys = this.outsideSwitches(load).filter((key) => arrangement.switches.has(key));
    const closed = keys.length > 0 ? keys.some((key) => arrangement.switches.get(key)) : feed.on;
    const value = test.reading.value as 'lit' | 'dim' | 'dark';
    if (gone || arrangement.out.has(load) || !closed) return LAMP.dark[value] ?? 0;
    const hidden: Hidden = { ...outer, missing: new Set(), outside: new Map() };
    const circuits = feed.circuit === null ? [] : [feed.circuit];
    const points: Point[] = feed.through === null ? [] : [{ kind: 'core', core: feed.through }];
    return this.average(
      explanation,
      { arrangement, points },
      `${arrangement.key}|feed ${feed.through} ${feed.circuit}`,
      hidden,
      circuits,
      (network, arranged, on) => {
        const live =
          feed.through === null ? on(feed.circuit as number) : network.state(arranged.groupOf[feed.through] as number).kind === 'source';
        return LAMP[live ? 'lit' : 'dark'][value] ?? 0;
      },
    );
  }

  /** Switches of other boxes that the readings name and that might be the lamp's own. */
  private outsideSwitches(load: string): string[] {
    let keys = this.outsideLoads.get(load);
    if (!keys) {
      const partners = new Set(this.problem.positions.flatMap((position) => position.partners));
      keys = this.foreign.filter((key) => !partners.has(key));
      this.outsideLoads.set(load, keys);
    }
    return keys;
  }

  /** Likelihood of what one test showed, given all hidden things; what the reading did not record is averaged over. */
  private ofTest(explanation: Explanation, test: Test, hidden: Hidden): number {
    const outcome = outcomeOf(this.problem, test);
    if (outcome === null || !this.counts(test)) return 1;
    return this.average(
      explanation,
      test,
      test.key,
      hidden,
      [],
      (network, arranged) => this.outcomes.row(explanation, test, network, arranged)[outcome] ?? 1,
    );
  }

  /** Readings at points of other boxes, and ohms with a breaker not named off, say nothing here. */
  private counts(test: Pick<Test, 'arrangement' | 'points' | 'reading'>): boolean {
    return !test.points.some((point) => point.kind === 'elsewhere') && (test.reading.tool !== 'ohms' || this.allOff(test.arrangement));
  }

  /** Chance of each outcome of tests not made yet, under one explanation with its hidden things. */
  predict(
    explanation: Explanation,
    tests: readonly Pick<Test, 'arrangement' | 'points' | 'reading' | 'key'>[],
    hidden: Hidden,
  ): Readonly<Record<string, number>>[] {
    this.networks.clear();
    return tests.map((test) => {
      if (!this.counts(test)) return {};
      const rows: Readonly<Record<string, number>>[] = [];
      this.average(explanation, test, test.key, hidden, [], (network, arranged) => {
        rows.push(this.outcomes.row(explanation, test, network, arranged));
        return 0;
      });
      if (rows.length === 1) return rows[0] as Record<string, number>;
      const total: Record<string, number> = {};
      for (const row of rows) for (const outcome in row) total[outcome] = (total[outcome] ?? 0) + (row[outcome] as number) / rows.length;
      return total;
    });
  }

  private allOff(arrangement: Arrangement): boolean {
    return this.problem.circuits.every((circuit) => circuit.id === null || arrangement.breakers.get(circuit.id) === false);
  }

  /** The mean of a figure over breakers, switches and far switches that the arrangement does not name. */
  private average(
    explanation: Explanation,
    test: Pick<Test, 'arrangement' | 'points'>,
    key: string,
    hidden: Hidden,
    alsoCircuits: readonly number[],
    figure: (network: Network, arranged: Arranged, on: (circuit: number) => boolean) => number,
  ): number {
    const { arrangement } = test;
    const arranged = this.arrangedAs(arrangement);
    const open = this.openQuestionsOf(explanation, test, key, alsoCircuits);
    const stateKey = `${arrangement.key}|${hidden.missing.size === 0 ? '' : [...hidden.missing].join()}|${open.join()}`;
    let states = this.networks.get(stateKey);
    if (!states) {
      states = [];
      for (let mask = 0; mask < 2 ** open.length; mask++) {
        const answer = (question: string): boolean => {
          const at = open.indexOf(question);
          return at >= 0 && (mask & (1 << at)) !== 0;
        };
        states.push({
          network: this.network(explanation, arrangement, arranged, hidden, answer),
          on: (circuit: number) => this.isOn(circuit, arrangement, hidden, answer),
        });
      }
      this.networks.set(stateKey, states);
    }
    let mean = 0;
    for (const { network, on } of states) mean += figure(network, arranged, on) / states.length;
    return mean;
  }

  private openQuestions(explanation: Explanation, arrangement: Arrangement, arranged: Arranged, alsoCircuits: readonly number[]): string[] {
    const { problem } = this;
    const open = new Set<string>();
    const used = new Set([...explanation.circuitOfCore, ...explanation.circuitOfCable, ...alsoCircuits]);
    for (const circuit of used) {
      const id = circuit === null ? null : problem.circuits[circuit]?.id;
      if (circuit !== null && id && !arrangement.breakers.has(id)) open.add(`breaker:${circuit}`);
    }
    for (const contact of arranged.contacts)
      if (!arrangement.switches.has(String(contact.position))) open.add(`switch:${contact.position}`);
    explanation.far.forEach((kind, cable) => {
      if (kind && this.farState(cable, arrangement) === null) open.add(`far:${cable}`);
    });
    explanation.classes.forEach((name, core) => {
      const cable = problem.cores[core]?.cable ?? -1;
      if (name === 'switched-line' && explanation.far[cable] !== 'load-by-third' && this.farState(cable, arrangement) === null)
        open.add(`switched:${core}`);
    });
    return [...open];
  }

  /** The conductor of a cable that a switch elsewhere feeds, if it has one. */
  private switchedElsewhere(explanation: Explanation, cable: number): number | undefined {
    if (explanation.far[cable] === 'load-by-third') return undefined;
    return this.problem.cables[cable]?.cores.find((core) => explanation.classes[core] === 'switched-line');
  }

  /** Whether the far switch of a cable is named, and which way its states together stand. */
  private farState(cable: number, arrangement: Arrangement): boolean | null {
    const keys = this.farKeys(cable);
    if (keys.length === 0 || keys.some((key) => !arrangement.switches.has(key))) return null;
    return keys.reduce((state, key) => state !== arrangement.switches.get(key), false);
  }

  private readonly farKeyCache = new Map<number, string[]>();

  private farKeys(cable: number): string[] {
    let keys = this.farKeyCache.get(cable);
    if (!keys) {
      const { problem } = this;
      const nets = new Set(problem.cables[cable]?.cores.map((core) => problem.cores[core]?.net));
      const here = problem.positions.filter((position) => [...position.nets.values()].some((net) => nets.has(net)));
      const partners = [...new Set((here.length > 0 ? here : problem.positions).flatMap((position) => position.partners))];
      const end = problem.cables[cable]?.end;
      const along = end?.kind === 'box' ? partners.filter((key) => key.startsWith(`${end.boxId}/`)) : [];
      keys = along.length > 0 ? along : partners.length > 0 ? partners : this.foreign.length === 1 ? this.foreign : [];
      this.farKeyCache.set(cable, keys);
    }
    return keys;
  }

  private isOn(
    circuit: number,
    arrangement: Arrangement,
    hidden: Pick<Hidden, 'outsideOn'>,
    answer: (question: string) => boolean,
  ): boolean {
    const id = this.problem.circuits[circuit]?.id;
    if (!id) return hidden.outsideOn;
    return arrangement.breakers.get(id) ?? answer(`breaker:${circuit}`);
  }

  /** @param every leaves contacts open that could be either way, for scopes: closes all of them */
  private network(
    explanation: Explanation,
    arrangement: Arrangement,
    arranged: Arranged,
    hidden: Hidden,
    answer: (question: string) => boolean,
    every = false,
  ): Network {
    const { problem } = this;
    const reference = arranged.groups;
    const network = new Network(arranged.groups + 1 + problem.cables.length);
    network.tieReference(reference);
    const { classes } = explanation;
    const group = (core: number) => arranged.groupOf[core] as number;
    classes.forEach((name, core) => {
      const cable = problem.cores[core]?.cable ?? -1;
      if (this.farIsParted(cable, arrangement)) return;
      if (name === 'line') {
        const circuit = explanation.circuitOfCore[core] as number;
        network.tieSource(group(core), circuit, explanation.legOfCore[core] ?? null, this.isOn(circuit, arrangement, hidden, answer));
      } else if (name === 'neutral-in') network.tieReference(group(core));
      else if (name === 'switched-line' && explanation.far[cable] !== 'load-by-third') {
        const circuit = explanation.circuitOfCable[cable];
        const state = this.farState(cable, arrangement);
        const closed = state === null ? answer(`switched:${core}`) : state !== (hidden.farPolarity.get(cable) ?? false);
        if (closed && circuit !== null && circuit !== undefined)
          network.tieSource(group(core), circuit, problem.circuits[circuit]?.leg ?? null, this.isOn(circuit, arrangement, hidden, answer));
      }
    });
    problem.cables.forEach((cable, index) => {
      if (this.farIsParted(index, arrangement)) return;
      const back = cable.cores.find((core) => classes[core] === 'return');
      const returns = back === undefined ? reference : group(back);
      for (const core of cable.cores)
        if (classes[core] === 'load')
          this.addLoads(network, group(core), returns, explanation.loadsOfCore[core] ?? [], arrangement, hidden);
      const kind = explanation.far[index];
      if (!kind) return;
      const common = arranged.groups + 1 + index;
      if (kind === 'fed') {
        const circuit = explanation.circuitOfCable[index] as number;
        network.tieSource(common, circuit, problem.circuits[circuit]?.leg ?? null, this.isOn(circuit, arrangement, hidden, answer));
      } else if (kind === 'load') this.addLoads(network, common, returns, explanation.loadsOfCable[index] ?? [], arrangement, hidden);
      else {
        const third = cable.cores.find((core) => classes[core] === (kind === 'fed-by-third' ? 'line-on' : 'switched-line'));
        if (third !== undefined) network.merge(common, group(third));
      }
      const [one, two] = cable.cores.filter((core) => classes[core] === 'traveler');
      const state = this.farState(index, arrangement) ?? answer(`far:${index}`);
      const first = state !== (hidden.farPolarity.get(index) ?? false);
      if (one !== undefined && (first || every)) network.merge(common, group(one));
      if (two !== undefined && (!first || every)) network.merge(common, group(two));
    });
    for (const contact of arranged.contacts) {
      const named = arrangement.switches.get(String(contact.position));
      const state = named ?? answer(`switch:${contact.position}`);
      const turned = contact.when === 'on' ? false : (hidden.polarity.get(contact.position) ?? false);
      const closed = contact.when === 'down' ? state === turned : state !== turned;
      if (closed || every) network.merge(contact.from, contact.to);
    }
    return network;
  }

  private farIsParted(cable: number, arrangement: Arrangement): boolean {
    const end = this.problem.cables[cable]?.end;
    return end?.kind === 'box' && arrangement.farParted.has(end.boxId);
  }

  private addLoads(network: Network, a: number, b: number, loads: readonly string[], arrangement: Arrangement, hidden: Hidden): void {
    if (loads.length === 0) network.addElement({ a, b, loadId: null, conducts: false });
    for (const loadId of loads) {
      if (hidden.missing.has(loadId) || arrangement.out.has(loadId)) continue;
      network.addElement({ a, b, loadId, conducts: conducts(this.problem.loads.get(loadId)?.kind ?? 'led') });
    }
  }
}

interface PartResult {
  sum: number;
  most: number;
  each: number[];
  missing: string[];
  feed?: OutsideFeed;
}
