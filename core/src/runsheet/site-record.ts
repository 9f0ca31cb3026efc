import { eventRecord, type Logged, mountedBoxes } from '../job/events.js';
import type { Job, JobEvent } from '../job/schema/job.js';

/** What is recorded of the day beside the steps of the work. */
type Made = Required<Pick<JobEvent, 'id' | 'at'>>;

/** Boxes that are worked together from now on. */
export function batchEvent(boxIds: readonly string[], made: Made): JobEvent & { boxIds: string[] } {
  return { ...made, kind: 'batch', boxIds: [...boxIds] };
}

/** A box in the hands of whoever carries this device, or given out of them. */
export function holdEvent(kind: 'taken' | 'left', boxId: string, made: Made & { by: string }): JobEvent {
  return { ...made, kind, boxId };
}

/** A box that cannot be finished: put back as found or left safe, and planned anew. */
export function asideEvent(boxId: string, note: string, made: Made): JobEvent & { note: string } {
  return { ...made, kind: 'aside', boxId, note };
}

/**
 * The device that holds a box; null: nobody's does. Who was first in the record holds it, whatever their
 * clocks say: a second hand that took it meanwhile, without network, holds nothing. It ends when it is left,
 * mounted or put aside.
 */
export function holderOf({ events }: Pick<Job, 'events'>, boxId: string): string | null {
  const record = eventRecord({ events });
  let holder: string | null = null;
  for (const event of events) {
    if (event.boxId !== boxId || record.isStruck({ event })) continue;
    if (event.kind === 'taken') holder ??= event.by ?? null;
    else if (event.kind === 'left' && event.by === holder) holder = null;
    else if (event.kind === 'mounted' || event.kind === 'aside') holder = null;
  }
  return holder;
}

/** The batch that was begun last and is not done with. */
export interface BatchInHand {
  eventId: string | undefined;
  /** ms since the epoch; minus infinity where the record does not say. */
  begunAt: number;
  /** Its boxes that are there and were not put aside since, in the order of work. */
  boxIds: readonly string[];
}

type JobOfBatches = Pick<Job, 'events' | 'boxes' | 'selections' | 'catalogue'>;

export function batchInHand(job: JobOfBatches): BatchInHand | null {
  const record = eventRecord(job);
  const last = record.ofKind('batch').at(-1);
  if (!last) return null;
  const { boxIds = [] } = last.event as JobEvent & { boxIds?: string[] };
  const there = new Set(job.boxes.map(({ id }) => id));
  const stays = boxIds.filter((id) => {
    const aside = record.latest('aside', id);
    return there.has(id) && !(aside && isLater(aside, last));
  });
  const mounted = mountedBoxes(job);
  const closed = stays.every((id) => mounted.has(id) && untried(job, id).length === 0);
  return closed ? null : { eventId: last.event.id, begunAt: last.at, boxIds: stays };
}

/** By the clock; at one instant the later in the record is the later. */
const isLater = (one: Logged, other: Logged) =>
  one.at > other.at || (one.at === other.at && one.index > other.index);

/** Positions whose device has not been seen to work since the box was closed. */
export function untried(job: Pick<Job, 'events' | 'selections' | 'catalogue'>, boxId: string): number[] {
  const record = eventRecord(job);
  const closed = record.latest('mounted', boxId);
  const inBox = new Set(job.catalogue.devices.filter(({ mount }) => mount === 'box').map(({ id }) => id));
  const tried = record.standing('tried', boxId).filter((one) => !closed || isLater(one, closed));
  const last = new Map(
    tried.map(({ event }) => event as Tried).map((event) => [event.position, event.result]),
  );
  return job.selections
    .filter((one) => one.boxId === boxId && inBox.has(one.deviceId ?? ''))
    .map(({ position }) => position)
    .filter((position) => last.get(position) !== 'works');
}

type Tried = JobEvent & { position?: number; result?: string };

/** Boxes put aside and not begun again since, with what was said of each. */
export function boxesAside(job: JobOfBatches): Map<string, string> {
  const record = eventRecord(job);
  const mounted = mountedBoxes(job);
  return new Map(
    job.boxes.flatMap(({ id }) => {
      const aside = record.latest('aside', id);
      const taken = record.latest('taken', id);
      if (!aside || (mounted.has(id) && untried(job, id).length === 0) || (taken && isLater(taken, aside)))
        return [];
      return [[id, String((aside.event as JobEvent & { note?: string }).note ?? '')]];
    }),
  );
}
