import type { Box, CircuitPower, Job, Reading, Stance } from '@inventario/core';
import type { PickedEnd } from '../../../drawings/moving-ends.js';

export type Mode = 'label' | 'test' | 'ends';

/**
 * What is in hand at a box, on this device alone. How the box stands and what is on comes from the record,
 * never from here.
 */
export interface BenchState {
  mode: Mode;
  held: string | null;
  /** An end to be moved, and a joint to be looked at. */
  end: PickedEnd | null;
  joint: string | null;
  /** The conductors as a table. */
  asTable: boolean;
  /** The conductor in hand is being edited. */
  editing: boolean;
  /** The instrument of a reading of one's own choice, and its other point. */
  tool: 'indicator' | 'volts-low-z' | 'volts' | 'ohms';
  second: string;
  switches: Record<string, 'on' | 'off' | 'up' | 'down'>;
  /** Lamps taken out, chains pulled off. */
  out: string[];
  clips: string[];
  /** The hands-off steps were said, and nothing was put back since. */
  stoodClear: boolean;
  /** Conductors that alerted in a sweep of several; null while one touch records it. */
  alerted: string[] | null;
  skipped: ReadonlySet<string>;
}

export function newBench(mode: Mode): BenchState {
  return {
    mode,
    held: null,
    end: null,
    joint: null,
    asTable: false,
    editing: false,
    tool: 'indicator',
    second: 'reference',
    switches: {},
    out: [],
    clips: [],
    stoodClear: false,
    alerted: null,
    skipped: new Set(),
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

/** What is entered; the rest of a reading is how the box stands. */
export interface Entered {
  tool: Reading['tool'];
  points: string[];
  value: Reading['value'];
  /** What is lifted for it; the conductor in hand where nothing is said. */
  lifted?: readonly string[];
  switches?: Record<string, 'on' | 'off' | 'up' | 'down'>;
}

/** The indicator led over all: it alerted at these points and was quiet at the others. */
export function sweptReadings(points: readonly string[], alerted: readonly string[]): Entered[] {
  return points.map((id) => ({
    tool: 'indicator',
    points: [id],
    value: alerted.includes(id) ? 'alert' : 'quiet',
  }));
}

/** A reading of the box as it stands. */
export function readingOf(
  box: Box,
  { arrangement, position }: Stance,
  bench: Pick<BenchState, 'held' | 'switches' | 'out'>,
  breakers: Record<string, 'on' | 'off'>,
  { switches, lifted, ...what }: Entered & { id: string; at: string },
): Reading {
  const out = arrangement === 'device-out' ? (position ?? box.positions[0]?.index) : undefined;
  const usable = Object.entries({ ...bench.switches, ...switches }).filter(
    ([key]) => key !== String(out ?? ''),
  );
  const method = METHODS[what.tool];
  return {
    ...what,
    arrangement,
    ...(out === undefined ? {} : { position: out }),
    ...(arrangement === 'lifted' ? { lifted: [...(lifted ?? [bench.held ?? what.points[0] ?? ''])] } : {}),
    method,
    breakers: Object.fromEntries(
      Object.entries(breakers).filter(([id]) => box.circuitIds.includes(id) || breakers[id] === 'off'),
    ),
    switches: arrangement === 'parted' ? {} : Object.fromEntries(usable),
    ...(bench.out.length > 0 ? { loads: Object.fromEntries(bench.out.map((id) => [id, 'out'])) } : {}),
  };
}

const METHODS: Record<Reading['tool'], NonNullable<Reading['method']>> = {
  indicator: 'non-contact',
  lamp: 'observed',
  breaker: 'observed',
  volts: 'clipped',
  'volts-low-z': 'clipped',
  ohms: 'clipped',
};
