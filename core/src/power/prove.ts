import { reachableCores } from '../job/conductors.js';
import { eventRecord, type Logged } from '../job/events.js';
import { labelsOf } from '../job/lookup.js';
import type { Job, JobEvent } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { unassignedCircuits } from './circle.js';
import type { BoxPower, Hinder } from './vocabulary.js';

/** One touch of the two leads: a conductor, and earth (`reference`), the neutral or another line. */
export type ProvingPair = readonly [string, string];

/** What is to be read between the two looks at a known source, by what it is read to. */
export interface ProvingRound {
  earth: ProvingPair[];
  neutral: ProvingPair[];
  lines: ProvingPair[];
}

/**
 * A proof of dead as it is recorded: with its readings, and with what its prover knew of every circuit that
 * matters.
 */
export interface ProvedEvent extends JobEvent {
  kind: 'proved';
  boxId: string;
  stage: 'face' | 'device-out';
  /** The tester on its known source before, V, and after. */
  volts: number;
  voltsAfter: number;
  /** Every pair that read under 5 V. */
  under5: ProvingPair[];
  circuitIds: string[];
  /** The "off" it rests on, by circuit. */
  offs: Record<string, string>;
  /** How often each circuit that matters had been switched on, as far as the prover knew. */
  ons: Record<string, number>;
}

/** A source known to be live shows at least this, V. */
export const LEAST_SOURCE_VOLTS = 50;
/** Before and after, the known source may differ by this share: more, and the tester cannot be trusted. */
const SOURCE_STEADY = 0.1;

/** Whether the tester showed the known source, V, before as after. */
export function sourceShown(volts: number, voltsAfter: number): boolean {
  return (
    Math.min(volts, voltsAfter) >= LEAST_SOURCE_VOLTS && Math.abs(voltsAfter - volts) <= volts * SOURCE_STEADY
  );
}

const BLOCKS_PROVING: ReadonlySet<Hinder['code']> = new Set([
  'circuit-on',
  'circuit-unknown',
  'neighbour-on',
  'neighbour-unknown',
]);

/**
 * What keeps a box from being proved now: none means it may be. Finding the source of a live reading lifts
 * that one.
 */
export function provingHinders(power: BoxPower): Hinder[] {
  const alive = power.stops.some(({ code }) => code === 'live-while-off');
  return power.hinders.filter(
    ({ code, circuitId }) =>
      BLOCKS_PROVING.has(code) || (code === 'live-reading' && circuitId === null && alive),
  );
}

/**
 * Every conductor to earth, to each neutral and to each other line. What nobody told yet counts as a line;
 * what ends nowhere here cannot be reached.
 */
export function provingRound(box: Box): ProvingRound {
  const labels = labelsOf(box);
  const cores = reachableCores(box);
  const isNeutral = ({ id }: { id: string }) => labels.get(id)?.role === 'neutral';
  const neutrals = cores.filter(isNeutral);
  const others = cores.filter((core) => !isNeutral(core));
  return {
    earth: cores.map(({ id }) => [id, 'reference'] as const),
    neutral: others.flatMap(({ id }) => neutrals.map((neutral) => [id, neutral.id] as const)),
    lines: others.flatMap(({ id }, at) => others.slice(at + 1).map((other) => [id, other.id] as const)),
  };
}

/**
 * The event of a proof made now, on a device that knows the job as given; null while something keeps the box
 * from being proved, or where the tester did not show its source before as after.
 *
 * @param power what stands at the box now
 * @param made with the readings on the known source, V, and every pair that read under 5 V
 */
export function provedEvent(
  box: Box,
  job: Job,
  power: BoxPower,
  made: Pick<ProvedEvent, 'stage' | 'volts' | 'voltsAfter' | 'under5'> & {
    id: string;
    at: string;
    by?: string;
  },
): ProvedEvent | null {
  if (
    box.circuitIds.length === 0 ||
    provingHinders(power).length > 0 ||
    !sourceShown(made.volts, made.voltsAfter)
  )
    return null;
  const record = eventRecord(job);
  const offs: Record<string, string> = {};
  for (const circuitId of power.circle) {
    const last = record.latest('switched', circuitId);
    if (last?.event.state !== 'off') return null;
    if (last.event.id !== undefined) offs[circuitId] = last.event.id;
  }
  const isOn = ({ event }: Logged) => event.state === 'on';
  const matter = [...power.circle, ...unassignedCircuits(job, new Set(power.circle))];
  const ons = Object.fromEntries(
    matter.map((circuitId) => [circuitId, record.all('switched', circuitId).filter(isOn).length]),
  );
  return { kind: 'proved', boxId: box.id, circuitIds: power.circle, offs, ons, ...made };
}
