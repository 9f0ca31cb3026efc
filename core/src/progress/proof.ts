import type { Job, JobEvent } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { circuitPower, struckEvents, switchingsOf } from './power.js';

/** How far a box is proved dead. `face`: before the device came out; only `device-out` opens the work. */
export interface Proof {
  stage: 'face' | 'device-out' | null;
  since: string | null;
  /** What the tester showed on its known source, V. */
  volts: number | null;
  /** The circuits whose record keeps the box from being proved, or withdrew its proof. */
  hinderedBy: { circuitId: string; why: 'on' | 'unknown' | 'on-since' }[];
}

/** Circuits whose being on ends a box's proof: its own, those that share a neutral with one of them, and those no box is known to be fed by. */
export function circuitsThatMatter(box: Box, job: Job): string[] {
  const own = new Set(box.circuitIds);
  for (const circuit of job.circuits) {
    if (own.has(circuit.id)) for (const other of circuit.sharesNeutralWith ?? []) own.add(other);
    else if (circuit.sharesNeutralWith?.some((other) => box.circuitIds.includes(other))) own.add(circuit.id);
  }
  const assigned = new Set(job.boxes.flatMap((other) => other.circuitIds));
  const stray = job.circuits.filter((circuit) => !assigned.has(circuit.id)).map((circuit) => circuit.id);
  return [...own, ...stray.filter((id) => !own.has(id))];
}

/** A proof of dead as it is recorded: with what its prover knew of every circuit that matters. */
export interface ProvedEvent extends JobEvent {
  kind: 'proved';
  boxId: string;
  stage: 'face' | 'device-out';
  volts: number;
  source: string;
  circuitIds: string[];
  /** The "off" it rests on, by circuit of the box. */
  offs: Record<string, string>;
  /** How often each circuit that matters had been switched on, as far as the prover knew. */
  ons: Record<string, number>;
}

/** The event of a proof made now, on a device that knows the job as given; null while a circuit of the box is not recorded off. */
export function provedEvent(
  box: Box,
  job: Job,
  made: { id: string; at: string; stage: 'face' | 'device-out'; volts: number },
): ProvedEvent | null {
  if (box.circuitIds.length === 0) return null;
  const offs: Record<string, string> = {};
  for (const circuitId of box.circuitIds) {
    const last = switchingsOf(job, circuitId).at(-1);
    if (last?.state !== 'off' || !last.id) return null;
    offs[circuitId] = last.id;
  }
  const ons = Object.fromEntries(circuitsThatMatter(box, job).map((circuitId) => [circuitId, onsOf(job, circuitId).length]));
  return { kind: 'proved', boxId: box.id, source: 'known live source, before and after', circuitIds: box.circuitIds, offs, ons, ...made };
}

/** Every time a circuit was recorded on, struck or not: a correction can take a proof away, never make one. */
function onsOf(job: Job, circuitId: string): JobEvent[] {
  return job.events.filter((event) => event.kind === 'switched' && event.circuitId === circuitId && event.state === 'on');
}

/**
 * Whether a box is proved dead, as the record of events tells it. A proof holds only while the "off" of each of its circuits stands and
 * no circuit that matters to the box was ever switched on but as its prover knew: an "on" from another device, made before or after
 * and whenever it arrives, withdraws it.
 */
export function proofOf(box: Box, job: Job): Proof {
  const struck = struckEvents(job);
  const matter = circuitsThatMatter(box, job);
  const own = new Set(box.circuitIds);
  const latest = job.events.findLast((event) => event.kind === 'proved' && event.boxId === box.id && !(event.id && struck.has(event.id))) as
    | (JobEvent & Partial<ProvedEvent>)
    | undefined;
  const power = new Map(circuitPower(job).map((entry) => [entry.circuitId, entry.state]));
  const hinderedBy: Proof['hinderedBy'] = [];
  for (const circuitId of matter) {
    const state = power.get(circuitId);
    if (latest && onUnknownTo(latest, circuitId, job)) hinderedBy.push({ circuitId, why: 'on-since' });
    // A circuit nobody assigned to a box may stay on if the prover knew it: the proof found nothing live.
    else if (state === 'on' && (own.has(circuitId) || sharesNeutral(job, box, circuitId))) hinderedBy.push({ circuitId, why: 'on' });
    else if (own.has(circuitId) && (state !== 'off' || (latest && !restsOnOff(latest, circuitId, job))))
      hinderedBy.push({ circuitId, why: 'unknown' });
  }
  const none: Proof = { stage: null, since: null, volts: null, hinderedBy };
  if (!latest || hinderedBy.length > 0 || box.circuitIds.length === 0) return none;
  return {
    stage: latest.stage === 'device-out' ? 'device-out' : 'face',
    since: latest.at ?? null,
    volts: typeof latest.volts === 'number' ? latest.volts : null,
    hinderedBy: [],
  };
}

/** Whether a circuit was switched on without the prover knowing. Proofs of other programs do not say what they knew: then time and order decide, both. */
function onUnknownTo(proof: JobEvent & Partial<ProvedEvent>, circuitId: string, job: Job): boolean {
  const ons = onsOf(job, circuitId);
  const knew = proof.ons?.[circuitId];
  if (knew !== undefined) return ons.length !== knew;
  const place = job.events.indexOf(proof);
  return ons.some((on) => (on.at ?? '') >= (proof.at ?? '') || job.events.indexOf(on) > place);
}

/** Whether the "off" of a circuit that a proof rests on still stands. */
function restsOnOff(proof: JobEvent & Partial<ProvedEvent>, circuitId: string, job: Job): boolean {
  const switchings = switchingsOf(job, circuitId);
  const off = proof.offs?.[circuitId];
  if (off !== undefined) return switchings.some((event) => event.id === off && event.state === 'off');
  const place = job.events.indexOf(proof);
  const before = switchings.filter((event) => job.events.indexOf(event) < place);
  const byClock = before.filter((event) => (event.at ?? '') <= (proof.at ?? ''));
  return before.at(-1)?.state === 'off' && byClock.at(-1)?.state === 'off';
}

function sharesNeutral(job: Job, box: Box, circuitId: string): boolean {
  return job.circuits.some(
    (circuit) =>
      (circuit.id === circuitId && circuit.sharesNeutralWith?.some((other) => box.circuitIds.includes(other))) ||
      (box.circuitIds.includes(circuit.id) && circuit.sharesNeutralWith?.includes(circuitId)),
  );
}
