import { holdsDevice, unreadFigures } from '../enclosure/as-found.js';
import type { Identification } from '../identify/answer.js';
import type { NextTest } from '../identify/asking/next-tests.js';
import { type JobLookup, labelsOf, placeKey, wantsSmart } from '../job/lookup.js';
import type { Box, Position } from '../job/schema/survey.js';
import { labelClashes } from '../power/label-clashes.js';
import { sweepPoints } from '../power/reading-gate.js';
import type { BoxPower, CircuitPower } from '../power/vocabulary.js';
import type { BoxProgress } from '../progress/progress.js';
import { isOddDepth } from './enclosures.js';
import { feedCandidates } from './feeds.js';
import { acceptableMarks, labelSets, nextDarkCore } from './marks.js';
import { stageToProve, standsNow } from './stands.js';
import type { NextStep, Stance } from './vocabulary.js';

/** What is known of the box in hand. */
export interface BoxInHand {
  box: Box;
  known: JobLookup;
  power: BoxPower;
  circuits: readonly CircuitPower[];
  /** The same of every box of the job. */
  powerOfBoxes: readonly BoxPower[];
  progress: BoxProgress;
  /** What the readings say; null while it is worked out. */
  said: Pick<Identification, 'conductors' | 'conflicts' | 'next'> | null;
  stands: Stance;
  /** Switches of the box and far ones, as they were last put. */
  switches: Readonly<Record<string, string>>;
  /** Loads whose lamps are out. */
  out: readonly string[];
  /** Points that clips are on, fitted while dead. */
  clips: readonly string[];
  /** The hands-off steps were said since the box was last opened. */
  stoodClear: boolean;
  /** By labels alone, or by test. */
  by: 'eye' | 'test';
  /** Steps put off, by {@link stepKey}. */
  skipped: ReadonlySet<string>;
}

/** Changes of the box, each made for something else. */
const CHANGES: ReadonlySet<NextStep['kind']> = new Set(['breaker', 'prove', 'stands', 'load', 'switch']);

/** What is put off with a step: a change of the box goes with the test, or the look, it is made for. */
export function skipKey(hand: BoxInHand, step: NextStep): string {
  if (!CHANGES.has(step.kind)) return stepKey(step);
  const lamp = lampStep(hand);
  if (lamp && !hand.skipped.has(stepKey(lamp))) return stepKey(lamp);
  const test = hand.box.conductors.length > 0 ? bestTest(hand) : undefined;
  if (test) return `test:${testKey(test)}`;
  return hand.box.conductors.length > 0 ? step.kind : 'opening';
}

/** Names a step among those that can be put off. */
export function stepKey(step: NextStep): string {
  switch (step.kind) {
    case 'controls':
    case 'lamp':
      return `${step.kind}:${step.position}`;
    case 'read':
    case 'sweep':
      return `test:${testKey(step.test)}`;
    default:
      return step.kind;
  }
}

/** The indicator is led over all conductors at once: such looks are one test. */
const isSweep = ({ tool, arrangement }: NextTest) => tool === 'indicator' && arrangement !== 'lifted';

function testKey(test: NextTest): string {
  const { tool, arrangement, position, points, breakers, switches, loads } = test;
  return JSON.stringify([
    tool,
    arrangement,
    position,
    isSweep(test) ? null : points,
    breakers,
    switches,
    loads,
  ]);
}

/** The one next step; null while what the readings say is being worked out and the step rests on it. */
export function nextStep(hand: BoxInHand): NextStep | null {
  for (const step of [urgent, fact, hand.by === 'eye' ? labelling : testing, onward]) {
    const found = step(hand);
    if (found === null || found) return found;
  }
  return { kind: 'done' };
}

/** `undefined`: nothing of this kind is next. */
type Found = NextStep | null | undefined;

function urgent({ box, known, power }: BoxInHand): Found {
  const stop = power.stops.find(({ code }) => code === 'live-while-off') ?? power.stops[0];
  if (stop) return { kind: 'stop', code: stop.code };
  const clash = labelClashes(box, known.job)[0];
  const conductorId = clash?.conductorIds.at(-1);
  return conductorId === undefined ? undefined : { kind: 'clash', conductorId };
}

/** What the record of a box is not complete without, in the order in which it can be seen. */
function fact(hand: BoxInHand): Found {
  const { box, known, by } = hand;
  const { job } = known;
  const first = <Step extends NextStep>(step: Step | undefined) =>
    step && !hand.skipped.has(stepKey(step)) ? step : undefined;
  if (box.circuitIds.length === 0 && job.circuits.length > 0) {
    const found = first({ kind: 'circuit', candidates: feedCandidates(job, box).likely });
    if (found) return found;
  }
  for (const position of box.positions) {
    const found =
      position.loadIds.length === 0 &&
      holdsDevice(position) &&
      first({ kind: 'controls', position: position.index });
    if (found) return found;
  }
  if (asksSignal(hand)) {
    const found = first({ kind: 'signal' });
    if (found) return found;
  }
  if (by === 'test') {
    const found = first(lampStep(hand));
    if (found)
      return (
        farClosed(hand, found.far === null ? [] : [found.far]) ?? energised(hand, found.circuitIds) ?? found
      );
  }
  if (box.conductors.length === 0) {
    if (by === 'test' && !hand.skipped.has('opening')) {
      const open = opened(hand);
      if (open) return open;
    }
    return { kind: 'contents' };
  }
  const unread = unreadFigures(box, job);
  const { volume } = unread;
  // A depth that no standard box of this volume has is asked about once more.
  const depth = unread.depth || isOddDepth(box, job);
  return volume || depth ? first({ kind: 'enclosure', volume, depth }) : undefined;
}

