/** Boxes that are worked together: those that groups bind, or one alone. */
export interface WorkUnit {
  /** In the file's order. */
  boxIds: readonly string[];
  /** Circuits that have to be off, and the panels they are switched at. */
  circuitIds: readonly string[];
  panels: readonly string[];
  /** Something of it is found out with its circuits on and its devices out. */
  needsCheck: boolean;
}

/** Why units are not open together: more boxes than may be, or one feeds another. */
export type ApartBecause = 'too-many' | 'feeds';

/** What the day is planned from. */
export interface DayToPlan {
  units: readonly WorkUnit[];
  /** Boxes open at once; a larger unit is a batch alone. */
  openAtOnce: number;
  testBeforeFold: boolean;
  /** Units of which one feeds the other, by their place in `units`. */
  apart: readonly (readonly [number, number])[];
  /** Where a box is. */
  room: ReadonlyMap<string, { roomId: string; floor: number }>;
}

/** Boxes that are dark together. `panelTrips`: before any is shared with the batch before it. */
export interface Batch {
  /** In the order of work. */
  boxIds: readonly string[];
  circuitIds: readonly string[];
  panels: readonly string[];
  needsCheck: boolean;
  panelTrips: number;
}

/** The day as batches in their order. */
export interface DayPlan {
  batches: readonly Batch[];
  /** With closing "on" and opening "off" at one panel as one trip. */
  panelTrips: number;
  /** Each unit a batch of its own, nothing shared. */
  boxByBoxTrips: number;
  /** Fewer trips are not possible; equal to `panelTrips` where the plan is proved best. */
  lowerBound: number;
}
