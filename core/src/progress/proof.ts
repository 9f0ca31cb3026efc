import type { Job, JobEvent } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';

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

/**
 * Whether a box is proved dead, as the record of events tells it. A proof holds only when its own circuits were off at the time and
 * nothing that matters to the box went on since; what is in doubt withdraws it. Corrections can take a proof away, never make one:
 * a struck "off" leaves the circuit as it was before.
 */
export function proofOf(box: Box, job: Job): Proof {
  const struck = new Set(job.events.filter((event) => event.kind === 'correction').map((event) => event.of));
  const events = job.events.filter((event) => !(event.id && struck.has(event.id))).sort((a, b) => (a.at ?? '').localeCompare(b.at ?? ''));
  const own = new Set(box.circuitIds);
  const matter = circuitsThatMatter(box, job);
  const none: Proof = { stage: null, since: null, volts: null, hinderedBy: [] };
  const proofs = events.filter((event) => event.kind === 'proved' && event.boxId === box.id);
  const latest = proofs.at(-1) as (JobEvent & { stage?: string; volts?: number }) | undefined;
  const lastSwitch = (circuitId: string) => events.findLast((event) => event.kind === 'switched' && event.circuitId === circuitId);

  const hinderedBy: Proof['hinderedBy'] = [];
  for (const circuitId of matter) {
    const last = lastSwitch(circuitId);
    if (last?.state === 'on') hinderedBy.push({ circuitId, why: latest && (last.at ?? '') >= (latest.at ?? '') ? 'on-since' : 'on' });
    else if (!last && own.has(circuitId)) hinderedBy.push({ circuitId, why: 'unknown' });
  }
  // A circuit nobody assigned to a box may stay on only if the prover knew it: it was on before, and the proof found nothing live.
  const blocking = hinderedBy.filter(
    (entry) => own.has(entry.circuitId) || entry.why === 'on-since' || sharesNeutral(job, box, entry.circuitId),
  );
  if (!latest) return { ...none, hinderedBy: blocking };
  // Switched on and off again since: it has to be proved anew.
  const turned = matter.filter((circuitId) =>
    events.some(
      (event) =>
        event.kind === 'switched' && event.circuitId === circuitId && event.state === 'on' && (event.at ?? '') >= (latest.at ?? ''),
    ),
  );
  for (const circuitId of turned)
    if (!blocking.some((entry) => entry.circuitId === circuitId)) blocking.push({ circuitId, why: 'on-since' });
  const offBefore = box.circuitIds.every((circuitId) => {
    const before = events.findLast(
      (event) => event.kind === 'switched' && event.circuitId === circuitId && (event.at ?? '') <= (latest.at ?? ''),
    );
    return before?.state === 'off';
  });
  if (blocking.length > 0 || !offBefore || box.circuitIds.length === 0) return { ...none, hinderedBy: blocking };
  return {
    stage: latest.stage === 'device-out' ? 'device-out' : 'face',
    since: latest.at ?? null,
    volts: typeof latest.volts === 'number' ? latest.volts : null,
    hinderedBy: [],
  };
}

function sharesNeutral(job: Job, box: Box, circuitId: string): boolean {
  return job.circuits.some(
    (circuit) =>
      (circuit.id === circuitId && circuit.sharesNeutralWith?.some((other) => box.circuitIds.includes(other))) ||
      (box.circuitIds.includes(circuit.id) && circuit.sharesNeutralWith?.includes(circuitId)),
  );
}
