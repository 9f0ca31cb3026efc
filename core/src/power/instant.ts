import { EventRecord, eventRecord, instantOf, type Logged } from '../job/events.js';
import { conductorsById, labelsOf } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { KeptWhile, sameEntries } from '../units/kept.js';
import { circleOf, unassignedCircuits } from './circle.js';
import { BoxReadings, boxReadings } from './live-readings.js';
import { neutralCarriers } from './neutral-carriers.js';
import type { CircuitPower, StopCode } from './vocabulary.js';

/** A role that the readings of a box confirm; labels are asked first. */
export interface ConfirmedRole {
  role: Role;
  circuitId: string | null;
  loadIds: readonly string[];
  /** Readings it rests on. */
  because: readonly string[];
}

/** Confirmed roles by conductor, as identification has them; asked only where it matters. */
export type ConfirmedOf = (box: Box) => ReadonlyMap<string, ConfirmedRole>;

/** A proof of dead as it is recorded. Other programs may leave out what its prover knew. */
export interface RecordedProof extends Logged {
  stage: 'face' | 'device-out';
  circuitIds: readonly string[];
  /** The "off" each circuit rests on, by circuit: ids of events. */
  offs: Readonly<Record<string, string>>;
  /** How often each circuit had been switched on, as far as the prover knew. */
  ons: Readonly<Record<string, number>>;
}

/** The record of a job up to an instant, and what it says of every circuit. */
export class JobInstant {
  readonly record: EventRecord;
  private readonly states = new Map<string, CircuitPower>();

  /**
   * @param now ms; ages are reckoned from it
   * @param bounded whether what is later than `now` is left out; else everything recorded counts
   */
  constructor(
    readonly job: Job,
    readonly now: number,
    readonly bounded: boolean,
    readonly confirmedOf: ConfirmedOf,
  ) {
    this.record = bounded ? new EventRecord(job, now) : eventRecord(job);
    for (const { id } of job.circuits) this.states.set(id, this.powerOf(id));
  }

  /**
   * The last switching not struck, by the clock. Clocks of two devices may differ, and what was recorded
   * without signal arrives late: where the last in the file says on, the circuit counts as on.
   */
  private powerOf(circuitId: string): CircuitPower {
    const switchings = this.record.standing('switched', circuitId);
    const latest = switchings.at(-1);
    const arrived = switchings.reduce<Logged | undefined>(
      (last, entry) => (last && last.index > entry.index ? last : entry),
      undefined,
    );
    const event = (latest?.event.state !== 'on' && arrived?.event.state === 'on' ? arrived : latest)?.event;
    const state = event?.state === 'on' || event?.state === 'off' ? event.state : 'unknown';
    return { circuitId, state, since: state === 'unknown' ? null : (event?.at ?? null) };
  }

  get circuits(): CircuitPower[] {
    return [...this.states.values()];
  }

  stateOf(circuitId: string): CircuitPower['state'] {
    return this.states.get(circuitId)?.state ?? 'unknown';
  }
}

const wholes = new KeptWhile<Job['events'], JobInstant>(sameEntries);

/**
 * Everything recorded so far, without a word of readings; kept while the job's circuits and events are the
 * same.
 */
export function recordedSoFar(job: Job): JobInstant {
  return wholes.of(job.events, [job.circuits], () => new JobInstant(job, 0, false, () => NONE_CONFIRMED));
}

const NONE_CONFIRMED: ReturnType<ConfirmedOf> = new Map();

/** One box at an instant: what every rule about it asks. */
export class BoxInstant {
  readonly job: Job;
  readonly record: EventRecord;
  readonly readings: BoxReadings;
  readonly proof: RecordedProof | null;
  readonly circle: ReadonlySet<string>;
  private stray: readonly string[] | undefined;
  private confirmedRoles: ReadonlyMap<string, ConfirmedRole> | undefined;

