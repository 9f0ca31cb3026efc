import type { Job, JobEvent } from '../job/schema/job.js';

export interface CircuitPower {
  circuitId: string;
  state: 'unknown' | 'on' | 'off';
  since: string | null;
}

/** Switchings of a circuit that no correction struck, in the order they reached the record. */
export function switchingsOf(job: Job, circuitId: string): JobEvent[] {
  const struck = struckEvents(job);
  return job.events.filter((event) => event.kind === 'switched' && event.circuitId === circuitId && !(event.id && struck.has(event.id)));
}

/** Ids that corrections strike from the record. */
export function struckEvents(job: Job): ReadonlySet<string> {
  return new Set(job.events.flatMap((event) => (event.kind === 'correction' && event.of ? [event.of] : [])));
}

/**
 * Each circuit's state as the record of switchings tells it: the last one that was not corrected. Nothing recorded: unknown.
 * Clocks of two devices may differ, and what was recorded without signal arrives late: where the last by the clock and the last to
 * arrive do not agree, the circuit counts as on.
 */
export function circuitPower(job: Job): CircuitPower[] {
  return job.circuits.map(({ id }) => {
    const switchings = switchingsOf(job, id);
    const arrived = switchings.at(-1);
    const latest = [...switchings].sort((a, b) => (a.at ?? '').localeCompare(b.at ?? '')).at(-1);
    const event = arrived?.state === 'on' ? arrived : latest;
    const state = event?.state === 'on' || event?.state === 'off' ? event.state : 'unknown';
    return { circuitId: id, state, since: state === 'unknown' ? null : (event?.at ?? null) };
  });
}
