import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import {
  conductorsOf,
  conflictResults,
  groundResult,
  type Identification,
  type IdentifiedConductor,
  noSupply,
  notesOf,
  stopNotes,
  summaryOf,
  type Weighed,
} from './answer.js';
import { byValue, groundTest, nextTests, type RankedTest } from './asking/next-tests.js';
import { conflictsOf } from './judging/conflicts.js';
import { type CoreGrade, gradesOf } from './judging/grades.js';
import { groundGrades } from './judging/ground-grades.js';
import { problemOf } from './problem/problem.js';
import { splitBox } from './problem/split.js';
import { type Problem, ROLES } from './problem/vocabulary.js';
import { type Posterior, posteriorOf } from './weighing/posterior.js';

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
