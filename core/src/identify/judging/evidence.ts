import { coldOhms, conducts } from '../../practice/instruments.js';
import { entryAt } from '../../units/entry-at.js';
import type { InsulatedRole, Problem, Test } from '../problem/vocabulary.js';
import { outcomeOf } from '../weighing/outcomes.js';
import { type Posterior, roleOfCore } from '../weighing/posterior.js';
import { INDICATED } from './grade.js';
import { provedReferences, referenceName } from './proved-references.js';
import {
  farSwitchDiffers,
  onlyFarSwitchDiffers,
  ownSwitchDiffers,
  sameBreakers,
} from './state-differences.js';

/** The readings that show a core to be what it most probably is, as each role asks for them. */
export class Evidence {
  private proved: ReadonlySet<string> | undefined;

  constructor(
    private readonly problem: Problem,
    private readonly posterior: Posterior,
  ) {}

  private get tests(): readonly Test[] {
    return this.posterior.likelihood.tests;
  }

  /**
   * @param lines cores confirmed to be lines, which a neutral may rest on
   * @returns indexes of tests; null: what the role asks for was not read
   */
  of(core: number, role: InsulatedRole, lines: ReadonlySet<number>): number[] | null {
    switch (role) {
      case 'line':
        return this.lineEvidence(core);
      case 'load':
        return this.loadEvidence(core);
      case 'neutral':
        return this.neutralEvidence(core, lines);
      case 'traveler':
        return this.travelerEvidence(core);
      case 'line-on':
        return this.onwardEvidence(core);
      default:
        return [];
    }
  }

  /**
   * Points that are a proved reference: a known earth by test lead, or what was read at most 1 ohm from one,
   * through however many.
   */
  private isProvedReference(test: Test, at: number): boolean {
    const point = test.points[at];
    this.proved ??= provedReferences(this.problem, this.tests);
    return point !== undefined && this.proved.has(referenceName(this.problem, point) ?? '');
  }

  /**
   * A reading between a core of the net and a proved reference (`reference`) or another core; index of the
   * core's point.
   */
  private readingsOn(
    core: number,
    tool: Test['reading']['tool'][],
    partner: (test: Test, at: number) => boolean,
  ): number[] {
    const net = this.problem.cores[core]?.net;
    return this.tests.flatMap((test, index) => {
      if (!tool.includes(test.reading.tool) || test.points.length !== 2) return [];
      const at = test.points.findIndex(
        (point) => point.kind === 'core' && this.problem.cores[point.core]?.net === net,
      );
      return at >= 0 && partner(test, 1 - at) ? [index] : [];
    });
  }

  private outcome(test: number): string | null {
    return outcomeOf(this.problem, entryAt(this.tests, test));
  }

  /** Supply volts on low impedance to a proved reference, gone with its breaker. */
  private lineEvidence(core: number): number[] | null {
    const toReference = this.readingsOn(core, this.lineTools(core), (test, at) =>
      this.isProvedReference(test, at),
    );
    for (const live of toReference) {
      if (this.outcome(live) !== 'supply') continue;
      const { arrangement } = entryAt(this.tests, live);
      const gone = toReference.find((other) => {
        const own = entryAt(this.tests, other).arrangement;
        const turnedOff = [...arrangement.breakers].some(([id, on]) => on && own.breakers.get(id) === false);
        return turnedOff && this.outcome(other) === 'under-3' && own.kind === arrangement.kind;
      });
      if (gone !== undefined) return [live, gone];
    }
    return null;
  }

  /** Low impedance, or high where low would trip the protection. */
  private lineTools(core: number): Test['reading']['tool'][] {
    const circuit = this.posterior.best.explanation.circuitOfCore[core];
    return circuit !== null && circuit !== undefined && this.problem.trips.has(circuit)
      ? ['volts-low-z', 'volts']
      : ['volts-low-z'];
  }

