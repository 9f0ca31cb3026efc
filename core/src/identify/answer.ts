import type { JobLookup } from '../job/lookup.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box, Conductor } from '../job/schema/survey.js';
import { stopsFromReadings } from '../power/box-stops.js';
import { looksLikeGround } from '../practice/wire.js';
import { entryAt } from '../units/entry-at.js';
import { isSampled } from './asking/gains.js';
import type { NextTest, RankedTest } from './asking/next-tests.js';
import type { Conflict } from './judging/conflicts.js';
import type { Grade } from './judging/grade.js';
import type { CoreGrade, Missing } from './judging/grades.js';
import type { GroundGrade } from './judging/ground-grades.js';
import { colourPrior } from './problem/priors.js';
import { type CoreClass, type Problem, ROLE_OF, ROLES } from './problem/vocabulary.js';
import type { Posterior } from './weighing/posterior.js';

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

/** A piece of a box with its explanations weighed. */
export interface Weighed {
  box: Box;
  problem: Problem;
  posterior: Posterior | null;
  conflicts: Conflict[];
  grades: CoreGrade[];
}

export function conductorsOf({ box, problem, posterior, grades }: Weighed): IdentifiedConductor[] {
  return box.conductors
    .filter((conductor) => conductor.cableId !== undefined && !looksLikeGround(conductor))
    .map((conductor) => conductorResult(conductor, problem, posterior, grades));
}

export function groundResult(ground: GroundGrade, problem: Problem): IdentifiedConductor {
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
export function conflictResults(problem: Problem, conflicts: readonly Conflict[]): IdentifyConflict[] {
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

export function notesOf(
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
export function stopNotes(box: Box, known: JobLookup): IdentifyNote[] {
  const stops = stopsFromReadings(box, known.job);
  return (['live-while-off', 'reversed-polarity'] as const).flatMap((code) => {
    const own = stops.filter((stop) => stop.code === code);
    return own.length > 0
      ? [{ code, conductorIds: [...new Set(own.flatMap(({ conductorIds }) => conductorIds))] }]
      : [];
  });
}

/** Every conductor read, with a breaker on, and every one quiet: a note, never a role. */
export function noSupply(problem: Problem): IdentifyNote[] {
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

export function summaryOf(conductors: readonly IdentifiedConductor[]): Identification['summary'] {
  const explained = conductors.length > 0 && conductors.every((conductor) => conductor.grade !== 'guess');
  const of = (role: Role): Grade | 'absent' | 'unknown' => {
    const own = conductors.filter((conductor) => conductor.role === role && conductor.probability >= 0.5);
    if (own.length > 0)
      return entryAt(WEAKEST, Math.min(...own.map((conductor) => WEAKEST.indexOf(conductor.grade))));
    return explained ? 'absent' : 'unknown';
  };
  return { line: of('line'), load: of('load'), neutral: of('neutral'), ground: of('ground') };
}
