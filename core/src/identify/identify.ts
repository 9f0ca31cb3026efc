import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box, Conductor } from '../job/schema/survey.js';
import { looksLikeGround } from '../practice/wire.js';
import { type Conflict, conflictsOf } from './conflicts.js';
import { type CoreGrade, type Grade, type GroundGrade, gradesOf, groundGrades, type Missing } from './grades.js';
import { type NextTest, nextTests, type Wanted } from './next-tests.js';
import { type Posterior, posteriorOf } from './posterior.js';
import { colourPrior } from './priors.js';
import { problemOf } from './problem.js';
import { type CoreClass, type Problem, ROLE_OF, ROLES } from './vocabulary.js';

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
}

export interface IdentifyConflict {
  readingIds: string[];
  open: boolean;
}

export interface IdentifyNote {
  code: 'no-supply-seen' | 'cap-reached' | 'cannot-tell' | 'no-usual-wiring' | 'passes-through';
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
 * What every conductor of a box is, how surely, what contradicts, and which test tells most next. Labels are not evidence.
 *
 *     problem -> explanations -> posterior -> conflicts, grades -> next tests
 */
export function identifyBox(box: Box, known: JobLookup): Identification {
  const { problem, wiring } = problemOf(box, known);
  const posterior = posteriorOf(problem, wiring);
  const conflicts = posterior ? conflictsOf(problem, posterior) : [];
  const grades = posterior ? gradesOf(problem, posterior, conflicts) : [];
  const grounds = groundGrades(problem, problem.tests);
  const need = needOf(box, problem, grades, known);
  const next = posterior ? nextTests(problem, posterior, grades, grounds, need) : [];
  const conductors = box.conductors
    .filter((conductor) => conductor.cableId !== undefined)
    .map((conductor) => conductorResult(conductor, problem, posterior, grades, grounds));
  return {
    boxId: box.id,
    conductors,
    conflicts: conflictResults(problem, conflicts),
    next,
    notes: notesOf(problem, posterior, grades, need, next, box),
    summary: summaryOf(conductors),
  };
}

/** Line, load and neutral are needed where the chosen devices want them; all of them while nothing is chosen. */
function needOf(box: Box, problem: Problem, grades: readonly CoreGrade[], known: JobLookup): Wanted {
  const devices = box.positions.flatMap((position) => {
    const id = known.selections.get(placeKey(box.id, position.index))?.deviceId;
    const device = id ? known.devices.get(id) : undefined;
    return device ? [device] : [];
  });
  const open =
    box.positions.length === 0 || devices.length < box.positions.filter((position) => position.need?.smart).length || devices.length === 0;
  const neutral = open || devices.some((device) => device.needs.neutral);
  const interchangeable = devices.length > 0 && !open && devices.every((device) => device.interchangeableLineLoad);
  const roles = new Set<string>([...(interchangeable ? [] : ['line', 'load']), ...(neutral ? ['neutral'] : []), 'traveler']);
  const cores = new Set(problem.cores.flatMap((_, core) => (roles.has(grades[core]?.role ?? '') ? [core] : [])));
  return { cores, grounds: open || devices.some((device) => device.terminals.some((terminal) => terminal.role === 'ground')) };
}

function conductorResult(
  conductor: Conductor,
  problem: Problem,
  posterior: Posterior | null,
  grades: readonly CoreGrade[],
  grounds: readonly GroundGrade[],
): IdentifiedConductor {
  const ids = (tests: readonly number[]) => tests.map((test) => problem.tests[test]?.id ?? '');
  const ground = grounds.find((entry) => entry.id === conductor.id);
  if (ground) {
    const alternatives = [{ role: 'spare' as const, probability: 1 - ground.probability }];
    const { probability, grade } = ground;
    const isGround = probability >= 0.5;
    return {
      id: conductor.id,
      role: isGround ? 'ground' : 'spare',
      probability: isGround ? probability : 1 - probability,
      grade,
      loadIds: [],
      circuitId: null,
      alternatives: isGround ? alternatives : [{ role: 'ground', probability }],
      because: ids(ground.because),
      missing: grade === 'confirmed' ? null : 'reading',
    };
  }
  const core = problem.cores.findIndex((entry) => entry.id === conductor.id);
  const grade = grades[core];
  if (core < 0 || !grade || !posterior) return byColourAlone(conductor, problem);
  const shares = posterior.after[core] as Float64Array;
  return {
    id: conductor.id,
    role: grade.role,
    probability: grade.probability,
    grade: grade.grade,
    loadIds: grade.role === 'load' ? likelyLoads(posterior, core) : [],
    circuitId: grade.role === 'line' || grade.role === 'neutral' ? likelyCircuit(problem, posterior, core, grade.role) : null,
    alternatives: ROLES.map((role, at) => ({ role, probability: shares[at] as number }))
      .filter((entry) => entry.role !== grade.role && entry.probability > 0)
      .sort((a, b) => b.probability - a.probability),
    because: ids(grade.because),
    missing: grade.missing,
  };
}

/** A conductor that passes through unbroken ends nowhere here: only its looks speak. */
function byColourAlone(conductor: Conductor, problem: Problem): IdentifiedConductor {
  if (looksLikeGround(conductor))
    return {
      id: conductor.id,
      role: 'ground',
      probability: 1,
      grade: 'guess',
      loadIds: [],
      circuitId: null,
      alternatives: [],
      because: [],
      missing: 'reading',
    };
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
  const [first, ...rest] = shares as [(typeof shares)[number], ...typeof shares];
  return { id: conductor.id, ...first, grade: 'guess', loadIds: [], circuitId: null, alternatives: rest, because: [], missing: 'reading' };
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

/** A line's circuit where one stands out; a neutral's only where its cable holds a line of exactly one circuit. */
function likelyCircuit(problem: Problem, posterior: Posterior, core: number, role: 'line' | 'neutral'): string | null {
  const shares = new Map<number, number>();
  let total = 0;
  for (const { explanation, weight } of posterior.entries) {
    if (ROLE_OF[explanation.classes[core] as CoreClass] !== role) continue;
    total += weight;
    const circuit = explanation.circuitOfCore[core];
    if (circuit !== null && circuit !== undefined) shares.set(circuit, (shares.get(circuit) ?? 0) + weight);
  }
  for (const [circuit, weight] of shares) if (total > 0 && weight / total >= 0.9) return problem.circuits[circuit]?.id ?? null;
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
  problem: Problem,
  posterior: Posterior | null,
  grades: readonly CoreGrade[],
  need: Wanted,
  next: readonly NextTest[],
  box: Box,
): IdentifyNote[] {
  const notes: IdentifyNote[] = [];
  const idsOf = (cores: Iterable<number>) => [...cores].map((core) => problem.cores[core]?.id ?? '');
  const live = problem.tests.filter(
    (test) =>
      [...test.arrangement.breakers.values()].some(Boolean) && (test.reading.tool === 'indicator' || test.reading.tool.startsWith('volts')),
  );
  const quiet = live.filter((test) => test.reading.value === 'quiet' || (typeof test.reading.value === 'number' && test.reading.value < 3));
  const asked = new Set(quiet.flatMap((test) => test.points.flatMap((point) => (point.kind === 'core' ? [point.core] : []))));
  const lit = problem.tests.some((test) => test.reading.tool === 'lamp' && test.reading.value !== 'dark');
  if (live.length > 0 && quiet.length === live.length && asked.size === problem.cores.length && !lit)
    notes.push({ code: 'no-supply-seen', conductorIds: idsOf(asked) });
  if (posterior?.enumeration.capped) notes.push({ code: 'cap-reached', conductorIds: [] });
  if (!posterior && problem.cores.length > 0) notes.push({ code: 'no-usual-wiring', conductorIds: idsOf(problem.cores.keys()) });
  const open = [...need.cores].filter((core) => grades[core]?.grade !== 'confirmed');
  if (open.length > 0 && next.length === 0) notes.push({ code: 'cannot-tell', conductorIds: idsOf(open) });
  const through = box.conductors.filter(
    (conductor) => conductor.unbroken === true && conductor.cableId !== undefined && !looksLikeGround(conductor),
  );
  if (through.length > 0) notes.push({ code: 'passes-through', conductorIds: through.map((conductor) => conductor.id) });
  return notes;
}

const WEAKEST: Grade[] = ['guess', 'indicated', 'confirmed'];

function summaryOf(conductors: readonly IdentifiedConductor[]): Identification['summary'] {
  const explained = conductors.length > 0 && conductors.every((conductor) => conductor.grade !== 'guess');
  const of = (role: Role): Grade | 'absent' | 'unknown' => {
    const own = conductors.filter((conductor) => conductor.role === role && conductor.probability >= 0.5);
    if (own.length > 0) return WEAKEST[Math.min(...own.map((conductor) => WEAKEST.indexOf(conductor.grade)))] as Grade;
    return explained ? 'absent' : 'unknown';
  };
  return { line: of('line'), load: of('load'), neutral: of('neutral'), ground: of('ground') };
}
