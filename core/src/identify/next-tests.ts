import type { Reading } from '../job/schema/survey.js';
import { coresOfTest } from './bearing.js';
import type { CoreGrade } from './grades.js';
import { bestWithRole, type Entry, type Posterior, roleOfCore } from './posterior.js';
import { arrangementOf } from './problem.js';
import type { Point, Problem, Test } from './vocabulary.js';

/** A test worth making next: what to arrange, where to read, how much it tells and how long it takes. */
export interface NextTest {
  tool: Reading['tool'];
  arrangement: Reading['arrangement'];
  position: number | null;
  lifted: string[];
  joined: string[];
  breakers: Record<string, 'on' | 'off'>;
  switches: Record<string, 'on' | 'off' | 'up' | 'down'>;
  boxes: Record<string, string>;
  loads: Record<string, string>;
  points: string[];
  gainBits: number;
  minutes: number;
  why: NextReason;
}

/** Why a test is proposed, as data; the sentence stands with the others. */
export interface NextReason {
  code: 'tells-most' | 'missing-evidence' | 'looks-ahead';
  subject: string;
  purpose: 'line' | 'gone' | 'load' | 'neutral' | 'ground' | 'traveler' | 'onward' | 'apart';
}

interface Candidate {
  test: Test;
  reason: NextReason;
  minutes: number;
  /** Dead tests go first at equal value. */
  dead: boolean;
}

/** Minutes a test costs: switching and proving shared where one arrangement serves several. */
const MINUTES = { inPlace: 1, ohmsDead: 2, indicatorOut: 3, clippedOut: 6, lifted: 7, lampsOut: 3 } as const;
/** Below this a test tells nothing worth a trip. */
const LEAST_GAIN = 0.005;
/** An outcome worth counting on, and how much likelier it has to be to rule a rival out. */
const LIKELY = 0.25;
const LIKELIER = 20;
/** What a test is worth beyond its information when it can supply evidence a grade asks for. */
const PROOF_BITS = 0.02;

/** A test with what it is worth a minute, by which those of all parts of a box are ranked. */
export type RankedTest = NextTest & { value: number };

export function byValue(a: RankedTest, b: RankedTest): number {
  return b.value - a.value || Number(b.tool === 'ohms') - Number(a.tool === 'ohms') || (keyOf(a) < keyOf(b) ? -1 : 1);
}

function keyOf(test: NextTest): string {
  return JSON.stringify([test.tool, test.arrangement, test.position, test.points, test.breakers, test.switches]);
}

/** Feasible tests by what they tell about the roles still needed, per minute; then those that supply evidence a grade asks for. */
export function nextTests(problem: Problem, posterior: Posterior, grades: readonly CoreGrade[], needed: ReadonlySet<number>): RankedTest[] {
  const open = [...needed].filter((core) => grades[core]?.grade !== 'confirmed');
  if (open.length === 0) return [];
  const done = new Map<string, number>();
  for (const test of posterior.likelihood.tests) done.set(test.key, (done.get(test.key) ?? 0) + 1);
  const contested = conflictKeys(posterior);
  const candidates = candidatesFor(problem, grades, open).filter(
    (candidate) => (done.get(candidate.test.key) ?? 0) < (contested.has(candidate.test.key) ? 3 : 1),
  );
  const gains = informationGains(
    posterior,
    topEntries(posterior),
    open,
    candidates.map((candidate) => candidate.test),
  );
  const tests = candidates.map((candidate) => candidate.test);
  const excluding = excludingTests(problem, posterior, grades, open, tests);
  const ranked = candidates.map((candidate, at) => {
    const gain = gains[at] as number;
    const proves = excluding.has(at) || serves(candidate, grades, open, problem);
    return { candidate, gain, proves, value: (gain + (proves ? PROOF_BITS : 0)) / candidate.minutes };
  });
  return ranked
    .filter(({ gain, proves }) => gain >= LEAST_GAIN || proves)
    .map(({ candidate, gain, value }) => ({ ...printed(candidate, gain, gain >= LEAST_GAIN ? 'tells-most' : 'missing-evidence'), value }))
    .sort(byValue)
    .slice(0, 8);
}

