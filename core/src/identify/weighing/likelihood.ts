import type { Arranged, Wiring } from '../../electrics/arranged.js';
import type { Network } from '../../electrics/network.js';
import { LAMP, missingPrior } from '../../practice/instruments.js';
import { entryAt } from '../../units/entry-at.js';
import {
  type Arrangement,
  comesBack,
  type Explanation,
  type Hidden,
  type OuterHidden,
  type OutsideFeed,
  type Point,
  type Problem,
  type Test,
} from '../problem/vocabulary.js';
import { Outcomes, outcomeOf } from './outcomes.js';
import { Scene } from './scene.js';
import { type Looked, Shapes, type TestGroup } from './shape.js';
import { Stage } from './stage.js';

export interface Evaluated {
  /** Sum over hidden things of their priors and the readings' likelihoods. */
  likelihood: number;
  /** The hidden things that suit all readings best, and each reading's likelihood under them. */
  best: { weight: number; hidden: Hidden; each: Float64Array };
}

const NOTHING: ReadonlySet<string> = new Set();
/** Beyond rounding: what suits equally well is not decided by the order of multiplying. */
const CLEARLY = 1 + 1e-9;

/** Readings of a problem against explanations; keeps what explanations share. */
export class Likelihood {
  private readonly outsideLoads = new Map<string, string[]>();
  private readonly shapes: Shapes;
  private readonly stage: Stage;
  private readonly outcomes: Outcomes;
  /** The outcome of each test; null where it says nothing of what is in the box. */
  private readonly shown: readonly (string | null)[];

  constructor(
    readonly problem: Problem,
    wiring: Wiring,
    readonly tests: readonly Test[],
  ) {
    this.outcomes = new Outcomes(problem);
    this.stage = new Stage(problem, wiring, tests);
    this.shapes = new Shapes(this.stage);
    this.shown = tests.map((test) => (this.counts(test) ? outcomeOf(problem, test) : null));
  }

  /** @param least below this likelihood the explanation is given up, its sum being too small to matter */
  evaluate(explanation: Explanation, least = 0): Evaluated | null {
    const { tests } = this;
    let likelihood = 0;
    let best: Evaluated['best'] | null = null;
    const shape = this.shapes.of(explanation);
    const scene = new Scene(this.stage, shape, explanation);
    const groups = shape.groups(tests);
    for (const outer of this.outerHidden(explanation)) {
      let sum = outer.prior;
      let most = outer.prior;
      const results: GroupSum[] = [];
      for (const group of groups) {
        const bound = least / sum;
        const result =
          group.outside === null
            ? this.overMissing(scene, outer, group, bound)
            : this.overFeeds(scene, outer, group.outside, group.tests);
        sum *= result.sum;
        most *= result.most;
        if (sum <= least) break;
        results.push(result);
      }
      // Every reading suits it by at most 1, so what is given up here is smaller than what matters.
      if (sum <= least) continue;
      likelihood += sum;
      if (best === null || most > best.weight * CLEARLY)
        best = { weight: most, ...this.together(outer, groups, results) };
    }
    return best === null ? null : { likelihood, best };
  }

  /** What suits each group of tests best, as one: groups have no load in common. */
  private together(
    { outsideOn, polarity, farPolarity, swapped }: OuterHidden,
    groups: readonly TestGroup[],
    results: readonly GroupSum[],
  ): Pick<Evaluated['best'], 'hidden' | 'each'> {
    const each = new Float64Array(this.tests.length);
    const missing = new Set<string>();
    const outside = new Map<string, OutsideFeed>();
    results.forEach((result, index) => {
      const group = entryAt(groups, index);
      group.tests.forEach((test, at) => {
        each[test] = result.each[at] ?? 0;
      });
      for (const load of result.missing) missing.add(load);
      if (group.outside !== null && result.feed) outside.set(group.outside, result.feed);
    });
    return { each, hidden: { outsideOn, polarity, farPolarity, swapped, missing, outside } };
  }

  /**
   * The same sum the plain way, every missing lamp, switch and feed enumerated together; for checking {@link
   * evaluate}.
   */
  inFull(explanation: Explanation): number {
    const shape = this.shapes.of(explanation);
    const own = [...shape.loads];
    const every = {
      loads: own,
      tests: this.tests.flatMap((test, at) =>
        test.points[0]?.kind === 'load' && !own.includes(test.points[0].loadId) ? [] : [at],
      ),
    };
    const scene = new Scene(this.stage, shape, explanation, true);
    let total = 0;
    for (const outer of this.outerHidden(explanation)) {
      let sum = outer.prior * this.overMissing(scene, outer, every, 0).sum;
      const outside = new Set(
        this.tests.flatMap((test) =>
          test.points[0]?.kind === 'load' && !own.includes(test.points[0].loadId)
            ? [test.points[0].loadId]
            : [],
        ),
      );
      for (const load of outside) {
        const tests = this.tests.flatMap((test, at) =>
          test.points[0]?.kind === 'load' && test.points[0].loadId === load ? [at] : [],
        );
        sum *= this.overFeeds(scene, outer, load, tests).sum;
      }
      total += sum;
    }
    return total;
  }