  /** Its lamp follows the old switch, or ohms to its neutral that open when the lamp is out. */
  private loadEvidence(core: number): number[] | null {
    const loads = this.posterior.best.explanation.loadsOfCore[core] ?? [];
    for (const load of loads) {
      const lamps = this.tests.flatMap((test, index) =>
        test.reading.tool === 'lamp' &&
        test.points[0]?.kind === 'load' &&
        test.points[0].loadId === load &&
        test.arrangement.kind === 'in-place'
          ? [index]
          : [],
      );
      for (const lit of lamps)
        for (const dark of lamps) {
          const [one, other] = [entryAt(this.tests, lit), entryAt(this.tests, dark)];
          const value = (test: Test) => test.reading.value;
          if (
            (value(one) === 'lit' || value(one) === 'dim') &&
            value(other) === 'dark' &&
            sameBreakers(one, other) &&
            ownSwitchDiffers(one, other)
          )
            return [lit, dark];
        }
      const ohms = this.readingsOn(core, ['ohms'], (test, at) => {
        const point = test.points[at];
        return (
          point?.kind === 'core' && roleOfCore(this.posterior.best.explanation, point.core) === 'neutral'
        );
      });
      const open = ohms.find(
        (index) => this.tests[index]?.arrangement.out.has(load) && this.outcome(index) === 'open',
      );
      const through = ohms.find(
        (index) => !this.tests[index]?.arrangement.out.has(load) && this.outcome(index) !== 'open',
      );
      if (open !== undefined && through !== undefined) return [through, open];
    }
    return null;
  }

  /**
   * Loads excluded, and supply volts on low impedance from a confirmed line or at most 1 ohm to a proved
   * reference.
   */
  private neutralEvidence(core: number, lines: ReadonlySet<number>): number[] | null {
    const ohms = this.readingsOn(core, ['ohms'], (test, at) => this.isProvedReference(test, at)).filter(
      (index) => this.outcome(index) === 'to-1',
    );
    for (const index of ohms)
      if (this.loadsExcluded(core, index, Number(this.tests[index]?.reading.value))) return [index];
    const volts = this.readingsOn(core, ['volts-low-z'], (test, at) => {
      const point = test.points[at];
      return point?.kind === 'core' && lines.has(point.core);
    }).filter((index) => this.outcome(index) === 'supply');
    for (const index of volts) if (this.loadsExcluded(core, index, null)) return [index];
    return null;
  }

  private loadsExcluded(core: number, index: number, ohm: number | null): boolean {
    const test = entryAt(this.tests, index);
    const loads = [...new Set(this.problem.positions.flatMap((position) => position.loadIds))];
    if (loads.length > 0 && loads.every((load) => test.arrangement.out.has(load))) return true;
    const quiet = this.readingsOn(core, ['volts-low-z', 'volts'], (other, at) =>
      this.isProvedReference(other, at),
    ).some((other) => {
      const reading = entryAt(this.tests, other);
      return (
        reading.arrangement.kind === 'in-place' && this.outcome(other) === 'under-3' && this.litWith(reading)
      );
    });
    if (quiet) return true;
    return (
      loads.length > 0 &&
      loads.every(
        (load) => this.standsElsewhere(load, core) && (ohm === null || this.modelledOhms(load) > 5 * ohm),
      )
    );
  }

  /** A lamp seen lit in the same state: switch on, in place. */
  private litWith(reading: Test): boolean {
    return this.tests.some(
      (test) =>
        test.reading.tool === 'lamp' &&
        test.reading.value === 'lit' &&
        test.arrangement.key === reading.arrangement.key,
    );
  }

  private standsElsewhere(load: string, core: number): boolean {
    const net = this.problem.cores[core]?.net;
    const { entries, total } = this.posterior;
    let sum = 0;
    for (const { explanation, weight } of entries) {
      const elsewhere =
        explanation.loadsOfCore.some(
          (loads, other) => loads.includes(load) && this.problem.cores[other]?.net !== net,
        ) || explanation.loadsOfCable.some((loads) => loads.includes(load));
      if (elsewhere) sum += weight;
    }
    return sum / total >= INDICATED;
  }

  private modelledOhms(id: string): number {
    const load = this.problem.loads.get(id);
    if (!load) return 0;
    // The list of lamps can be wrong: what is no resistance by its kind is taken as the least a winding has.
    return coldOhms(load, this.problem.circuits[0]?.volts ?? 120) ?? (conducts(load.kind) ? 5 : 50);
  }