/** Ohms from a ground to a known earth: asked once for the box, its grounds being in one bundle. */
export function groundTest(problem: Problem, box: { positions: readonly { index: number }[] }): RankedTest[] {
  const [ground] = problem.grounds;
  if (!ground) return [];
  const off = Object.fromEntries(problem.circuits.flatMap((circuit) => (circuit.id ? [[circuit.id, 'off' as const]] : [])));
  const made = problem.tests.some((test) => test.reading.tool === 'ohms' && test.points.some((point) => point.kind === 'ground'));
  if (made) return [];
  return [
    {
      tool: 'ohms',
      arrangement: 'device-out',
      position: box.positions[0]?.index ?? null,
      lifted: [],
      joined: [],
      breakers: off,
      switches: {},
      boxes: {},
      loads: {},
      points: [ground.id, 'reference'],
      gainBits: 0,
      minutes: MINUTES.ohmsDead,
      why: { code: 'missing-evidence', subject: ground.id, purpose: 'ground' },
      value: PROOF_BITS / MINUTES.ohmsDead / 2,
    },
  ];
}

/**
 * Tests likely to rule out a rival that no meter reading has ruled out yet: their expected outcome is twenty times likelier under the
 * best explanation than under the best one that gives the conductor the rival role.
 */
function excludingTests(
  problem: Problem,
  posterior: Posterior,
  grades: readonly CoreGrade[],
  open: readonly number[],
  tests: readonly Test[],
): Set<number> {
  const found = new Set<number>();
  const expected = predicted(posterior, posterior.best, tests);
  for (const core of open) {
    const { missing, rival } = grades[core] as CoreGrade;
    const other = missing === 'rival' && rival ? bestWithRole(posterior, core, rival) : null;
    if (!other) continue;
    const under = predicted(posterior, other, tests);
    tests.forEach((test, at) => {
      if (test.reading.tool === 'indicator' || !coresOfTest(problem, posterior.best, test).has(core)) return;
      const row = expected[at] as Readonly<Record<string, number>>;
      for (const outcome in row)
        if ((row[outcome] as number) >= LIKELY && (row[outcome] as number) >= LIKELIER * (under[at]?.[outcome] ?? 0)) found.add(at);
    });
  }
  return found;
}

/** Tests that showed what the best explanation does not expect are worth making again. */
function conflictKeys(posterior: Posterior): Set<string> {
  const keys = new Set<string>();
  posterior.likelihood.tests.forEach((test, at) => {
    if ((posterior.best.best.each[at] as number) <= 0.02) keys.add(test.key);
  });
  return keys;
}

/** Whether a test can supply evidence that a grade of this core still asks for. */
function serves({ reason, test }: Candidate, grades: readonly CoreGrade[], open: readonly number[], problem: Problem): boolean {
  return open.some((core) => {
    const grade = grades[core];
    if (
      !grade ||
      !test.points.some(
        (point) => (point.kind === 'core' && problem.cores[point.core]?.net === problem.cores[core]?.net) || point.kind === 'load',
      )
    )
      return false;
    switch (grade.role) {
      case 'line':
        return reason.purpose === 'line' || reason.purpose === 'gone' || reason.purpose === 'apart';
      case 'load':
        return reason.purpose === 'load' || reason.purpose === 'line';
      case 'neutral':
        return reason.purpose === 'neutral';
      case 'traveler':
        return reason.purpose === 'traveler';
      case 'line-on':
        return reason.purpose === 'onward' || reason.purpose === 'apart';
      default:
        return false;
    }
  });
}