  private *outerHidden(explanation: Explanation): Generator<OuterHidden & { prior: number }> {
    const { problem } = this;
    const last = problem.circuits.length - 1;
    const usesOutside = explanation.circuitOfCore.includes(last) || explanation.circuitOfCable.includes(last);
    const multi = problem.positions.filter(
      (position) =>
        position.nets.size > 1 &&
        (position.existing === 'three-way' ||
          position.existing === 'four-way' ||
          position.nets.has('common')),
    );
    const cables = explanation.far.flatMap((kind, cable) =>
      kind || this.switchedElsewhere(explanation, cable) !== undefined ? [cable] : [],
    );
    const bits = multi.length + cables.length;
    const sides = this.stage.middle && cables.length > 0 ? [false, true] : [false];
    for (const outsideOn of usesOutside ? [true, false] : [true])
      for (let mask = 0; mask < 2 ** bits * sides.length; mask++) {
        const swapped = mask >= 2 ** bits;
        const polarity = new Map(multi.map((position, at) => [position.index, (mask & (1 << at)) !== 0]));
        const farPolarity = new Map(
          cables.map((cable, at) => [cable, (mask & (1 << (multi.length + at))) !== 0]),
        );
        const share = (usesOutside ? (outsideOn ? 0.7 : 0.3) : 1) / 2 ** bits / sides.length;
        yield { outsideOn, polarity, farPolarity, swapped, prior: share };
      }
  }

  private overMissing(
    scene: Scene,
    outer: OuterHidden,
    group: { loads: string[]; tests: number[] },
    bound: number,
  ): GroupSum {
    let sum = 0;
    let result: GroupSum = { sum: 0, most: 0, each: [], missing: [] };
    const priors = group.loads.map((load) => missingPrior(this.problem.loads.get(load)?.kind ?? 'led'));
    for (let mask = 0; mask < 2 ** group.loads.length; mask++) {
      const gone = group.loads.filter((_, at) => (mask & (1 << at)) !== 0);
      let weight = priors.reduce(
        (product, prior, at) => product * ((mask & (1 << at)) !== 0 ? prior : 1 - prior),
        1,
      );
      const within = { scene, outer, missing: gone.length === 0 ? NOTHING : new Set(gone) };
      const each: number[] = [];
      for (const at of group.tests) {
        const value = this.ofTest(within, at);
        each.push(value);
        weight *= value;
        if (weight * 2 ** group.loads.length <= bound) break;
      }
      sum += weight;
      if (weight > result.most * CLEARLY) result = { sum: 0, most: weight, each, missing: gone };
    }
    return { ...result, sum };
  }

  /**
   * A lamp of another box: fed apart from this one, or through one of its line-ons; its own switch on or off
   * throughout.
   */
  private overFeeds(scene: Scene, outer: OuterHidden, load: string, tests: readonly number[]): GroupSum {
    const onward = scene.explanation.classes.flatMap((name, core) => (name === 'line-on' ? [core] : []));
    const feeds: { feed: OutsideFeed; prior: number }[] = [];
    for (const on of [true, false]) {
      const prior = on ? 0.7 : 0.3;
      const apart = onward.length > 0 ? 0.5 : 1;
      this.problem.circuits.forEach((circuit, at) => {
        feeds.push({ feed: { through: null, circuit: at, on }, prior: prior * apart * circuit.prior });
      });
      for (const core of onward)
        feeds.push({ feed: { through: core, circuit: null, on }, prior: (prior * 0.5) / onward.length });
    }
    const within = { scene, outer, missing: NOTHING };
    const absent = missingPrior(this.problem.loads.get(load)?.kind ?? 'led');
    let sum = 0;
    let result: GroupSum = { sum: 0, most: 0, each: [], missing: [] };
    for (const { feed, prior } of feeds)
      for (const gone of [false, true]) {
        let weight = prior * (gone ? absent : 1 - absent);
        const each: number[] = [];
        for (const at of tests) {
          const value = this.ofOutsideLamp(within, entryAt(this.tests, at), { load, feed, gone });
          each.push(value);
          weight *= value;
        }
        sum += weight;
        if (weight > result.most * CLEARLY)
          result = { sum: 0, most: weight, each, missing: gone ? [load] : [], feed };
      }
    return { ...result, sum };
  }

  private ofOutsideLamp(
    within: Within,
    test: Test,
    { load, feed, gone }: { load: string; feed: OutsideFeed; gone: boolean },
  ): number {
    const { arrangement } = test;
    const { value } = test.reading;
    if (value !== 'lit' && value !== 'dim' && value !== 'dark') return 0;
    if (gone || arrangement.out.has(load)) return LAMP.dark[value] ?? 0;
    const keys = this.outsideSwitches(load).filter((key) => arrangement.switches.has(key));
    const closed = keys.length > 0 ? keys.some((key) => arrangement.switches.get(key)) : feed.on;
    if (!closed) return LAMP.dark[value] ?? 0;
    const circuits = feed.circuit === null ? [] : [feed.circuit];
    const points: Point[] = feed.through === null ? [] : [{ kind: 'core', core: feed.through }];
    return this.average(
      within,
      {
        arrangement,
        points,
        reading: test.reading,
        key: `${arrangement.key}|feed ${feed.through} ${feed.circuit}`,
      },
      circuits,
      (network, arranged, on) => {
        const live =
          feed.through === null
            ? feed.circuit !== null && on(feed.circuit)
            : network.state(entryAt(arranged.groupOf, feed.through)).kind === 'source';
        return LAMP[live ? 'lit' : 'dark'][value] ?? 0;
      },
    );
  }

