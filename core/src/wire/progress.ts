import { eventRecord, type Logged } from '../job/events.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import type { BoxPower, CircuitPower, Hinder } from '../power/vocabulary.js';
import type { WireStep } from './steps.js';

/** A step that was done: recorded as an event, and struck by a correction. */
interface WiredEvent extends JobEvent {
  kind: 'wired';
  boxId: string;
  step: string;
  note?: string;
}

export function wiredEvent(
  boxId: string,
  step: Pick<WireStep, 'key'>,
  made: { id: string; at: string; by?: string; note?: string },
): WiredEvent {
  return { ...made, kind: 'wired', boxId, step: step.key };
}

/** A step that was done: when, and how long after the one before. No event: the record tells it otherwise. */
interface DoneStep {
  eventId: string | undefined;
  at: string | undefined;
  note: string | null;
  minutes: number | null;
}

/** How far the wiring of a box is: what was done, when, and what it took. */
export interface WireProgress {
  /** By key of the step. */
  done: ReadonlyMap<string, DoneStep>;
  /** The first step that is not done; null: all are. */
  next: WireStep | null;
}

/** What the record says of the box now. */
export interface BoxNow {
  job: Pick<Job, 'events' | 'photos'>;
  power: Pick<BoxPower, 'boxId' | 'gates' | 'hinders' | 'circle'>;
  circuits: readonly CircuitPower[];
}

/** A pause longer than this was no work on the step, minutes. */
const LONGEST_STEP = 60;

/**
 * What of the steps the record says is done. A proof, a photograph and the mounting are told by their own
 * records.
 */
export function wireProgress(steps: readonly WireStep[], now: BoxNow): WireProgress {
  const record = eventRecord(now.job);
  const logged = record.standing('wired', now.power.boxId);
  const byKey = new Map(logged.map((entry) => [(entry.event as WiredEvent).step, entry]));
  const mounted = record.latest('mounted', now.power.boxId) !== undefined;
  const done = new Map<string, DoneStep>();
  let before: Logged | undefined;
  for (const step of steps) {
    const entry = byKey.get(step.key);
    if (!entry && !mounted && !toldOtherwise(step, byKey, now)) continue;
    done.set(step.key, {
      eventId: entry?.event.id,
      at: entry?.event.at,
      note: (entry?.event as WiredEvent | undefined)?.note ?? null,
      minutes: minutesBetween(before, entry),
    });
    before = entry ?? before;
  }
  return { done, next: mounted ? null : (steps.find(({ key }) => !done.has(key)) ?? null) };
}

function toldOtherwise({ kind, key }: WireStep, byKey: ReadonlyMap<string, Logged>, now: BoxNow): boolean {
  const { boxId, gates } = now.power;
  // Once hands were at the wires, a later proof is asked for by every step's own gate.
  if (kind === 'prove') return gates.open || byKey.size > 0;
  if (kind === 'photograph')
    return now.job.photos.some((photo) => photo.boxId === boxId && photo.stage === 'before');
  if (kind !== 'prove-again') return false;
  const tested = byKey.get(key.replace('prove-again', 'test'));
  const proof = eventRecord(now.job).latest('proved', boxId);
  return gates.open && tested !== undefined && proof !== undefined && proof.at > tested.at;
}

/**
 * What keeps a hand from a step; empty: it is open. A test is open while the box may be energised, and stays
 * so while a breaker of it is on for the look.
 */
export function stepHinders(step: WireStep, now: BoxNow): readonly Hinder[] | null {
  const { gates, hinders, circle } = now.power;
  if (step.gate === null || gates[step.gate]) return null;
  const isOn = circle.some((id) => now.circuits.find(({ circuitId }) => circuitId === id)?.state === 'on');
  if (step.kind === 'test' && isOn) return null;
  return hinders;
}

function minutesBetween(before: Logged | undefined, entry: Logged | undefined): number | null {
  if (!before || !entry || !Number.isFinite(before.at) || !Number.isFinite(entry.at)) return null;
  const minutes = (entry.at - before.at) / 60_000;
  return minutes < 0 || minutes > LONGEST_STEP ? null : Math.round(minutes * 10) / 10;
}

/** Steps of the wiring that are recorded at a box, whatever its plan is now. */
export function wiredSteps(job: Pick<Job, 'events'>, boxId: string): number {
  return new Set(
    eventRecord(job)
      .standing('wired', boxId)
      .map(({ event }) => (event as WiredEvent).step),
  ).size;
}
