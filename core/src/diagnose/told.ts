import { eventRecord } from '../job/events.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import type { Reading } from '../job/schema/survey.js';
import { type FaultCause, SYMPTOM_KINDS, SYMPTOMS, type Symptoms } from './vocabulary.js';

type Made = Required<Pick<JobEvent, 'id' | 'at'>>;
interface Place {
  boxId: string;
  position: number;
}

/** A device was tried: it works, or what was seen of it. */
export function triedEvent(
  { boxId, position }: Place,
  symptoms: Symptoms | null,
  made: Made,
): JobEvent & { position: number; result: 'works' | 'fails' } {
  const told = symptoms && Object.keys(symptoms).length > 0 ? { symptoms } : {};
  return { ...made, kind: 'tried', boxId, position, result: symptoms ? 'fails' : 'works', ...told };
}

/** A reading of the box as it is wired now. */
export function testedEvent({ boxId, position }: Place, reading: Reading, made: Made): JobEvent {
  return { ...made, kind: 'tested', boxId, position, reading } as JobEvent;
}

/** What it was: kept, and likelier on this job from now on. */
export function causeEvent(
  { boxId, position }: Place,
  cause: FaultCause,
  made: Made,
): JobEvent & { position: number; cause: FaultCause } {
  return { ...made, kind: 'cause', boxId, position, cause };
}

/** What was last told of a device that does not work; empty where it works, or nobody tried it. */
export function symptomsTold(job: Pick<Job, 'events'>, place: Place): Symptoms {
  const last = ofPlace(job, 'tried', place).at(-1) as { result?: string; symptoms?: object } | undefined;
  if (last?.result !== 'fails') return {};
  const told = (last.symptoms ?? {}) as Record<string, string>;
  return Object.fromEntries(
    SYMPTOM_KINDS.flatMap((kind) =>
      (SYMPTOMS[kind] as readonly string[]).includes(told[kind] ?? '') ? [[kind, told[kind]]] : [],
    ),
  );
}

/** Readings made of the box as it is wired, since a cause was last found there: after it all is another. */
export function testedReadings(job: Pick<Job, 'events'>, place: Place): Reading[] {
  const record = eventRecord(job);
  const found = record.latest('cause', place.boxId)?.at ?? Number.NEGATIVE_INFINITY;
  return record
    .standing('tested', place.boxId)
    .filter(({ at, event }) => at > found && (event as { position?: number }).position === place.position)
    .map(({ event }) => (event as { reading?: Reading }).reading)
    .filter((reading): reading is Reading => reading !== undefined);
}

function ofPlace(job: Pick<Job, 'events'>, kind: string, { boxId, position }: Place): JobEvent[] {
  return eventRecord(job)
    .standing(kind, boxId)
    .map(({ event }) => event)
    .filter((event) => (event as { position?: number }).position === position);
}
