import type { Hazard } from '../job/schema/survey.js';

/** A circuit as the record of switchings tells it. */
export interface CircuitPower {
  circuitId: string;
  state: 'unknown' | 'on' | 'off';
  /** The instant of the switching it comes from; null when unknown. */
  since: string | null;
}

/** How far a box is proved dead. `face`: before the device came out; only `device-out` opens the work. */
type Dead = 'none' | 'face' | 'device-out';

/** What keeps a box from being proved, ended its proof, or keeps it from being worked on. */
export interface Hinder {
  code:
    | 'not-proved'
    | 'face-only'
    | 'circuit-on'
    | 'circuit-unknown'
    | 'neighbour-on'
    | 'neighbour-unknown'
    | 'on-unknown-to-prover'
    | 'unassigned-on'
    | 'live-reading'
    | 'hazard'
    | 'closed'
    | 'old'
    | 'corrected';
  circuitId: string | null;
  readingId: string | null;
}

/** What may be ticked at a box, and what is derived from circuits, materials, readings and labels. */
export type StopCode =
  | Hazard
  | 'copper-clad'
  | 'live-while-off'
  | 'reversed-polarity'
  | 'borrowed-neutral'
  | 'one-leg'
  | 'no-common-trip'
  | 'conductor-too-small'
  | 'other-source'
  | 'contradiction';

/** Work stops here, and an electrician is called. Empty lists: it is about none in particular. */
export interface Stop {
  code: StopCode;
  conductorIds: string[];
  circuitIds: string[];
}

/**
 * What may be done now. `open`: handle conductors; `ohms`: measure dead; `joint`: open a joint that holds no
 * neutral; `neutral`: open one that does, or take off a device a neutral runs through; `energise`: switch on
 * for a hands-off check.
 */
export const GATES = ['open', 'ohms', 'joint', 'neutral', 'energise'] as const;
export type Gate = (typeof GATES)[number];

export interface BoxPower {
  boxId: string;
  dead: Dead;
  since: string | null;
  hinders: Hinder[];
  stops: Stop[];
  gates: Record<Gate, boolean>;
  /** Circuits that have to be off, the box's own first. */
  circle: string[];
  /** Positions whose device carries a neutral: taking it out opens that neutral. */
  carriesNeutral: number[];
}

export interface JobPower {
  circuits: CircuitPower[];
  boxes: BoxPower[];
}
