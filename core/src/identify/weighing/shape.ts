import type { Arranged } from '../../electrics/arranged.js';
import { Network } from '../../electrics/network.js';
import { entryAt } from '../../units/entry-at.js';
import { type Arrangement, comesBack, type Explanation, type Test } from '../problem/vocabulary.js';
import { type FarEnds, farEnds, hang } from './far-ends.js';
import { type MaybeJoined, Reach } from './reach.js';
import type { Stage } from './stage.js';

/** What of a test says where it looks. */
export type Looked = Pick<Test, 'arrangement' | 'points' | 'reading' | 'key'>;

/** Tests that are summed together: over the loads they rest on, or over how a lamp of another box is fed. */
export interface TestGroup {
  loads: string[];
  tests: number[];
  outside: string | null;
}

/**
 * Shapes by what they are of. Explanations that differ in circuits and legs only have one: what can matter to
 * a reading is the same.
 */
export class Shapes {
  /** By the array of classes first: explanations of one structure share it, and it need not be read. */
  private readonly known = new Map<Explanation['classes'], Map<string, Shape>>();

  constructor(private readonly stage: Stage) {}

  of(explanation: Explanation): Shape {
    let sameClasses = this.known.get(explanation.classes);
    if (!sameClasses) {
      sameClasses = new Map();
      this.known.set(explanation.classes, sameClasses);
    }
    const { far, loadsOfCore, loadsOfCable } = explanation;
    const key = `${far.join()}|${loadsOfCore.join(';')}|${loadsOfCable.join(';')}`;
    let shape = sameClasses.get(key);
    if (!shape) {
      shape = new Shape(this.stage, explanation);
      sameClasses.set(key, shape);
    }
    return shape;
  }
}

interface Setting {
  reach: Reach | null;
  switchesOpen: readonly number[] | null;
  farOpen: readonly string[] | null;
  switches: Map<string, readonly number[]>;
  questions: Map<string, readonly string[]>;
}

/**
 * What explanations that differ in circuits only have in common: what a test can rest on, and which tests
 * belong together.
 */
export class Shape {
  /** Loads that this box works or feeds. */
  readonly loads: readonly string[];
  private readonly settings = new Map<Arranged, Setting>();
  private readonly ends: FarEnds;
  private grouped: TestGroup[] | null = null;

  constructor(
    private readonly stage: Stage,
    private readonly explanation: Explanation,
  ) {
    this.ends = farEnds(stage.problem, explanation);
    this.loads = [...new Set([...explanation.loadsOfCore.flat(), ...explanation.loadsOfCable.flat()])];
  }

  /** The tests in the groups they are summed in, the cheap ones first. */
  groups(tests: readonly Test[]): readonly TestGroup[] {
    this.grouped ??= this.groupedTests(tests);
    return this.grouped;
  }

  private settingOf(arrangement: Arrangement): Setting {
    const arranged = this.stage.arrangedAs(arrangement);
    let setting = this.settings.get(arranged);
    if (!setting) {
      setting = { reach: null, switchesOpen: null, farOpen: null, switches: new Map(), questions: new Map() };
      this.settings.set(arranged, setting);
    }
    return setting;
  }

  /**
   * What a test may rest on of switches here and elsewhere that it does not name.
   * @param plain of every one that is left in, whether the test reaches it or not
   */
  switchQuestions(test: Looked, plain: boolean): readonly string[] {
    const { arrangement } = test;
    const { questions } = this.settingOf(arrangement);
    const key = plain ? '' : test.key;
    let list = questions.get(key);
    if (!list) {
      const switches = plain ? this.switchesOpen(arrangement) : this.switchesFor(test);
      list = [...switches.map((position) => `switch:${position}`), ...this.farOpen(arrangement)];
      questions.set(key, list);
    }
    return list;
  }

  /** Positions whose switch is not named and can matter to a test. */
  switchesFor(test: Looked): readonly number[] {
    const { switches } = this.settingOf(test.arrangement);
    let list = switches.get(test.key);
    if (!list) {
      list = this.switchesOpen(test.arrangement);
      if (list.length > 1) {
        const reached = this.switchesAt(test);
        list = list.filter((position) => reached.has(position));
      }
      switches.set(test.key, list);
    }
    return list;
  }

