import type { Box, CircuitPower, Job, Reading } from '@inventario/core';
import type { Identified } from '../../../data/engines.worker.js';

/**
 * How the box stands for the next readings, and the instrument in hand. Breakers come from the power bar,
 * never from here.
 */
export interface Bench {
  mode: 'label' | 'read';
  held: string | null;
  tool: 'indicator' | 'volts-low-z' | 'volts' | 'ohms';
  arrangement: Reading['arrangement'];
  /** Which device is out. */
  position: number;
  switches: Record<string, 'on' | 'off' | 'up' | 'down'>;
  /** Lamps taken out, chains pulled off. */
  out: string[];
  /** The other point of a meter: a known earth, the box, or a conductor. */
  second: string;
  /** The hands-off steps were gone through since the breakers last changed. */
  stoodClear: string | null;
}

export function newBench(box: Box): Bench {
  return {
    mode: 'label',
    held: null,
    tool: 'indicator',
    arrangement: 'in-place',
    position: box.positions[0]?.index ?? 1,
    switches: {},
    out: [],
    second: 'reference',
    stoodClear: null,
  };
}

/** The bench set up for a proposed test. */
export function setUpFor(bench: Bench, test: Identified['next'][number]): Bench {
  const [first, second] = test.points;
  return {
    ...bench,
    mode: 'read',
    held: test.tool === 'lamp' ? bench.held : (first ?? null),
    tool: test.tool === 'lamp' || test.tool === 'breaker' ? bench.tool : test.tool,
    arrangement: test.arrangement,
    position: test.position ?? bench.position,
    switches: { ...bench.switches, ...test.switches },
    out: Object.entries(test.loads).flatMap(([id, state]) => (state === 'out' ? [id] : [])),
    second: second ?? 'reference',
  };
}

/** Breakers as the power bar has them; one nobody recorded stays unnamed. */
export function breakersOf(job: Job, power: readonly CircuitPower[]): Record<string, 'on' | 'off'> {
  return Object.fromEntries(
    power.flatMap((entry) =>
      entry.state === 'unknown' || !job.circuits.some((circuit) => circuit.id === entry.circuitId)
        ? []
        : [[entry.circuitId, entry.state]],
    ),
  );
}

/** A reading of the bench as it stands. */
export function readingOf(
  box: Box,
  bench: Bench,
  breakers: Record<string, 'on' | 'off'>,
  what: Pick<Reading, 'id' | 'at' | 'tool' | 'points' | 'value'>,
): Reading {
  const usable = Object.entries(bench.switches).filter(
    ([key]) => !(bench.arrangement === 'device-out' && key === String(bench.position)),
  );
  const method =
    what.tool === 'indicator'
      ? 'non-contact'
      : what.tool === 'lamp' || what.tool === 'breaker'
        ? 'observed'
        : 'clipped';
  return {
    ...what,
    arrangement: bench.arrangement,
    ...(bench.arrangement === 'device-out' ? { position: bench.position } : {}),
    ...(bench.arrangement === 'lifted' && bench.held ? { lifted: [bench.held] } : {}),
    method,
    breakers: Object.fromEntries(
      Object.entries(breakers).filter(([id]) => box.circuitIds.includes(id) || breakers[id] === 'off'),
    ),
    switches: bench.arrangement === 'parted' ? {} : Object.fromEntries(usable),
    ...(bench.out.length > 0 ? { loads: Object.fromEntries(bench.out.map((id) => [id, 'out'])) } : {}),
  };
}