function candidatesFor(problem: Problem, grades: readonly CoreGrade[], open: readonly number[]): Candidate[] {
  const made: Candidate[] = [];
  const number = new Map(problem.cores.map((core, at) => [core.id, at]));
  const circuits = problem.circuits.flatMap((circuit) => circuit.id ?? []);
  const all = (state: 'on' | 'off') => Object.fromEntries(circuits.map((id) => [id, state])) as Record<string, 'on' | 'off'>;
  const add = (
    reading: Partial<Reading> & Pick<Reading, 'tool' | 'points' | 'arrangement'>,
    reason: NextReason,
    minutes: number,
    dead: boolean,
  ) => {
    const whole = { id: '', at: '', value: 'quiet', ...reading } as Reading;
    const arrangement = arrangementOf(whole, number);
    const points = whole.points.map((point): Point => pointOf(problem, number, whole.tool, point));
    made.push({
      test: { id: '', reading: whole, arrangement, points, key: `${whole.tool}|${[...whole.points].sort().join()}|${arrangement.key}` },
      reason,
      minutes,
      dead,
    });
  };
  const far = [...new Set(problem.positions.flatMap((position) => position.partners))];
  const farStates =
    far.length > 0
      ? [Object.fromEntries(far.map((key) => [key, 'up' as const])), Object.fromEntries(far.map((key) => [key, 'down' as const]))]
      : [{}];

  for (const position of problem.positions) {
    if (position.nets.size === 0) continue;
    const multi = position.existing === 'three-way' || position.existing === 'four-way';
    for (const load of position.loadIds)
      for (const state of multi ? (['up', 'down'] as const) : (['on', 'off'] as const))
        for (const away of farStates)
          add(
            {
              tool: 'lamp',
              arrangement: 'in-place',
              method: 'observed',
              breakers: all('on'),
              switches: { [String(position.index)]: state, ...away },
              points: [load],
            },
            { code: 'tells-most', subject: load, purpose: 'load' },
            MINUTES.inPlace,
            false,
          );
  }
  for (const core of new Set([...open, ...open.flatMap((entry) => netMates(problem, entry))])) {
    const id = problem.cores[core]?.id as string;
    const position = positionOf(problem, core);
    const opened = { arrangement: 'device-out' as const, ...(position === null ? {} : { position }) };
    const low = tripsAny(problem) ? ('volts' as const) : ('volts-low-z' as const);
    for (const switches of farStates) {
      const named = Object.keys(switches).length > 0 ? { switches } : {};
      add(
        { tool: 'indicator', method: 'non-contact', ...opened, ...named, breakers: all('on'), points: [id] },
        { code: 'tells-most', subject: id, purpose: 'line' },
        MINUTES.indicatorOut,
        false,
      );
      add(
        { tool: low, method: 'clipped', ...opened, ...named, breakers: all('on'), points: [id, 'reference'] },
        { code: 'tells-most', subject: id, purpose: far.length > 0 && grades[core]?.role === 'traveler' ? 'traveler' : 'line' },
        MINUTES.clippedOut,
        false,
      );
    }
    const usual = far.length > 0 ? { switches: farStates[0] as Record<string, 'up'> } : {};
    // Each breaker off alone tells whose line it is; all of them off tells that it is gone.
    for (const circuit of circuits)
      add(
        { tool: low, method: 'clipped', ...opened, ...usual, breakers: { ...all('on'), [circuit]: 'off' }, points: [id, 'reference'] },
        { code: 'tells-most', subject: id, purpose: 'gone' },
        MINUTES.clippedOut,
        false,
      );
    add(
      { tool: 'ohms', method: 'clipped', ...opened, ...usual, breakers: all('off'), points: [id, 'reference'] },
      { code: 'tells-most', subject: id, purpose: 'neutral' },
      MINUTES.ohmsDead,
      true,
    );
    const out = Object.fromEntries(problem.positions.flatMap((entry) => entry.loadIds).map((load) => [load, 'out']));
    // With every lamp out nothing but a neutral is near zero to earth.
    if (Object.keys(out).length > 0 && grades[core]?.role === 'neutral')
      add(
        { tool: 'ohms', method: 'clipped', ...opened, ...usual, breakers: all('off'), loads: out, points: [id, 'reference'] },
        { code: 'tells-most', subject: id, purpose: 'neutral' },
        MINUTES.ohmsDead + MINUTES.lampsOut,
        true,
      );
    for (const line of mostly(problem, grades, 'line'))
      if (line !== core && problem.cores[line]?.net !== problem.cores[core]?.net)
        add(
          { tool: low, method: 'clipped', ...opened, ...usual, breakers: all('on'), points: [problem.cores[line]?.id as string, id] },
          { code: 'tells-most', subject: id, purpose: 'neutral' },
          MINUTES.clippedOut,
          false,
        );
    for (const neutral of mostly(problem, grades, 'neutral').slice(0, 1))
      if (problem.cores[neutral]?.net !== problem.cores[core]?.net) {
        add(
          {
            tool: 'ohms',
            method: 'clipped',
            ...opened,
            ...usual,
            breakers: all('off'),
            points: [id, problem.cores[neutral]?.id as string],
          },
          { code: 'tells-most', subject: id, purpose: 'load' },
          MINUTES.ohmsDead,
          true,
        );
        const loads = Object.fromEntries(problem.positions.flatMap((entry) => entry.loadIds).map((load) => [load, 'out']));
        if (Object.keys(loads).length > 0)
          add(
            {
              tool: 'ohms',
              method: 'clipped',
              ...opened,
              ...usual,
              breakers: all('off'),
              loads,
              points: [id, problem.cores[neutral]?.id as string],
            },
            { code: 'tells-most', subject: id, purpose: 'load' },
            MINUTES.ohmsDead + MINUTES.lampsOut,
            true,
          );
      }
    // A load between two conductors of its own cable (no neutral there) is read across them, lamp in and lamp out.
    const cable = problem.cables[problem.cores[core]?.cable ?? -1]?.cores ?? [];
    if (grades[core]?.role === 'load')
      for (const mate of cable) {
        if (mate === core || grades[mate]?.role !== 'load') continue;
        const points = [id, problem.cores[mate]?.id as string];
        for (const loads of Object.keys(out).length > 0 ? [{}, out] : [{}])
          add(
            {
              tool: 'ohms',
              method: 'clipped',
              ...opened,
              ...usual,
              breakers: all('off'),
              ...(Object.keys(loads).length > 0 ? { loads } : {}),
              points,
            },
            { code: 'tells-most', subject: id, purpose: 'load' },
            MINUTES.ohmsDead + (Object.keys(loads).length > 0 ? MINUTES.lampsOut : 0),
            true,
          );
      }
    // Hot conductors of one joint are told apart one by one; neutrals are left joined.
    const mates = problem.nets[problem.cores[core]?.net ?? -1]?.cores ?? [];
    if (mates.length > 1 && mates.every((mate) => ['line', 'line-on', 'switched-line', 'spare'].includes(grades[mate]?.role ?? '')))
      for (const state of ['on', 'off'] as const)
        add(
          { tool: low, method: 'clipped', arrangement: 'lifted', lifted: [id], ...usual, breakers: all(state), points: [id, 'reference'] },
          { code: 'tells-most', subject: id, purpose: state === 'on' ? 'apart' : 'gone' },
          MINUTES.lifted,
          false,
        );
  }
  return unique(made);
}

