import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box, Conductor } from '../job/schema/survey.js';
import { stopsFromReadings } from '../power/box-stops.js';
import { looksLikeGround } from '../practice/wire.js';
import { entryAt } from '../units/entry-at.js';
import {
  byValue,
  groundTest,
  isSampled,
  type NextTest,
  nextTests,
  type RankedTest,
} from './asking/next-tests.js';
import { type Conflict, conflictsOf } from './judging/conflicts.js';
import { type CoreGrade, type Grade, gradesOf, type Missing } from './judging/grades.js';
import { type GroundGrade, groundGrades } from './judging/ground-grades.js';
import { colourPrior } from './problem/priors.js';
import { problemOf } from './problem/problem.js';
import { splitBox } from './problem/split.js';
import { type CoreClass, type Problem, ROLE_OF, ROLES } from './problem/vocabulary.js';
import { type Posterior, posteriorOf } from './weighing/posterior.js';

export interface IdentifiedConductor {
  id: string;
  role: Role;
  /** Of the role, rounded to nothing: the alternatives with it sum to 1. */
  probability: number;
  grade: Grade;
  loadIds: string[];
  circuitId: string | null;
  alternatives: { role: Role; probability: number }[];
  /** Readings the grade rests on, and what it still lacks. */
  because: string[];
  missing: Missing | null;
  /** The role that no meter reading has ruled out yet, when that is what is missing. */
  rival: Role | null;
}

export interface IdentifyConflict {
  readingIds: string[];
  open: boolean;
}

export interface IdentifyNote {
  code:
    | 'no-supply-seen'
    | 'cap-reached'
    | 'tests-estimated'
    | 'cannot-tell'
    | 'no-usual-wiring'
    | 'passes-through'
    | 'live-while-off'
    | 'reversed-polarity';
  conductorIds: string[];
}

export interface Identification {
  boxId: string;
  conductors: IdentifiedConductor[];
  conflicts: IdentifyConflict[];
  next: NextTest[];
  notes: IdentifyNote[];
  summary: Record<'line' | 'load' | 'neutral' | 'ground', Grade | 'absent' | 'unknown'>;
}

/**
 * What every conductor of a box is, how surely, what contradicts, and which test tells most next. Labels are
 * not evidence.
 *
 *     pieces -> problem -> explanations -> posterior -> conflicts, grades -> next tests
 */
export function identifyBox(box: Box, known: JobLookup): Identification {
  const pieces = splitBox(box).map((piece) => identifyPiece(piece, known, box));
  const { problem } = problemOf(box, known);
  const grounds = groundGrades(problem, problem.tests);
  const byId = new Map(
    pieces.flatMap((piece) => piece.conductors).map((conductor) => [conductor.id, conductor]),
  );
  const conductors = inOrder(box, byId, problem);
  const groundOpen =
    grounds.length > 0 && grounds.every((ground) => ground.grade === 'guess') && groundsWanted(box, known);
  const next = [
    ...pieces.flatMap((piece) => piece.next),
    ...(groundOpen && !problem.alive ? groundTest(problem, box) : []),
  ]
    .sort(byValue)
    .slice(0, 8);
  return {
    boxId: box.id,
    conductors,
    conflicts: pieces.flatMap((piece) => piece.conflicts),
    next: next.map(({ value, ...test }) => test),
    notes: [...stopNotes(box, known), ...noSupply(problem), ...pieces.flatMap((piece) => piece.notes)],
    summary: summaryOf(conductors),
  };
}

/** The roles alone, without the tests that would tell more. */
export function rolesOfBox(box: Box, known: JobLookup): IdentifiedConductor[] {
  const pieces = splitBox(box).map((piece) => weigh(piece, known, box));
  const byId = new Map(
    pieces.flatMap((piece) => conductorsOf(piece)).map((conductor) => [conductor.id, conductor]),
  );
  return inOrder(box, byId, problemOf(box, known).problem);
}