  /**
   * Positions whose switch can matter to a test: at its points and, for an indicator or a floating wire,
   * beside them in their cables.
   */
  private switchesAt(test: Looked): ReadonlySet<number> {
    const { cables, cores } = this.stage.problem;
    const { groupOf, contacts } = this.stage.arrangedAs(test.arrangement);
    if (test.points.some((point) => point.kind === 'circuit'))
      return new Set(contacts.map((contact) => contact.position));
    const reach = this.reachIn(test.arrangement);
    const { nodes, evenFixed } = this.startsOf(test, reach);
    const found = reach.switchesFrom(nodes, evenFixed);
    const beside: number[] = [];
    for (const point of test.points)
      if (point.kind === 'core')
        for (const core of cables[cores[point.core]?.cable ?? -1]?.cores ?? [])
          beside.push(entryAt(groupOf, core));
    for (const position of reach.switchesFrom(beside, false)) found.add(position);
    return found;
  }

  /** Loads a test's outcome may rest on. */
  private scopeOf(test: Test): ReadonlySet<string> {
    const reach = this.reachIn(test.arrangement);
    const { nodes, evenFixed } = this.startsOf(test, reach);
    const scope = reach.loadsFrom(nodes, evenFixed);
    for (const point of test.points) if (point.kind === 'load') scope.add(point.loadId);
    return scope;
  }

  /**
   * Where a test looks: at its points; for ohms beyond a tied point too, unless the other is the reference.
   */
  private startsOf(test: Looked, reach: Reach): { nodes: number[]; evenFixed: boolean } {
    const { groupOf } = this.stage.arrangedAs(test.arrangement);
    const nodes: number[] = [];
    for (const point of test.points)
      if (point.kind === 'core') nodes.push(entryAt(groupOf, point.core));
      else if (point.kind === 'load') nodes.push(...reach.endsOf(point.loadId));
    const between =
      test.reading.tool === 'ohms' && nodes.length === 2 && !nodes.some((node) => reach.isReference(node));
    return { nodes, evenFixed: between };
  }

  /** About how many states a test has to be looked at in; cheaper to say than to know. */
  private costOf(test: Looked): number {
    const reach = this.reachIn(test.arrangement);
    const { nodes, evenFixed } = this.startsOf(test, reach);
    return !evenFixed && nodes.every((node) => reach.fixed(node))
      ? 1
      : 2 ** this.switchesOpen(test.arrangement).length;
  }

  /** Positions whose switch is left in and not named. */
  switchesOpen(arrangement: Arrangement): readonly number[] {
    const setting = this.settingOf(arrangement);
    setting.switchesOpen ??= [
      ...new Set(this.stage.arrangedAs(arrangement).contacts.map((contact) => contact.position)),
    ].filter((position) => !arrangement.switches.has(String(position)));
    return setting.switchesOpen;
  }

  private reachIn(arrangement: Arrangement): Reach {
    const setting = this.settingOf(arrangement);
    if (!setting.reach) {
      const arranged = this.stage.arrangedAs(arrangement);
      const network = new Network(arranged.groups + 2 + this.stage.problem.cables.length);
      setting.reach = new Reach(network, this.sureTies(network, arrangement, arranged));
    }
    return setting.reach;
  }

