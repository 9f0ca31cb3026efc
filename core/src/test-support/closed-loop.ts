import type { Identification } from '../identify/answer.js';
import { everyTest, type NextTest } from '../identify/asking/next-tests.js';
import { identifyBox } from '../identify/identify.js';
import { problemOf } from '../identify/problem/problem.js';
import { lookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { Random } from './random.js';
import { type Asked, type RealBox, realBox, SITUATIONS } from './real-box.js';

/** What came of a box whose every proposed test was answered truly. */
export interface ClosedLoop {
  name: string;
  steps: number;
  /** How often the test asked most often was asked. */
  asked: number;
  /** Conductors confirmed as what they are not. */
  wrong: string[];
  /** Needed conductors that stayed open although the evidence allows to confirm them. */
  leftBehind: string[];
  /** Whether a conflict was reported among true readings on the way. */
  conflict: boolean;
  first: NextTest | undefined;
}

const NEEDED: ReadonlySet<string> = new Set(['line', 'load', 'neutral', 'traveler']);
const MOST_STEPS = 80;

/** A box in some practice and situation: every situation comes up in turn. */
export function someRealBox(seed: number): RealBox {
  const random = new Random(seed * 7919);
  const situation = SITUATIONS[seed % SITUATIONS.length] as (typeof SITUATIONS)[number];
  return realBox(random, random.pick(situation.practices), situation);
}

/** Makes every proposed test, one after the other, until none is proposed. */
export function closeTheLoop(real: RealBox): ClosedLoop {
  let { box } = real;
  const look = (of: Box) => identifyBox(of, lookup({ ...real.job, boxes: [of, ...real.job.boxes.slice(1)] }));
  let result = look(box);
  const first = result.next[0];
  const asked = new Map<string, number>();
  let conflict = false;
  let steps = 0;
  for (; steps < MOST_STEPS && result.next[0]; steps++) {
    const [next] = result.next;
    const { gainBits, minutes, why, ...what } = next;
    const key = JSON.stringify(what);
    asked.set(key, (asked.get(key) ?? 0) + 1);
    box = { ...box, readings: [...box.readings, real.answer(next as Asked, `m${steps}`)] };
    result = look(box);
    conflict ||= result.conflicts.length > 0;
  }
  const isRight = ({ id, role }: Identification['conductors'][number]) =>
    (real.truth.get(id) ?? role) === role;
  return {
    name: real.name,
    steps,
    asked: Math.max(0, ...asked.values()),
    wrong: result.conductors
      .filter((entry) => entry.grade === 'confirmed' && !isRight(entry))
      .map(({ id }) => id),
    leftBehind: leftBehind(real, box, result, look),
    conflict,
    first,
  };
}

/** What all feasible tests together would have confirmed, and following the proposals did not. */
function leftBehind(
  real: RealBox,
  box: Box,
  result: Identification,
  look: (box: Box) => Identification,
): string[] {
  const open = result.conductors.filter(
    ({ id, grade }) => grade !== 'confirmed' && NEEDED.has(real.truth.get(id) ?? ''),
  );
  if (open.length === 0) return [];
  const { problem } = problemOf(real.box, lookup(real.job));
  const every = everyTest(problem).map((next, at) => real.answer(next as Asked, `e${at}`));
  const whole = look({ ...box, readings: [...box.readings, ...every] });
  const allowed = new Set(whole.conductors.flatMap(({ id, grade }) => (grade === 'confirmed' ? [id] : [])));
  return open.flatMap(({ id }) => (allowed.has(id) ? [id] : []));
}
