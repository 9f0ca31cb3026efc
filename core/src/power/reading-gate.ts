import { reachableCores } from '../job/conductors.js';
import { labelsOf } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box, Reading } from '../job/schema/survey.js';
import { unassignedCircuits } from './circle.js';
import type { BoxPower, CircuitPower } from './vocabulary.js';

/** What has to happen before a reading may be made the way the bench is set up. */
export type ReadingGate =
  | { kind: 'open' }
  /** Something feeds the box although its breakers are off: no dead test before it is found. */
  | { kind: 'find-source' }
  /** A neutral would stand open while these may be on. */
  | { kind: 'neutral'; circuitIds: string[] }
  /** It is read dead, and the box is not proved with its device out. */
  | { kind: 'prove-dead' }
  /** Something of the box is on, or may be: the hands-off form, step by step. */
  | { kind: 'stand-clear' };

/** How the box stands for the reading, and with what it is made. */
export type ReadingSetUp = Pick<Reading, 'tool' | 'arrangement' | 'position' | 'lifted'>;

/**
 * Whether taking the box to this state opens a neutral: everything parted, a neutral lifted, or a device out
 * that carries one.
 *
 * @param roleOf what the readings make of a conductor that no label speaks of
 */
function opensNeutral(
  box: Box,
  power: Pick<BoxPower, 'carriesNeutral'>,
  { arrangement, position, lifted }: Omit<ReadingSetUp, 'tool'>,
  roleOf: (conductorId: string) => Role | undefined,
): boolean {
  if (arrangement === 'parted') return true;
  if (arrangement === 'device-out') {
    const out = position ?? (box.positions.length === 1 ? box.positions[0]?.index : undefined);
    return out !== undefined && power.carriesNeutral.includes(out);
  }
  const isNeutral = (id: string) => {
    const told = labelsOf(box).get(id)?.role;
    return (told === undefined || told === 'unknown' ? roleOf(id) : told) === 'neutral';
  };
  return arrangement === 'lifted' && (lifted ?? []).some(isNeutral);
}

/**
 * Circuits that may be on although a neutral of the box must not stand open then: of its circle, and breakers
 * of no box.
 */
function liveAtNeutral(job: Job, power: BoxPower, circuits: readonly CircuitPower[]): string[] {
  const stateOf = (id: string) => circuits.find((circuit) => circuit.circuitId === id)?.state;
  return [
    ...power.circle.filter((id) => stateOf(id) !== 'off'),
    ...unassignedCircuits(job, new Set(power.circle)).filter((id) => stateOf(id) === 'on'),
  ];
}

/** A box as it stands powered: what is known of it, and the state of every circuit of the job now. */
export interface PoweredBox {
  box: Box;
  job: Job;
  power: BoxPower;
  circuits: readonly CircuitPower[];
}

/** Whether a reading set up so may be taken now, and if not, what has to come first. */
export function readingGate(
  { box, job, power, circuits }: PoweredBox,
  setUp: ReadingSetUp,
  roleOf: (conductorId: string) => Role | undefined,
): ReadingGate {
  if (opensNeutral(box, power, setUp, roleOf)) {
    const circuitIds = liveAtNeutral(job, power, circuits);
    if (circuitIds.length > 0) return { kind: 'neutral', circuitIds };
  }
  const alive = power.stops.some(({ code }) => code === 'live-while-off');
  if (setUp.tool === 'ohms') {
    if (alive) return { kind: 'find-source' };
    return power.gates.ohms ? { kind: 'open' } : { kind: 'prove-dead' };
  }
  const stateOf = (id: string) => circuits.find((circuit) => circuit.circuitId === id)?.state;
  const live = alive || power.circle.some((id) => stateOf(id) !== 'off');
  const justLooking =
    setUp.tool === 'lamp' ||
    setUp.tool === 'breaker' ||
    (setUp.tool === 'indicator' && setUp.arrangement === 'in-place');
  return live && !justLooking ? { kind: 'stand-clear' } : { kind: 'open' };
}

/**
 * The open live readings of a box as readings that would settle them: the same points and state, with one
 * breaker more off.
 */
export function sourceLooks(
  box: Box,
  live: readonly Reading[],
  circuitId: string,
  value: (tool: Reading['tool']) => Reading['value'],
  made: () => Pick<Reading, 'id' | 'at'>,
): Reading[] {
  const own = new Set(box.readings.map(({ id }) => id));
  return live
    .filter(({ id }) => own.has(id))
    .map((reading) => ({
      ...reading,
      ...made(),
      breakers: { ...reading.breakers, [circuitId]: 'off' as const },
      value: value(reading.tool),
    }));
}

/** Conductors an indicator is led over in one sweep: all that end here, grounds aside. */
export function sweepPoints(box: Box): string[] {
  return reachableCores(box).map(({ id }) => id);
}