/** Every conductor of the box in its order, the grounds by themselves. */
function inOrder(
  box: Box,
  byId: ReadonlyMap<string, IdentifiedConductor>,
  problem: Problem,
): IdentifiedConductor[] {
  const grounds = new Map(
    groundGrades(problem, problem.tests).map((ground) => [ground.id, groundResult(ground, problem)]),
  );
  return box.conductors.flatMap((conductor) => grounds.get(conductor.id) ?? byId.get(conductor.id) ?? []);
}

/** A piece of a box with its explanations weighed. */
interface Weighed {
  box: Box;
  problem: Problem;
  posterior: Posterior | null;
  conflicts: Conflict[];
  grades: CoreGrade[];
}

function weigh(box: Box, known: JobLookup, whole: Box): Weighed {
  const { problem, wiring } = problemOf(box, known, whole);
  const posterior = posteriorOf(problem, wiring);
  const conflicts = posterior ? conflictsOf(problem, posterior) : [];
  return {
    box,
    problem,
    posterior,
    conflicts,
    grades: posterior ? gradesOf(problem, posterior, conflicts) : [],
  };
}

function conductorsOf({ box, problem, posterior, grades }: Weighed): IdentifiedConductor[] {
  return box.conductors
    .filter((conductor) => conductor.cableId !== undefined && !looksLikeGround(conductor))
    .map((conductor) => conductorResult(conductor, problem, posterior, grades));
}

interface PieceResult extends Pick<Identification, 'conductors' | 'conflicts' | 'notes'> {
  next: RankedTest[];
}

function identifyPiece(box: Box, known: JobLookup, whole: Box): PieceResult {
  const weighed = weigh(box, known, whole);
  const { problem, posterior, conflicts, grades } = weighed;
  const needed = neededCores(box, problem, posterior, grades, known);
  const next = posterior ? nextTests(problem, posterior, grades, needed) : [];
  return {
    conductors: conductorsOf(weighed),
    conflicts: conflictResults(problem, conflicts),
    next,
    notes: notesOf(weighed, needed, next),
  };
}

/** From this probability a role that is needed has to be settled. */
const WANTED_FROM = 0.02;

/**
 * Line, load and neutral are needed where the chosen devices want them; all of them while nothing is chosen.
 */
function neededCores(
  box: Box,
  problem: Problem,
  posterior: Posterior | null,
  grades: readonly CoreGrade[],
  known: JobLookup,
): ReadonlySet<number> {
  const { devices, open } = chosenDevices(box, known);
  const neutral = open || devices.some((device) => device.needs.neutral);
  const interchangeable = !open && devices.every((device) => device.interchangeableLineLoad);
  const roles = new Set<string>([
    ...(interchangeable ? [] : ['line', 'load']),
    ...(neutral ? ['neutral'] : []),
    'traveler',
  ]);
  // A core that may well be one of them is wanted too, though another role leads for now.
  const share = (core: number) =>
    ROLES.reduce((sum, role) => sum + (roles.has(role) ? (posterior?.after[core]?.[role] ?? 0) : 0), 0);
  return new Set(
    problem.cores.flatMap((_, core) =>
      roles.has(grades[core]?.role ?? '') || share(core) >= WANTED_FROM ? [core] : [],
    ),
  );
}

/** `open`: something is still to be chosen, so every role may be wanted. */
function chosenDevices(box: Box, known: JobLookup) {
  const devices = box.positions.flatMap(
    (position) =>
      known.devices.get(known.selections.get(placeKey(box.id, position.index))?.deviceId ?? '') ?? [],
  );
  const wanted = box.positions.filter((position) => position.need?.smart).length;
  return { devices, open: devices.length === 0 || devices.length < wanted };
}

function groundsWanted(box: Box, known: JobLookup): boolean {
  const { devices, open } = chosenDevices(box, known);
  return open || devices.some((device) => device.terminals.some((terminal) => terminal.role === 'ground'));
}

function groundResult(ground: GroundGrade, problem: Problem): IdentifiedConductor {
  const { probability, grade } = ground;
  const isGround = probability >= 0.5;
  return {
    id: ground.id,
    role: isGround ? 'ground' : 'spare',
    probability: isGround ? probability : 1 - probability,
    grade,
    loadIds: [],
    circuitId: null,
    alternatives: [
      isGround ? { role: 'spare', probability: 1 - probability } : { role: 'ground', probability },
    ],
    because: ground.because.map((test) => problem.tests[test]?.id ?? ''),
    missing: grade === 'confirmed' ? null : 'reading',
    rival: null,
  };
}

