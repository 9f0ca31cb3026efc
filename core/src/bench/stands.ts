import { eventRecord, instantOf } from '../job/events.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import type { Stance } from './vocabulary.js';

/** The event that says how a box stands: its device was taken out, or put back. */
export function standsEvent(
  boxId: string,
  { arrangement, position }: Stance,
  made: { id: string; at: string },
): JobEvent & { id: string } {
  return {
    ...made,
    kind: 'stands',
    boxId,
    state: arrangement,
    ...(arrangement === 'device-out' && position !== null ? { position } : {}),
  };
}

const IN_PLACE: Stance = { arrangement: 'in-place', position: null };

/**
 * How a box stands: as it was said, or as it stood for the reading made last, whichever is later. A box that
 * was mounted since, or of which nothing is on record, is in place.
 */
export function standsNow(box: Box, job: Pick<Job, 'events'>): Stance {
  const record = eventRecord(job);
  const said = record.latest('stands', box.id);
  const mounted = record.latest('mounted', box.id)?.at ?? Number.NEGATIVE_INFINITY;
  const read = box.readings.reduce<Box['readings'][number] | null>(
    (last, reading) => (last === null || instantOf(reading) >= instantOf(last) ? reading : last),
    null,
  );
  const readAt = read ? instantOf(read) : Number.NEGATIVE_INFINITY;
  if (said && said.at > mounted && said.at >= readAt) return stanceOf(said.event);
  if (!read || readAt <= mounted) return IN_PLACE;
  return { arrangement: read.arrangement, position: read.position ?? null };
}

/** The stage of the proof that a box can be proved for as it stands: at the face while its device is in. */
export function stageToProve({ arrangement }: Stance): 'face' | 'device-out' {
  return arrangement === 'in-place' ? 'face' : 'device-out';
}

function stanceOf(event: JobEvent): Stance {
  const { state, position } = event as JobEvent & { position?: unknown };
  const known = ['in-place', 'device-out', 'parted', 'lifted'].find((one) => one === state);
  return {
    arrangement: (known as Stance['arrangement'] | undefined) ?? 'in-place',
    position: typeof position === 'number' ? position : null,
  };
}