/** Every test that is feasible in the box, whatever is known already; for checking that following the proposals loses nothing. */
export function everyTest(problem: Problem): NextTest[] {
  const cores = problem.cores.map((_, core) => core);
  const grades = (role: CoreGrade['role']) =>
    cores.map((): CoreGrade => ({ role, probability: 0.5, grade: 'guess', missing: 'reading', because: [], rival: null }));
  // Some tests are thought of only for what a conductor seems to be: asked as if each were each.
  const made = (['line', 'load', 'neutral', 'traveler'] as const).flatMap((role) => candidatesFor(problem, grades(role), cores));
  return unique(made).map((candidate) => printed(candidate, 0, 'tells-most'));
}

function unique(candidates: Candidate[]): Candidate[] {
  const seen = new Set<string>();
  return candidates.filter((candidate) => {
    if (seen.has(candidate.test.key)) return false;
    seen.add(candidate.test.key);
    return true;
  });
}

function netMates(problem: Problem, core: number): number[] {
  const net = problem.nets[problem.cores[core]?.net ?? -1];
  return net && net.cores.length <= 6 ? net.cores : [];
}

function mostly(problem: Problem, grades: readonly CoreGrade[], role: CoreGrade['role']): number[] {
  return problem.cores
    .flatMap((_, core) => (grades[core]?.role === role ? [core] : []))
    .sort((a, b) => (grades[b]?.probability ?? 0) - (grades[a]?.probability ?? 0));
}