function conductorResult(
  conductor: Conductor,
  problem: Problem,
  posterior: Posterior | null,
  grades: readonly CoreGrade[],
): IdentifiedConductor {
  const core = problem.cores.findIndex((entry) => entry.id === conductor.id);
  const grade = grades[core];
  if (core < 0 || !grade || !posterior) return byColourAlone(conductor, problem);
  const shares = entryAt(posterior.after, core);
  return {
    id: conductor.id,
    role: grade.role,
    probability: grade.probability,
    grade: grade.grade,
    loadIds: grade.role === 'load' ? likelyLoads(posterior, core) : [],
    circuitId:
      grade.role === 'line' || grade.role === 'neutral'
        ? likelyCircuit(problem, posterior, core, grade.role)
        : null,
    alternatives: ROLES.map((role) => ({ role, probability: shares[role] }))
      .filter((entry) => entry.role !== grade.role && entry.probability > 0)
      .sort((a, b) => b.probability - a.probability),
    because: grade.because.map((test) => problem.tests[test]?.id ?? ''),
    missing: grade.missing,
    rival: grade.rival,
  };
}

/** A conductor that passes through unbroken ends nowhere here: only its looks speak. */
function byColourAlone(conductor: Conductor, problem: Problem): IdentifiedConductor {
  const classes: [CoreClass, number][] = [
    ['line', 0.5],
    ['load', 0.1],
    ['neutral-in', 0.3],
    ['traveler', 0.05],
    ['spare', 0.05],
  ];
  const weights = classes.map(([name, prior]) => ({
    role: ROLE_OF[name],
    weight: prior * colourPrior(problem.practice, name, conductor.colour, false),
  }));
  const total = weights.reduce((sum, entry) => sum + entry.weight, 0);
  const shares = weights
    .map((entry) => ({ role: entry.role, probability: entry.weight / total }))
    .sort((a, b) => b.probability - a.probability);
  return {
    id: conductor.id,
    ...entryAt(shares, 0),
    grade: 'guess',
    loadIds: [],
    circuitId: null,
    alternatives: shares.slice(1),
    because: [],
    missing: 'reading',
    rival: null,
  };
}

function likelyLoads(posterior: Posterior, core: number): string[] {
  const shares = new Map<string, { loads: readonly string[]; weight: number }>();
  let total = 0;
  for (const { explanation, weight } of posterior.entries) {
    if (explanation.classes[core] !== 'load') continue;
    const loads = explanation.loadsOfCore[core] ?? [];
    const key = [...loads].sort().join();
    const known = shares.get(key) ?? { loads, weight: 0 };
    known.weight += weight;
    total += weight;
    shares.set(key, known);
  }
  const best = [...shares.values()].sort((a, b) => b.weight - a.weight)[0];
  return best && best.weight / total >= 0.5 ? [...best.loads] : [];
}

/**
 * A line's circuit where one stands out; a neutral's only where its cable holds a line of exactly one
 * circuit.
 */
function likelyCircuit(
  problem: Problem,
  posterior: Posterior,
  core: number,
  role: 'line' | 'neutral',
): string | null {
  const shares = new Map<number, number>();
  let total = 0;
  for (const { explanation, weight } of posterior.entries) {
    if (ROLE_OF[entryAt(explanation.classes, core)] !== role) continue;
    total += weight;
    const circuit = explanation.circuitOfCore[core];
    if (circuit !== null && circuit !== undefined) shares.set(circuit, (shares.get(circuit) ?? 0) + weight);
  }
  for (const [circuit, weight] of shares)
    if (total > 0 && weight / total >= 0.9) return problem.circuits[circuit]?.id ?? null;
  return null;
}