/** A connected device is wanted, nobody read the signal, and the router may still be on. */
function asksSignal({ box, power, circuits }: BoxInHand): boolean {
  const off = (id: string) => circuits.find(({ circuitId }) => circuitId === id)?.state === 'off';
  return (
    box.signal === undefined &&
    box.positions.some((position) => wantsSmart(position) && position.need?.connected !== false) &&
    !(power.circle.length > 0 && power.circle.every(off))
  );
}

/** Switches with two states that say which: on and off. */
const PLAIN: ReadonlySet<Position['existing']> = new Set(['single-pole', 'double-pole', 'dimmer', 'timer']);

/** Before anything is opened: a plain switch, and the lamp that should follow it. */
function lampStep({ box, known, stands, out }: BoxInHand): (NextStep & { kind: 'lamp' }) | undefined {
  if (stands.arrangement !== 'in-place' || box.circuitIds.length === 0 || box.labels.length > 0)
    return undefined;
  for (const { index, existing, loadIds } of box.positions) {
    const [loadId] = loadIds;
    if (loadId === undefined || loadIds.length > 1 || out.includes(loadId)) continue;
    const far = farOf(box, index, known);
    const isPair = existing === 'three-way' && far.length === 1;
    if (
      known.loads.get(loadId)?.kind === 'receptacle' ||
      !(isPair || (PLAIN.has(existing) && far.length === 0))
    )
      continue;
    const watched = box.readings.some(({ tool, points }) => tool === 'lamp' && points[0] === loadId);
    if (!watched)
      return { kind: 'lamp', position: index, loadId, circuitIds: box.circuitIds, far: far[0] ?? null };
  }
  return undefined;
}

/** The other switches of the lights that a position controls. */
function farOf(box: Box, index: number, known: JobLookup): string[] {
  const places = known.groups.get(placeKey(box.id, index))?.places ?? [];
  return places
    .filter(({ boxId, position }) => boxId !== box.id || position !== index)
    .map(({ boxId, position }) => placeKey(boxId, position));
}

/** The first of these circuits that has to go on yet. */
function energised(
  { circuits, stands, stoodClear }: BoxInHand,
  circuitIds: readonly string[],
): NextStep | undefined {
  const next = circuitIds.find((id) => circuits.find((entry) => entry.circuitId === id)?.state !== 'on');
  const handsOff = stands.arrangement !== 'in-place' && !stoodClear;
  return next === undefined ? undefined : { kind: 'breaker', circuitId: next, to: 'on', handsOff, clips: [] };
}

const CLOSED: Stance = { arrangement: 'in-place', position: null };

/**
 * A switch of another box can be worked only where it is in its place: one that was left out goes back first,
 * dead and proved.
 * @param keys of switches; those of the box itself say nothing here
 */
function farClosed(
  { known, circuits, powerOfBoxes }: BoxInHand,
  keys: readonly string[],
): NextStep | undefined {
  for (const key of keys) {
    const [boxId = '', position] = key.split('/');
    const far = position === undefined ? undefined : known.boxes.get(boxId);
    const power = powerOfBoxes.find((entry) => entry.boxId === boxId);
    if (!far || !power) continue;
    const stands = standsNow(far, known.job);
    if (stands.arrangement === 'in-place') continue;
    const before = dead({ power, circuits, stands });
    if (before?.kind === 'prove') return { ...before, boxId };
    return before ?? { kind: 'stands', to: CLOSED, lifted: [], boxId };
  }
  return undefined;
}

/** Off, proved at the face, device out: before what is in the box can be seen. */
function opened(hand: BoxInHand): NextStep | undefined {
  if (hand.stands.arrangement !== 'in-place') return undefined;
  const position = hand.box.positions.find(holdsDevice)?.index ?? null;
  return (
    dead(hand) ??
    (position === null
      ? undefined
      : { kind: 'stands', to: { arrangement: 'device-out', position }, lifted: [], boxId: null })
  );
}

/** What is missing to a proof of the box as it stands: breakers off first, then the proof. */
function dead({
  power,
  circuits,
  stands,
}: Pick<BoxInHand, 'power' | 'circuits' | 'stands'>): NextStep | undefined {
  const stage = stageToProve(stands);
  if (power.dead === 'device-out' || power.dead === stage) return undefined;
  const on = power.circle.find((id) => circuits.find((entry) => entry.circuitId === id)?.state !== 'off');
  if (on !== undefined) return { kind: 'breaker', circuitId: on, to: 'off', handsOff: false, clips: [] };
  return { kind: 'prove', stage, boxId: null };
}

