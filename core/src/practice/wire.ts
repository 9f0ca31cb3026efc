import type { Colour, Role, WireSize } from '../terms/trade.js';

interface WireFigures {
  /** Cross-section of the metal, mm2. */
  section: number;
  /** Overall diameter with insulation, mm, for the packing estimate. */
  diameter: number;
  /** Diameter of the bare conductor, mm. */
  bare: number;
  /** The gauge whose box-fill allowance stands for it: itself, or the next larger one for metric sizes. */
  gauge: '18AWG' | '16AWG' | '14AWG' | '12AWG' | '10AWG' | '8AWG' | '6AWG';
}

/**
 * Sections from the wire gauge and from the metric names; diameters are the packing estimate's, not a code's.
 */
export const WIRE: Record<WireSize, WireFigures> = {
  '18AWG': { section: 0.82, diameter: 2.2, bare: 1.0, gauge: '18AWG' },
  '16AWG': { section: 1.31, diameter: 2.5, bare: 1.3, gauge: '16AWG' },
  '14AWG': { section: 2.08, diameter: 2.8, bare: 1.6, gauge: '14AWG' },
  '12AWG': { section: 3.31, diameter: 3.3, bare: 2.1, gauge: '12AWG' },
  '10AWG': { section: 5.26, diameter: 4.2, bare: 2.6, gauge: '10AWG' },
  '8AWG': { section: 8.37, diameter: 5.5, bare: 3.3, gauge: '8AWG' },
  '6AWG': { section: 13.3, diameter: 6.5, bare: 4.1, gauge: '6AWG' },
  '0.75mm2': { section: 0.75, diameter: 2.3, bare: 1.0, gauge: '18AWG' },
  '1.0mm2': { section: 1.0, diameter: 2.6, bare: 1.1, gauge: '16AWG' },
  '1.5mm2': { section: 1.5, diameter: 2.9, bare: 1.4, gauge: '14AWG' },
  '2.5mm2': { section: 2.5, diameter: 3.5, bare: 1.8, gauge: '12AWG' },
  '4.0mm2': { section: 4.0, diameter: 4.1, bare: 2.3, gauge: '10AWG' },
  '6.0mm2': { section: 6.0, diameter: 4.9, bare: 2.8, gauge: '8AWG' },
};

/** Length of a conductor, a lead, a pigtail or a jumper nobody measured, mm: an estimate for the packing. */
export const USUAL_LENGTH = 150;

export type Gauge = WireFigures['gauge'];

export function largestSize(sizes: Iterable<WireSize>): WireSize | undefined {
  let largest: WireSize | undefined;
  for (const size of sizes)
    if (largest === undefined || WIRE[size].section > WIRE[largest].section) largest = size;
  return largest;
}

/** Bare, green or green-yellow: what a grounding conductor looks like when no label says otherwise. */
export function looksLikeGround(conductor: { colour: Colour }): boolean {
  return conductor.colour === 'bare' || conductor.colour === 'green' || conductor.colour === 'green-yellow';
}

/** By its label; where none tells a role, by its looks. */
export function isGround(conductor: { colour: Colour }, label: { role: Role } | undefined): boolean {
  return label && label.role !== 'unknown' ? label.role === 'ground' : looksLikeGround(conductor);
}

/**
 * What copper of a size may be protected at, A: by the largest listed size that it is not smaller than. 0:
 * smaller than any listed; Infinity: larger than all, which the list says nothing of.
 */
export function copperAmpsOf(size: WireSize, listed: Partial<Record<WireSize, number>>): number {
  const sections = (Object.keys(listed) as WireSize[]).map((name) => ({
    section: WIRE[name].section,
    amps: listed[name] ?? 0,
  }));
  const { section } = WIRE[size];
  if (sections.every((entry) => entry.section < section)) return Number.POSITIVE_INFINITY;
  return Math.max(0, ...sections.filter((entry) => entry.section <= section).map((entry) => entry.amps));
}
