import type { Reading } from '../../job/schema/survey.js';
import { entryAt } from '../../units/entry-at.js';
import type { CoreGrade } from '../judging/grades.js';
import { SameTest } from '../judging/same-test.js';
import type { Problem } from '../problem/vocabulary.js';
import type { Posterior } from '../weighing/posterior.js';
import { type Candidate, candidatesFor, MINUTES, type NextReason, unique } from './candidates.js';
import { excludingTests, serves, servesWell } from './evidence-served.js';
import { gainsOf, predicted } from './gains.js';

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

/** Below this a test tells nothing worth a trip. */
const LEAST_GAIN = 0.005;
const LEAST_GAIN_OF_TWO = 0.02;
/** Pairs grow with the square of what is looked at; the cheapest tests come first. */
const MOST_LOOKED_AHEAD = 24;
/** What a test is worth beyond its information when it can supply evidence a grade asks for. */
const PROOF_BITS = 0.02;

/** A test with what it is worth a minute, by which those of all parts of a box are ranked. */
export type RankedTest = NextTest & { value: number };

export function byValue(a: RankedTest, b: RankedTest): number {
  return (
    b.value - a.value ||
    Number(b.tool === 'ohms') - Number(a.tool === 'ohms') ||
    (keyOf(a) < keyOf(b) ? -1 : 1)
  );
}

function keyOf(test: NextTest): string {
  return JSON.stringify([
    test.tool,
    test.arrangement,
    test.position,
    test.points,
    test.breakers,
    test.switches,
  ]);
}

/**
 * Feasible tests by what they tell about the roles still needed, per minute; then those that supply evidence
 * a grade asks for.
 */
export function nextTests(
  problem: Problem,
  posterior: Posterior,
  grades: readonly CoreGrade[],
  needed: ReadonlySet<number>,
): RankedTest[] {
  const open = [...needed].filter((core) => grades[core]?.grade !== 'confirmed');
  if (open.length === 0) return [];
  const same = new SameTest(posterior);
  const done = new Map<string, number>();
  for (const test of posterior.likelihood.tests)
    done.set(same.keyOf(test), (done.get(same.keyOf(test)) ?? 0) + 1);
  const contested = conflictKeys(posterior, same);
  // Made once is made; twice where it is contested, and never a third time.
  const undone = ({ test }: Candidate) =>
    (done.get(same.keyOf(test)) ?? 0) < (contested.has(same.keyOf(test)) ? 2 : 1);
  const usual = candidatesFor(problem, grades, open).filter(undone);
  const weigh = (candidates: readonly Candidate[], serving: boolean) => {
    const tests = candidates.map((candidate) => candidate.test);
    const gains = gainsOf(posterior, open, (entry) => predicted(posterior, entry, tests));
    const excluding = excludingTests(problem, posterior, grades, open, tests);
    return candidates.flatMap((candidate, at): RankedTest[] => {
      const gain = gains[at] ?? 0;
      // What rules a rival out and is the evidence asked for, too, saves a second test.
      const proves =
        (excluding.get(at) ?? 0) +
        (serving && serves(candidate, grades, open, problem) ? servesWell(candidate, problem) : 0);
      if (gain < LEAST_GAIN && proves === 0) return [];
      const value = (gain + proves * PROOF_BITS) / candidate.minutes;
      return [{ ...printed(candidate, gain, gain >= LEAST_GAIN ? 'tells-most' : 'missing-evidence'), value }];
    });
  };
  const found = weigh(usual, true);
  if (isUnread(posterior)) {
    const first = firstLooks(usual, found);
    if (first.length > 0) return best([...first, ...found.filter((test) => test.tool !== 'indicator')]);
  }
  if (found.length > 0) return best(found);
  const ahead = twoAhead(posterior, usual, open);
  if (ahead.length > 0) return best(ahead);
  // Before giving up: what would be thought of if each conductor were each role, where it tells something by
  // itself.
  return best(weigh(everyCandidate(problem, open).filter(undone), false));
}

/** Nobody has looked yet whether anything here is fed. */
function isUnread({ likelihood }: Posterior): boolean {
  return !likelihood.tests.some(
    ({ reading, arrangement }) =>
      (reading.tool === 'indicator' || reading.tool.startsWith('volts')) &&
      [...arrangement.breakers.values()].includes(true),
  );
}

/**
 * What is worth more than any information before anything was read: which conductor is fed, by which breaker,
 * or that none is.
 */
