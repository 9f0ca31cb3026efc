import { instantOf } from '../job/events.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { KeptWhile, perObject, sameEntries } from '../units/kept.js';
import { hindersOf, strayUnknownToProver } from './hinders.js';
import { BoxInstant, type ConfirmedOf, JobInstant, recordedSoFar } from './instant.js';
import { stopsOf } from './stops.js';
import type { BoxPower, CircuitPower, Hinder, JobPower, Stop } from './vocabulary.js';

const NONE_CONFIRMED: ReturnType<ConfirmedOf> = new Map();

export interface PowerOptions {
  /** ms. What is later does not count. Absent: everything recorded, ages reckoned from {@link now}. */
  at?: number;
  /** ms, for the age of proofs where no instant is asked for; absent: the latest instant of the record. */
  now?: number;
  /** What readings confirm, for neutrals that no label tells; absent: labels and terminals alone speak. */
  confirmedOf?: ConfirmedOf;
}

/** The latest instant of an event or a reading, ms; null in a job without either. */
export function latestInstant(job: Job): number | null {
  const all = [...job.events, ...job.boxes.flatMap((box) => box.readings)]
    .map(instantOf)
    .filter(Number.isFinite);
  return all.length > 0 ? all.reduce((latest, at) => Math.max(latest, at)) : null;
}

/**
 * What is on, what is proved, what hinders, which stops stand and which gates are open: the one answer for
 * every screen.
 *
 *     events, readings -> circuits -> for each box: circle -> stops -> hinders -> dead -> gates
 */
export function powerOf(job: Job, options: PowerOptions = {}): JobPower {
  const instant = instantFor(job, options);
  return { circuits: instant.circuits, boxes: job.boxes.map((box) => keptOf(instant, box)) };
}

/** The same for one box. */
export function powerOfBox(job: Job, box: Box, options: PowerOptions = {}): BoxPower {
  return keptOf(instantFor(job, options), box);
}

const kept = new KeptWhile<Box, BoxPower>(sameEntries);

/** Worked out anew only where something it rests on is another; for one instant of the past, every time. */
function keptOf(instant: JobInstant, box: Box): BoxPower {
  if (instant.bounded) return ofBox(new BoxInstant(instant, box));
  const { job, now, confirmedOf } = instant;
  const confirmed = box.readings.length > 0 ? confirmedOf(box) : null;
  const restsOn = [
    job.circuits,
    job.events,
    job.runs,
    job.practice,
    job.overrides,
    job.catalogue,
    assignedIn(job.boxes),
    now,
    confirmed,
  ];
  return kept.of(box, restsOn, () => ofBox(new BoxInstant(instant, box)));
}

/** Which circuits boxes name, as one text: the others are of no box. */
const assignedIn = perObject((boxes: Job['boxes']) =>
  [...new Set(boxes.flatMap((box) => box.circuitIds))].sort().join(),
);

/** Each circuit's state as the record of switchings tells it. */
export function circuitPower(job: Job): CircuitPower[] {
  return recordedSoFar(job).circuits;
}

function instantFor(job: Job, { at, now, confirmedOf = () => NONE_CONFIRMED }: PowerOptions): JobInstant {
  return new JobInstant(job, at ?? now ?? latestInstant(job) ?? 0, at !== undefined, confirmedOf);
}

function ofBox(at: BoxInstant): BoxPower {
  const stops = stopsOf(at);
  const hinders = hindersOf(at, stops);
  const carriesNeutral = at.carriesNeutral();
  const dead = at.proof && hinders.every((hinder) => leavesProof(hinder, at)) ? at.proof.stage : 'none';
  return {
    boxId: at.box.id,
    dead,
    since: dead === 'none' ? null : (at.proof?.event.at ?? null),
    hinders,
    stops,
    gates: gatesOf(dead, stops, hinders, carriesNeutral),
    circle: [...at.circle],
    carriesNeutral,
  };
}

/** A stray breaker that the prover knew to be on ends nothing: the proof found nothing live. */
function leavesProof({ code }: Hinder, at: BoxInstant): boolean {
  return code === 'face-only' || code === 'hazard' || (code === 'unassigned-on' && !strayUnknownToProver(at));
}

/** A neutral that runs here may be the return of a stray breaker: it reads nothing until its joint opens. */
function gatesOf(
  dead: BoxPower['dead'],
  stops: readonly Stop[],
  hinders: readonly Hinder[],
  carriesNeutral: readonly number[],
): BoxPower['gates'] {
  const ohms = dead === 'device-out';
  const open = ohms && stops.length === 0;
  const stray = hinders.some(({ code }) => code === 'unassigned-on');
  return { open, ohms, joint: open, neutral: open && !stray, energise: open && carriesNeutral.length === 0 };
}
