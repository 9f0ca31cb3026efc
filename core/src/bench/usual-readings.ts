import { instantOf } from '../job/events.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import type { Reading } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';

/** What an ohmmeter shows on leads that are joined. */
const JOINED = [0.2, 0.3, 0.5] as const;

/**
 * What a meter of this house most often shows, so that it is one touch: its supply as last read, and nothing.
 */
export function usualReadings(job: Job, tool: Reading['tool']): Reading['value'][] {
  if (tool === 'ohms') return [...JOINED, 'open'];
  return [
    0,
    0.1,
    lastSourceVolts(job, null, Number.NEGATIVE_INFINITY).ofJob ?? profileOf(job).supply.nominal,
  ];
}

/**
 * What the tester last showed on its known source, V: anywhere in the job, and at a box since an instant, ms.
 */
export function lastSourceVolts(
  job: Pick<Job, 'events'>,
  boxId: string | null,
  since: number,
): { ofJob: number | null; ofBox: number | null } {
  const proofs = job.events
    .filter((event): event is JobEvent & { voltsAfter: number } => {
      const { voltsAfter } = event as { voltsAfter?: unknown };
      return event.kind === 'proved' && typeof voltsAfter === 'number';
    })
    .sort((a, b) => instantOf(a) - instantOf(b));
  const own = proofs.findLast((event) => event.boxId === boxId);
  return {
    ofJob: proofs.at(-1)?.voltsAfter ?? null,
    ofBox: own && instantOf(own) >= since ? own.voltsAfter : null,
  };
}