/** The best next test, with every change it needs as a step before it; then what it proved. */
function testing(hand: BoxInHand): Found {
  const { box, said, skipped } = hand;
  if (!said) return null;
  const test = bestTest(hand);
  if (test) return changesFor(hand, test) ?? asked(hand, test);
  const labels = labelsOf(box);
  const proved = said.conductors.filter(
    ({ id, grade }) => grade === 'confirmed' && (labels.get(id)?.role ?? 'unknown') === 'unknown',
  );
  if (proved.length === 0) return labelling(hand);
  // Off, proved dead, and only then labelled.
  const proof = hand.stands.arrangement === 'in-place' || skipped.has('prove') ? undefined : dead(hand);
  return proof ?? { kind: 'flag', conductorIds: proved.map(({ id }) => id) };
}

/** What going to another switch of the group and back takes, minutes. */
const WALK = 2;

/** The best test that was not put off; one that can be made from here where that costs less than the walk. */
function bestTest(hand: BoxInHand): NextTest | undefined {
  const tests = (hand.said?.next ?? []).filter((entry) => !hand.skipped.has(`test:${testKey(entry)}`));
  const [best] = tests;
  const near = tests.find((entry) => !walksToSwitch(hand, entry));
  return best && near && near.minutes <= best.minutes + WALK ? near : best;
}

/** A test for which somebody has to go to a far switch. */
function walksToSwitch({ switches }: BoxInHand, test: NextTest): boolean {
  return Object.entries(test.switches).some(([key, to]) => key.includes('/') && switches[key] !== to);
}

function allOff({ power, circuits }: BoxInHand): boolean {
  return power.circle.every((id) => circuits.find(({ circuitId }) => circuitId === id)?.state === 'off');
}

/** The test itself: one conductor, or the indicator over all of them. */
function asked({ box }: BoxInHand, test: NextTest): NextStep {
  const points = sweepPoints(box);
  return isSweep(test) && points.length > 1 ? { kind: 'sweep', test, points } : { kind: 'read', test };
}

/** The first thing about the box that has to be otherwise for a test. */
function changesFor(hand: BoxInHand, test: NextTest): NextStep | undefined {
  const { stands, circuits, switches, out, clips } = hand;
  const stateOf = (id: string) => circuits.find(({ circuitId }) => circuitId === id)?.state;
  const wrong = Object.entries(test.breakers).filter(([id, state]) => stateOf(id) !== state);
  const moved =
    stands.arrangement !== test.arrangement ||
    (test.arrangement === 'device-out' && test.position !== null && stands.position !== test.position);
  const live = Object.values(test.breakers).includes('on');
  const clipsMissing = live && test.tool.startsWith('volts') && clips.join() !== test.points.join();
  const lamps = [
    ...out.filter((id) => test.loads[id] !== 'out').map((loadId) => ({ loadId, out: false })),
    ...Object.entries(test.loads).flatMap(([loadId, state]) =>
      state === 'out' && !out.includes(loadId) ? [{ loadId, out: true }] : [],
    ),
  ];
  const opens = stands.arrangement !== 'in-place' && allOff(hand) && wrong.some(([, to]) => to === 'on');
  // Whatever is touched, the box is dead and proved for it, and before it is energised open.
  if (moved || clipsMissing || opens || test.tool === 'ohms') {
    const proof = dead(hand);
    if (proof) return proof;
  }
  if (moved)
    return {
      kind: 'stands',
      to: { arrangement: test.arrangement, position: test.position },
      lifted: test.lifted,
      boxId: null,
    };
  const far = farClosed(hand, Object.keys(test.switches));
  if (far) return far;
  if (lamps[0]) return { kind: 'load', ...lamps[0] };
  for (const [key, to] of Object.entries(test.switches))
    if (switches[key] !== to) return { kind: 'switch', key, to };
  const [first] = wrong;
  if (!first) return undefined;
  const [circuitId, to] = first;
  const handsOff = to === 'on' && stands.arrangement !== 'in-place' && !hand.stoodClear;
  return { kind: 'breaker', circuitId, to, handsOff, clips: clipsMissing ? test.points : [] };
}

/** Marks that can be taken by eye; then the dark cores one by one; then whites and grounds as sets. */
function labelling(hand: BoxInHand): Found {
  const { box, known, said, skipped } = hand;
  if (box.conductors.length === 0) return undefined;
  const dark = nextDarkCore(box, known.job, null);
  const sets = labelSets(box, known.job);
  if (dark === undefined && sets.length === 0) return undefined;
  const marks = said && !skipped.has('marks') ? acceptableMarks(box, known, said) : [];
  if (marks.length > 0) return { kind: 'marks', marks };
  if (dark !== undefined) return { kind: 'label', conductorId: dark };
  const set = sets.find(({ role }) => !skipped.has(`set:${role}`)) ?? sets[0];
  return set ? { kind: 'set', ...set } : undefined;
}

function onward({ progress }: BoxInHand): Found {
  const blocker = progress.blockers.find(({ stage }) => stage === progress.next);
  return blocker ? { kind: 'onward', blocker } : undefined;
}