  /**
   * @param job the job the box is in, where `whole` was made of an earlier one with the same circuits and
   * events
   */
  constructor(
    readonly whole: JobInstant,
    readonly box: Box,
    job: Job = whole.job,
  ) {
    const { record, now, bounded } = whole;
    this.job = job;
    this.record = record;
    this.readings = bounded ? new BoxReadings(box, profileOf(job), now) : boxReadings(box, profileOf(job));
    this.proof = proofOf(record.latest('proved', box.id));
    this.circle = circleOf(box, job, this.proof?.circuitIds ?? [], this.readings.shown);
  }

  /** Breakers of no box, outside the circle. */
  get unassigned(): readonly string[] {
    this.stray ??= unassignedCircuits(this.job, this.circle);
    return this.stray;
  }

  stateOf = (circuitId: string): CircuitPower['state'] => this.whole.stateOf(circuitId);

  /** The instant a hazard was last said to be put right, ms; null: never. */
  clearedAt = (code: StopCode): number | null =>
    this.record
      .standing('cleared', this.box.id)
      .findLast(({ event }) => (event as { hazard?: unknown }).hazard === code)?.at ?? null;

  /** What the tester showed on its known source when the box was last proved, V. */
  get provedVolts(): number | undefined {
    return provedVolts(this.record, this.box.id);
  }

  /** What the readings confirm of a conductor that no label speaks of. */
  confirmed(conductorId: string): ConfirmedRole | undefined {
    const { bounded, now, confirmedOf } = this.whole;
    if (this.box.readings.length === 0) return undefined;
    this.confirmedRoles ??= confirmedOf(
      bounded
        ? { ...this.box, readings: this.box.readings.filter((reading) => instantOf(reading) <= now) }
        : this.box,
    );
    return this.confirmedRoles.get(conductorId);
  }

  /**
   * The circuit a conductor is the neutral of, by its label, else as confirmed; null: no neutral, or of an
   * untold circuit.
   */
  neutralCircuitOf(conductorId: string): string | null {
    if (!conductorsById(this.box).has(conductorId)) return null;
    const lent = this.box.circuitIds.length === 1 ? (this.box.circuitIds[0] ?? null) : null;
    const label = labelsOf(this.box).get(conductorId);
    if (label && label.role !== 'unknown') return label.role === 'neutral' ? (label.circuitId ?? lent) : null;
    const confirmed = this.confirmed(conductorId);
    return confirmed?.role === 'neutral' ? (confirmed.circuitId ?? lent) : null;
  }

  /** Positions whose device carries a neutral; what no label tells is as confirmed. */
  carriesNeutral(): number[] {
    return neutralCarriers(this.box, this.job, (id) => this.confirmed(id)?.role === 'neutral');
  }
}

/** What the tester showed on its known source when a box was last proved, V; a struck proof tells nothing. */
export function provedVolts(record: EventRecord, boxId: string): number | undefined {
  const proofs = record.standing('proved', boxId) as { event: { volts?: unknown } }[];
  return proofs.findLast(({ event }) => typeof event.volts === 'number')?.event.volts as number | undefined;
}

function proofOf(logged: Logged | undefined): RecordedProof | null {
  if (!logged) return null;
  const { stage, circuitIds, offs, ons } = logged.event as unknown as Record<string, unknown>;
  return {
    ...logged,
    stage: stage === 'device-out' ? 'device-out' : 'face',
    circuitIds: Array.isArray(circuitIds) ? circuitIds.filter((id) => typeof id === 'string') : [],
    offs: recordOf(offs, 'string'),
    ons: recordOf(ons, 'number'),
  };
}

/** What of a record written by any program is of the type that counts. */
function recordOf<Value>(record: unknown, type: 'string' | 'number'): Record<string, Value> {
  if (typeof record !== 'object' || record === null) return {};
  return Object.fromEntries(Object.entries(record).filter(([, value]) => typeof value === type)) as Record<
    string,
    Value
  >;
}