  /** Ties that hold whatever is hidden go into the network; given back is what may be joined besides. */
  private sureTies(network: Network, arrangement: Arrangement, arranged: Arranged): MaybeJoined[] {
    const { groupOf, groups } = arranged;
    const group = (core: number | null) => (core === null ? groups : entryAt(groupOf, core));
    const here = ({ cable }: { cable: number }) => !this.stage.farIsParted(cable, arrangement);
    const maybe: MaybeJoined[] = [];
    network.tieReference(groups);
    for (const { core, circuit, leg } of this.ends.lines.filter(here))
      network.tieSource(group(core), circuit, leg, true);
    const { circuits, isolating, cables } = this.stage.problem;
    const isOn = (circuit: number) => arrangement.breakers.get(circuits[circuit]?.id ?? '') === true;
    for (const { core, opened } of this.ends.neutrals.filter(here))
      if (opened.every(isOn)) network.tieReference(group(core));
    // What returns elsewhere may do so to a neutral that its breaker has opened.
    const open = isolating.size > 0 && ![...isolating].every(isOn);
    const returnOf = (core: number | null) =>
      core === null && open ? groups + 1 + cables.length : group(core);
    for (const { core, back, hanging } of this.ends.loads.filter(here))
      hang(network, group(core), returnOf(back), hanging, arrangement);
    for (const far of this.ends.far.filter(here)) {
      const common = groups + 1 + far.cable;
      if (far.source) network.tieSource(common, far.source.circuit, far.source.leg, true);
      if (far.hanging) hang(network, common, returnOf(far.back), far.hanging, arrangement);
      if (far.third !== null) network.merge(common, group(far.third));
      for (const traveler of [far.one, far.two])
        if (traveler !== null) maybe.push({ a: common, b: group(traveler), position: null });
    }
    // Which contact of a multi-location switch a state makes is hidden; that an ordinary one is open is not.
    for (const { from, to, position, when } of arranged.contacts)
      if (when !== 'on' || arrangement.switches.get(String(position)) !== false)
        maybe.push({ a: from, b: to, position });
    return maybe;
  }

  /** Far switches that the arrangement does not name. */
  farOpen(arrangement: Arrangement): readonly string[] {
    const setting = this.settingOf(arrangement);
    setting.farOpen ??= this.farUnnamed(arrangement);
    return setting.farOpen;
  }

  private farUnnamed(arrangement: Arrangement): string[] {
    const { explanation } = this;
    const { problem } = this.stage;
    const open: string[] = [];
    explanation.far.forEach((kind, cable) => {
      if (kind && this.stage.farState(cable, arrangement) === null) open.push(`far:${cable}`);
    });
    explanation.classes.forEach((name, core) => {
      const cable = problem.cores[core]?.cable ?? -1;
      if (
        name === 'switched-line' &&
        !comesBack(explanation.far[cable]) &&
        this.stage.farState(cable, arrangement) === null
      )
        open.push(`switched:${core}`);
    });
    return open;
  }

  /** Tests by the loads whose presence they can depend on: groups with none in common are summed apart. */
  private groupedTests(tests: readonly Test[]): TestGroup[] {
    const own = new Set(this.loads);
    const groups: { loads: Set<string>; tests: number[] }[] = [];
    const outside = new Map<string, number[]>();
    tests.forEach((test, at) => {
      const [point] = test.points;
      if (point?.kind === 'load' && !own.has(point.loadId)) {
        outside.set(point.loadId, [...(outside.get(point.loadId) ?? []), at]);
        return;
      }
      const scope = [...this.scopeOf(test)];
      const joined = groups.filter((group) => scope.some((load) => group.loads.has(load)));
      const [first, ...rest] = joined;
      if (!first) {
        groups.push({ loads: new Set(scope), tests: [at] });
        return;
      }
      for (const load of scope) first.loads.add(load);
      first.tests.push(at);
      for (const group of rest) {
        for (const load of group.loads) first.loads.add(load);
        first.tests.push(...group.tests);
        groups.splice(groups.indexOf(group), 1);
      }
    });
    // The cheap ones first: most explanations are given up before the dear ones are reached.
    const effort = tests.map((test) => this.costOf(test));
    const cost = (group: { loads: Set<string>; tests: number[] }) =>
      2 ** group.loads.size * group.tests.reduce((sum, at) => sum + (effort[at] ?? 0), 0);
    const byCost = groups
      .map((group) => ({ group, cost: cost(group) }))
      .sort((one, other) => one.cost - other.cost);
    return [
      ...byCost.map(({ group }) => ({
        loads: [...group.loads],
        tests: group.tests.sort((one, other) => (effort[one] ?? 0) - (effort[other] ?? 0) || one - other),
        outside: null,
      })),
      ...[...outside].map(([load, tests]) => ({ loads: [], tests, outside: load })),
    ];
  }
}