  /**
   * Apart from its switch: alive and dead as the far switch alone changes, ohms that change with it, or ohms
   * end to end.
   */
  private travelerEvidence(core: number): number[] | null {
    const own = this.tests.flatMap((test, index) =>
      test.reading.tool.startsWith('volts') &&
      test.arrangement.kind !== 'in-place' &&
      test.points.some((point) => point.kind === 'core' && point.core === core)
        ? [index]
        : [],
    );
    for (const live of own)
      for (const dead of own) {
        if (this.outcome(live) !== 'supply' || this.outcome(dead) === 'supply') continue;
        if (onlyFarSwitchDiffers(entryAt(this.tests, live), entryAt(this.tests, dead))) return [live, dead];
      }
    const changing = this.ohmsThatChange(core) ?? this.lampFollowsBoth(core);
    if (changing) return changing;
    const ends = this.tests.findIndex(
      (test) =>
        test.reading.tool === 'ohms' &&
        test.points.some((point) => point.kind === 'core' && point.core === core && !point.far) &&
        test.points.some(
          (point) =>
            point.kind === 'elsewhere' || (point.kind === 'core' && point.far && point.core === core),
        ) &&
        typeof test.reading.value === 'number' &&
        test.reading.value <= 1,
    );
    return ends >= 0 ? [ends] : null;
  }

  /**
   * The lamp of a multi-location switch, in place: with this switch as it stands the far one puts it out, and
   * this one the other way about lights it again. Its current then runs over the one and the other traveler
   * in turn.
   *
   *     here up, far up: lit     here up, far down: dark     here down, far down: lit
   */
  private lampFollowsBoth(core: number): number[] | null {
    const net = this.problem.cores[core]?.net;
    const position = this.problem.positions.find(({ nets }) =>
      ['t1', 't2'].some((terminal) => nets.get(terminal) === net),
    );
    if (!position) return null;
    const near = String(position.index);
    const seen = this.tests.flatMap((test, index) => {
      const [point] = test.points;
      const own =
        test.reading.tool === 'lamp' && point?.kind === 'load' && position.loadIds.includes(point.loadId);
      return own && test.arrangement.kind === 'in-place' ? [{ test, index, load: point.loadId }] : [];
    });
    const isLit = ({ test }: (typeof seen)[number]) => test.reading.value === 'lit';
    for (const lit of seen.filter(isLit))
      for (const dark of seen.filter(
        (entry) => entry.test.reading.value === 'dark' && entry.load === lit.load,
      )) {
        const here = lit.test.arrangement.switches.get(near);
        if (here === undefined || dark.test.arrangement.switches.get(near) !== here) continue;
        if (!farSwitchDiffers(lit.test, dark.test) || !sameBreakers(lit.test, dark.test)) continue;
        const again = seen.find(
          (entry) =>
            isLit(entry) &&
            entry.load === lit.load &&
            entry.test.arrangement.switches.get(near) === !here &&
            !farSwitchDiffers(entry.test, dark.test) &&
            sameBreakers(entry.test, dark.test),
        );
        if (again) return [lit.index, dark.index, again.index];
      }
    return null;
  }

  /**
   * Dead, from the conductor to the same point: open with the far switch one way, through something with it
   * the other.
   */
  private ohmsThatChange(core: number): number[] | null {
    const own = this.tests.flatMap((test, index) =>
      test.reading.tool === 'ohms' &&
      test.points.some((point) => point.kind === 'core' && point.core === core)
        ? [index]
        : [],
    );
    for (const through of own)
      for (const open of own) {
        if (
          this.outcome(open) !== 'open' ||
          this.outcome(through) === 'open' ||
          this.outcome(through) === null
        )
          continue;
        if (onlyFarSwitchDiffers(entryAt(this.tests, through), entryAt(this.tests, open)))
          return [through, open];
      }
    return null;
  }

  /** Something named is dead when it is apart and alive when joined. */
  private onwardEvidence(core: number): number[] | null {
    const apart = (test: Test) =>
      (test.arrangement.kind === 'lifted' && test.arrangement.lifted.has(core)) ||
      test.arrangement.kind === 'parted';
    for (const [load, feed] of this.posterior.best.best.hidden.outside) {
      if (
        feed.through === null ||
        this.problem.cores[feed.through]?.cable !== this.problem.cores[core]?.cable
      )
        continue;
      const lamps = this.tests.flatMap((test, index) =>
        test.points[0]?.kind === 'load' && test.points[0].loadId === load ? [index] : [],
      );
      const lit = lamps.find(
        (index) => !apart(entryAt(this.tests, index)) && this.tests[index]?.reading.value === 'lit',
      );
      const dark = lamps.find(
        (index) => apart(entryAt(this.tests, index)) && this.tests[index]?.reading.value === 'dark',
      );
      if (lit !== undefined && dark !== undefined) return [lit, dark];
    }
    return null;
  }
}