/** The position whose device has to be out for a core to be read alone: the one its net hangs on. */
function positionOf(problem: Problem, core: number): number | null {
  const net = problem.nets[problem.cores[core]?.net ?? -1];
  const own = net?.terminals[0]?.position;
  if (own !== undefined) return own;
  return problem.positions.find((position) => position.nets.size > 0)?.index ?? null;
}

function tripsAny(problem: Problem): boolean {
  return problem.trips.size > 0;
}

function pointOf(problem: Problem, number: ReadonlyMap<string, number>, tool: Reading['tool'], point: string): Point {
  if (tool === 'lamp') return { kind: 'load', loadId: point };
  if (point === 'reference') return { kind: 'reference' };
  if (point === 'box') return { kind: 'box' };
  const core = number.get(point);
  return core === undefined
    ? problem.grounds.some((ground) => ground.id === point)
      ? { kind: 'ground', id: point }
      : { kind: 'elsewhere' }
    : { kind: 'core', core };
}

interface Sample {
  at: number;
  weight: number;
}

/** The explanations that carry all but a thousandth of the weight. */
function topEntries(posterior: Posterior): Sample[] {
  const order = posterior.entries.map((entry, at) => ({ at, weight: entry.weight / posterior.total })).sort((a, b) => b.weight - a.weight);
  const kept: Sample[] = [];
  let sum = 0;
  for (const sample of order) {
    kept.push(sample);
    sum += sample.weight;
    if (sum > 0.999 || kept.length >= 200) break;
  }
  return kept.map((sample) => ({ ...sample, weight: sample.weight / sum }));
}

/** Bits each test is expected to tell about the roles of the cores still open. */
function informationGains(posterior: Posterior, sample: readonly Sample[], open: readonly number[], tests: readonly Test[]): number[] {
  const joint = tests.map(() => ({
    groups: new Map<string, { weight: number; outcomes: Map<string, number> }>(),
    total: new Map<string, number>(),
  }));
  for (const { at, weight } of sample) {
    const entry = posterior.entries[at] as Entry;
    const signature = open.map((core) => roleOfCore(entry.explanation, core)).join();
    predicted(posterior, entry, tests).forEach((row, index) => {
      const { groups, total } = joint[index] as (typeof joint)[number];
      const group = groups.get(signature) ?? { weight: 0, outcomes: new Map<string, number>() };
      groups.set(signature, group);
      group.weight += weight;
      for (const outcome in row) {
        const share = weight * (row[outcome] as number);
        group.outcomes.set(outcome, (group.outcomes.get(outcome) ?? 0) + share);
        total.set(outcome, (total.get(outcome) ?? 0) + share);
      }
    });
  }
  return joint.map(({ groups, total }) => {
    if (groups.size < 2) return 0;
    let gain = 0;
    for (const { weight, outcomes } of groups.values())
      for (const [outcome, share] of outcomes)
        if (share > 1e-15) gain += share * Math.log2(share / (weight * (total.get(outcome) as number)));
    return Math.max(0, gain);
  });
}

const UNKNOWN_LAMP = { lit: 0.5, dim: 0.05, dark: 0.45 };

function predicted(posterior: Posterior, { explanation, best }: Entry, tests: readonly Test[]): Readonly<Record<string, number>>[] {
  const own = new Set([...explanation.loadsOfCore.flat(), ...explanation.loadsOfCable.flat()]);
  return posterior.likelihood.predict(explanation, tests, best.hidden).map((row, at) => {
    const [point] = (tests[at] as Test).points;
    return point?.kind === 'load' && !own.has(point.loadId) ? UNKNOWN_LAMP : row;
  });
}

function printed({ test, reason, minutes }: Candidate, gain: number, code: NextReason['code']): NextTest {
  const { reading } = test;
  return {
    tool: reading.tool,
    arrangement: reading.arrangement,
    position: reading.position ?? null,
    lifted: reading.lifted ?? [],
    joined: reading.joined ?? [],
    breakers: reading.breakers ?? {},
    switches: reading.switches ?? {},
    boxes: reading.boxes ?? {},
    loads: reading.loads ?? {},
    points: reading.points,
    gainBits: Math.round(gain * 1e4) / 1e4,
    minutes,
    why: { ...reason, code },
  };
}
