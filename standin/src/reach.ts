/** Where something stands: metres on the plan, and the floor. */
export interface Spot {
  x: number;
  y: number;
  floor: number;
}

/** A device's place, with what stands around it. */
export interface Place extends Spot {
  /** A metal plate on a metal box. */
  metal: boolean;
}

/** At a metre from the router, dBm. */
const AT_ONE_METRE = -38;
/** Lost with every tenfold distance indoors, dB. */
const PER_DECADE = 30;
const PER_FLOOR = 14;
const METAL = 10;
/** A repeater between adds so much, dB. */
const REPEATER = 18;

/** The signal at a place, by its distance, the floors between and metal around it; dBm. */
export function reach(from: Spot, to: Place, repeated: boolean): number {
  const metres = Math.max(1, Math.hypot(from.x - to.x, from.y - to.y));
  const lost =
    PER_DECADE * Math.log10(metres) + PER_FLOOR * Math.abs(from.floor - to.floor) + (to.metal ? METAL : 0);
  return Math.round(AT_ONE_METRE - lost + (repeated ? REPEATER : 0));
}