/** Pairs that clash stand once; a reading without a counterpart stands alone. */
function conflictResults(problem: Problem, conflicts: readonly Conflict[]): IdentifyConflict[] {
  const results = new Map<string, IdentifyConflict>();
  for (const { test, clashes, open } of conflicts) {
    const readingIds = [test, ...clashes].map((at) => problem.tests[at]?.id ?? '');
    const key = [...readingIds].sort().join();
    const known = results.get(key);
    if (known) known.open ||= open;
    else results.set(key, { readingIds, open });
  }
  return [...results.values()];
}

function notesOf(
  { box, problem, posterior, grades }: Weighed,
  needed: ReadonlySet<number>,
  next: readonly RankedTest[],
): IdentifyNote[] {
  const notes: IdentifyNote[] = [];
  const idsOf = (cores: Iterable<number>) => [...cores].map((core) => problem.cores[core]?.id ?? '');
  if (posterior?.enumeration.capped)
    notes.push({ code: 'cap-reached', conductorIds: idsOf(problem.cores.keys()) });
  // Before anything was read the first look is proposed whatever it tells.
  if (posterior && next.length > 0 && next[0]?.why.code !== 'first-look' && isSampled(posterior))
    notes.push({ code: 'tests-estimated', conductorIds: [] });
  if (!posterior && problem.cores.length > 0)
    notes.push({ code: 'no-usual-wiring', conductorIds: idsOf(problem.cores.keys()) });
  const open = [...needed].filter(
    (core) => grades[core]?.grade !== 'confirmed' && grades[core]?.role !== 'line-on',
  );
  if (open.length > 0 && next.length === 0) notes.push({ code: 'cannot-tell', conductorIds: idsOf(open) });
  const through = box.conductors.filter(
    (conductor) =>
      conductor.unbroken === true && conductor.cableId !== undefined && !looksLikeGround(conductor),
  );
  if (through.length > 0)
    notes.push({ code: 'passes-through', conductorIds: through.map((conductor) => conductor.id) });
  return notes;
}

/**
 * What the readings alone stop the work for; no dead test is proposed while something is alive with every
 * breaker off.
 */
function stopNotes(box: Box, known: JobLookup): IdentifyNote[] {
  const stops = stopsFromReadings(box, known.job);
  return (['live-while-off', 'reversed-polarity'] as const).flatMap((code) => {
    const own = stops.filter((stop) => stop.code === code);
    return own.length > 0
      ? [{ code, conductorIds: [...new Set(own.flatMap(({ conductorIds }) => conductorIds))] }]
      : [];
  });
}

/** Every conductor read, with a breaker on, and every one quiet: a note, never a role. */
function noSupply(problem: Problem): IdentifyNote[] {
  const live = problem.tests.filter(
    (test) =>
      [...test.arrangement.breakers.values()].some(Boolean) &&
      (test.reading.tool === 'indicator' || test.reading.tool.startsWith('volts')),
  );
  const quiet = live.filter(
    (test) =>
      test.reading.value === 'quiet' || (typeof test.reading.value === 'number' && test.reading.value < 3),
  );
  const asked = new Set(
    quiet.flatMap((test) => test.points.flatMap((point) => (point.kind === 'core' ? [point.core] : []))),
  );
  const lit = problem.tests.some((test) => test.reading.tool === 'lamp' && test.reading.value !== 'dark');
  if (live.length === 0 || lit || quiet.length < live.length || asked.size < problem.cores.length) return [];
  return [{ code: 'no-supply-seen', conductorIds: problem.cores.map((core) => core.id) }];
}

const WEAKEST: Grade[] = ['guess', 'indicated', 'confirmed'];

function summaryOf(conductors: readonly IdentifiedConductor[]): Identification['summary'] {
  const explained = conductors.length > 0 && conductors.every((conductor) => conductor.grade !== 'guess');
  const of = (role: Role): Grade | 'absent' | 'unknown' => {
    const own = conductors.filter((conductor) => conductor.role === role && conductor.probability >= 0.5);
    if (own.length > 0)
      return entryAt(WEAKEST, Math.min(...own.map((conductor) => WEAKEST.indexOf(conductor.grade))));
    return explained ? 'absent' : 'unknown';
  };
  return { line: of('line'), load: of('load'), neutral: of('neutral'), ground: of('ground') };
}