const FIRST_LOOK = 1000;

/** The indicator over the conductors, device out, breakers on; where it tells most first. */
function firstLooks(usual: readonly Candidate[], found: readonly RankedTest[]): RankedTest[] {
  const looks = usual.filter(({ test }) => test.reading.tool === 'indicator');
  return looks.map((look) => {
    const printedLook = printed({ ...look, reason: { ...look.reason, purpose: 'fed' } }, 0, 'first-look');
    const ranked = found.find((test) => keyOf(test) === keyOf(printedLook));
    return { ...printedLook, gainBits: ranked?.gainBits ?? 0, value: FIRST_LOOK + (ranked?.value ?? 0) };
  });
}

function best(tests: readonly RankedTest[]): RankedTest[] {
  return [...tests].sort(byValue).slice(0, 8);
}

/**
 * When no test tells anything alone: the first of two that tell something together, by what both tell a
 * minute.
 */
function twoAhead(
  posterior: Posterior,
  candidates: readonly Candidate[],
  open: readonly number[],
): RankedTest[] {
  const looked = [...candidates].sort((a, b) => a.minutes - b.minutes).slice(0, MOST_LOOKED_AHEAD);
  const pairs = looked.flatMap((first, at) => looked.slice(at + 1).map((second) => [first, second] as const));
  const gains = gainsOf(posterior, open, (entry) => {
    const rows = new Map(
      predicted(
        posterior,
        entry,
        looked.map(({ test }) => test),
      ).map((row, at) => [entryAt(looked, at), row]),
    );
    return pairs.map(([first, second]) => together(rows.get(first) ?? {}, rows.get(second) ?? {}));
  });
  const firsts = new Map<Candidate, RankedTest>();
  pairs.forEach(([first, second], at) => {
    const gain = gains[at] ?? 0;
    const value = gain / (first.minutes + second.minutes);
    if (gain < LEAST_GAIN_OF_TWO || value <= (firsts.get(first)?.value ?? 0)) return;
    firsts.set(first, { ...printed(first, gain, 'looks-ahead'), value });
  });
  return [...firsts.values()];
}

/** Outcomes of two tests made one after the other, apart under one explanation. */
function together(
  one: Readonly<Record<string, number>>,
  other: Readonly<Record<string, number>>,
): Record<string, number> {
  const both: Record<string, number> = {};
  for (const first in one)
    for (const second in other) both[`${first}&${second}`] = (one[first] ?? 0) * (other[second] ?? 0);
  return both;
}

/** Ohms from a ground to a known earth: asked once for the box, its grounds being in one bundle. */
export function groundTest(problem: Problem, box: { positions: readonly { index: number }[] }): RankedTest[] {
  const [ground] = problem.grounds;
  if (!ground) return [];
  const off = Object.fromEntries(
    problem.circuits.flatMap((circuit) => (circuit.id ? [[circuit.id, 'off' as const]] : [])),
  );
  const made = problem.tests.some(
    (test) => test.reading.tool === 'ohms' && test.points.some((point) => point.kind === 'ground'),
  );
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

/** Tests that showed what the best explanation does not expect are worth making again. */
function conflictKeys(posterior: Posterior, same: SameTest): Set<string> {
  const keys = new Set<string>();
  posterior.likelihood.tests.forEach((test, at) => {
    if ((posterior.best.best.each[at] ?? 0) <= 0.02) keys.add(same.keyOf(test));
  });
  return keys;
}

/**
 * Every test that is feasible in the box, whatever is known already; for checking that following the
 * proposals loses nothing.
 */
export function everyTest(problem: Problem): NextTest[] {
  const cores = problem.cores.map((_, core) => core);
  return everyCandidate(problem, cores).map((candidate) => printed(candidate, 0, 'tells-most'));
}

/** Some tests are thought of only for what a conductor seems to be: asked as if each were each. */
function everyCandidate(problem: Problem, open: readonly number[]): Candidate[] {
  const as = (role: CoreGrade['role']) =>
    problem.cores.map(
      (): CoreGrade => ({
        role,
        probability: 0.5,
        grade: 'guess',
        missing: 'reading',
        because: [],
        rival: null,
        isEvidenced: false,
      }),
    );
  return unique(
    (['line', 'load', 'neutral', 'traveler'] as const).flatMap((role) =>
      candidatesFor(problem, as(role), open),
    ),
  );
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