  /** Switches of other boxes that the readings name and that might be the lamp's own. */
  private outsideSwitches(load: string): string[] {
    let keys = this.outsideLoads.get(load);
    if (!keys) {
      const partners = new Set(this.problem.positions.flatMap((position) => position.partners));
      keys = this.stage.foreign.filter((key) => !partners.has(key));
      this.outsideLoads.set(load, keys);
    }
    return keys;
  }

  /**
   * Likelihood of what one test showed, given all hidden things; what the reading did not record is averaged
   * over.
   */
  private ofTest(within: Within, at: number): number {
    const outcome = entryAt(this.shown, at);
    if (outcome === null) return 1;
    const test = entryAt(this.tests, at);
    return this.average(
      within,
      test,
      [],
      (network, arranged) =>
        this.outcomes.row(within.scene.explanation, test, network, arranged)[outcome] ?? 1,
    );
  }

  /** Readings at points of other boxes, and ohms with a breaker not named off, say nothing here. */
  private counts(test: Pick<Test, 'arrangement' | 'points' | 'reading'>): boolean {
    return (
      !test.points.some((point) => point.kind === 'elsewhere') &&
      (test.reading.tool !== 'ohms' || this.allOff(test.arrangement))
    );
  }

  /** Chance of each outcome of tests not made yet, under one explanation with its hidden things. */
  predict(
    explanation: Explanation,
    tests: readonly Looked[],
    hidden: Hidden,
  ): Readonly<Record<string, number>>[] {
    const scene = new Scene(this.stage, this.shapes.of(explanation), explanation);
    return tests.map((test) => {
      if (!this.counts(test)) return {};
      const rows: Readonly<Record<string, number>>[] = [];
      this.average({ scene, outer: hidden, missing: hidden.missing }, test, [], (network, arranged) => {
        rows.push(this.outcomes.row(explanation, test, network, arranged));
        return 0;
      });
      if (rows.length === 1) return entryAt(rows, 0);
      const total: Record<string, number> = {};
      for (const row of rows)
        for (const outcome in row) total[outcome] = (total[outcome] ?? 0) + (row[outcome] ?? 0) / rows.length;
      return total;
    });
  }

  private allOff(arrangement: Arrangement): boolean {
    return this.problem.circuits.every(
      ({ id, own }) => !own || id === null || arrangement.breakers.get(id) === false,
    );
  }

  /**
   * Switches whose state can bear on a test under some of these explanations, as readings name them: those
   * here that its points can reach, and far ones where something may hang on a switch elsewhere.
   */
  switchesThatMatter(explanations: readonly Explanation[], test: Looked): ReadonlySet<string> {
    const bare = {
      ...test.arrangement,
      switches: new Map<string, boolean>(),
      key: `${test.arrangement.key}|bare`,
    };
    const looked = { ...test, arrangement: bare, key: `${test.key}|bare` };
    const matter = new Set<string>();
    for (const explanation of explanations) {
      const shape = this.shapes.of(explanation);
      for (const position of shape.switchesFor(looked)) matter.add(String(position));
      if (test.reading.tool === 'lamp' || shape.farOpen(bare).length > 0)
        for (const key of test.arrangement.switches.keys()) if (key.includes('/')) matter.add(key);
    }
    return matter;
  }

  /** The mean of a figure over breakers, switches and far switches that the arrangement does not name. */
  private average(
    { scene, outer, missing }: Within,
    test: Looked,
    alsoCircuits: readonly number[],
    figure: (network: Network, arranged: Arranged, on: (circuit: number) => boolean) => number,
  ): number {
    const { arrangement } = test;
    const arranged = this.stage.arrangedAs(arrangement);
    const states = scene.statesOf(arrangement, scene.questionsOf(test, alsoCircuits), outer, missing);
    let mean = 0;
    for (const { network, on } of states) mean += figure(network, arranged, on) / states.length;
    return mean;
  }

  /** The conductor of a cable that a switch elsewhere feeds, if it has one. */
  private switchedElsewhere(explanation: Explanation, cable: number): number | undefined {
    if (comesBack(explanation.far[cable])) return undefined;
    return this.problem.cables[cable]?.cores.find((core) => explanation.classes[core] === 'switched-line');
  }
}

/** The scene of an explanation, with hidden things that hold for all its readings and lamps that are gone. */
interface Within {
  scene: Scene;
  outer: OuterHidden;
  missing: ReadonlySet<string>;
}

interface GroupSum {
  sum: number;
  most: number;
  each: number[];
  missing: string[];
  feed?: OutsideFeed;
}
