import type { Job, JobEvent } from '../job/schema/job.js';

export interface CircuitPower {
  circuitId: string;
  state: 'unknown' | 'on' | 'off';
  since: string | null;
}

/** Each circuit's state as the record of switchings tells it: the last one that was not corrected. Nothing recorded: unknown. */
export function circuitPower(job: Job): CircuitPower[] {
  const corrected = new Set(job.events.filter((event) => event.kind === 'correction').map((event) => event.of));
  const last = new Map<string, JobEvent>();
  for (const event of job.events) {
    if (event.kind !== 'switched' || !event.circuitId || (event.id && corrected.has(event.id))) continue;
    const known = last.get(event.circuitId);
    if (!known || (event.at ?? '') >= (known.at ?? '')) last.set(event.circuitId, event);
  }
  return job.circuits.map(({ id }) => {
    const event = last.get(id);
    const state = event?.state === 'on' || event?.state === 'off' ? event.state : 'unknown';
    return { circuitId: id, state, since: state === 'unknown' ? null : (event?.at ?? null) };
  });
}
