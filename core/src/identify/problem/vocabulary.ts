import type { ContactPosition, TakenApart } from '../../electrics/arranged.js';
import type { Load } from '../../job/schema/job.js';
import type { Colour, Role } from '../../job/schema/primitives.js';
import type { Reading } from '../../job/schema/survey.js';
import type { PracticeProfile } from '../../practice/profile.js';

/**
 * What a conductor can be, told apart by what hangs on its far end. Roles are coarser: the neutral of a feed
 * and the return of an outgoing load cable are both neutrals, and alike in place; parted, the return floats
 * with its load.
 */
export type CoreClass =
  | 'line' // from the breaker: source
  | 'switched-line' // energised only through a switch elsewhere
  | 'line-on' // the line carried onward
  | 'load' // to a load
  | 'neutral-in' // the neutral of a feed: reference
  | 'neutral-out' // the neutral carried onward
  | 'return' // the neutral side of a load of the same cable
  | 'traveler'
  | 'spare';

export const ROLE_OF: Record<CoreClass, InsulatedRole> = {
  line: 'line',
  'switched-line': 'switched-line',
  'line-on': 'line-on',
  load: 'load',
  'neutral-in': 'neutral',
  'neutral-out': 'neutral',
  return: 'neutral',
  traveler: 'traveler',
  spare: 'spare',
};

/** Roles an insulated conductor can have, in the order probabilities are kept. */
export const ROLES = [
  'line',
  'switched-line',
  'line-on',
  'load',
  'neutral',
  'traveler',
  'spare',
] as const satisfies readonly Role[];
export type InsulatedRole = (typeof ROLES)[number];

/** The share of each role that one core has. */
export type RoleShares = Record<InsulatedRole, number>;

/** An insulated conductor of a cable. Numbered: everything below speaks of cores by number. */
export interface Core {
  id: string;
  cable: number;
  colour: Colour;
  /** Ends alone under a cap. */
  capped: boolean;
  /** The in-place net it belongs to. */
  net: number;
}

export interface CableCores {
  id: string;
  cores: number[];
  /** What a run says is at the other end. */
  end:
    | { kind: 'circuit'; circuit: number; weight: number }
    | { kind: 'load'; loadId: string; weight: number }
    | { kind: 'box'; boxId: string }
    | null;
}

/**
 * A net: cores and terminals that hang together in place, switch contacts apart. `joints` names its joints,
 * `terminals` the terminals of devices on it.
 */
export interface Net {
  cores: number[];
  terminals: { position: number; terminal: string }[];
  joints: string[];
  /** Two of its cores end on one terminal. */
  underOneScrew: boolean;
  /** A joint of several cables with one tail to a terminal of a switch. */
  tailToSwitch: boolean;
}

export interface SwitchPosition extends ContactPosition {
  /** Net at each terminal; absent: nothing there. */
  nets: ReadonlyMap<string, number>;
  loadIds: string[];
  /** Far places of its group, as reading keys: `head/1`. */
  partners: string[];
  interchangeable: boolean;
}

/** A reading with absent and empty fields made the same, and its points resolved. */
export interface Test {
  id: string;
  reading: Reading;
  /** What was arranged, without tool and points: equal tests of one arrangement share a state. */
  arrangement: Arrangement;
  points: Point[];
  /** Equal for readings that ask the same in the same state. */
  key: string;
}

/** A state of box, breakers and switches that is equal for equal keys. */
export interface Arrangement extends TakenApart {
  key: string;
  breakers: ReadonlyMap<string, boolean>;
  switches: ReadonlyMap<string, boolean>;
  farParted: ReadonlySet<string>;
  out: ReadonlySet<string>;
}

export type Point =
  /** `far`: read at its other end, in the box a run says it goes to. */
  | { kind: 'core'; core: number; far?: true }
  | { kind: 'ground'; id: string }
  | { kind: 'box' }
  | { kind: 'reference' }
  | { kind: 'load'; loadId: string }
  | { kind: 'circuit'; circuitId: string }
  | { kind: 'elsewhere' };

/** One box as identification wants it. */
export interface Problem {
  practice: PracticeProfile;
  boxId: string;
  cores: Core[];
  grounds: { id: string; colour: Colour; cable: string }[];
  cables: CableCores[];
  nets: Net[];
  positions: SwitchPosition[];
  /**
   * Circuits a line may be of: the box's own, those that readings or runs show in it, and last one that
   * nobody named.
   */
  circuits: { id: string | null; leg: string | null; volts: number; prior: number; own: boolean }[];
  loads: ReadonlyMap<string, Load>;
  tests: Test[];
  /** Grounds in one joint or on the box's screw share a name. */
  groundBundle: ReadonlyMap<string, string>;
  /** The bundle that is on the box's screw. */
  screwBundle: string;
  /** Circuits whose protection a low-impedance meter would trip. */
  trips: ReadonlySet<number>;
  /** Circuits whose breaker opens the neutral too. */
  isolating: ReadonlySet<number>;
  boxIsReference: boolean;
  provedVolts: number | undefined;
  /** Whether travelers or switched lines are plausible at all. */
  multiLocation: boolean;
  /** Cores that end straight on a terminal, by position. */
  coreTerminals: ReadonlyMap<number, readonly number[]>;
  /** Positions whose device carries a neutral, by labels and terminals: out with it, that neutral is open. */
  carries: ReadonlySet<number>;
  /** Circuits that are to be off too before a neutral of the box is opened. */
  alsoOff: readonly string[];
  /** How the latest reading left the box. */
  standsNow: {
    arrangement: Reading['arrangement'];
    position: number | null;
    breakers: Readonly<Record<string, string>>;
    /** Loads whose lamps are out. */
    out: readonly string[];
  } | null;
  /** A position of the whole box, for tests at a part of it that has none. */
  anyPosition: number | null;
  /** Something is alive with every breaker of the box off: no dead test before its source is found. */
  alive: boolean;
}

/**
 * How the far end of a pair of travelers is fed. `conversion`: one three-core links the commons of two
 * switches, and the line and the switched line stand on the outer terminals of both; the far switch joins the
 * link to the one or the other.
 */
export type FarKind = 'fed' | 'fed-by-third' | 'load' | 'load-by-third' | 'conversion';

/**
 * Whether a switched line of the cable comes back from a switch at its far end, to stand with the load it
 * feeds.
 */
export function comesBack(far: FarKind | null | undefined): boolean {
  return far === 'load-by-third' || far === 'conversion';
}

/** What one cable is, core by core in its own order. */
export interface CablePattern {
  classes: CoreClass[];
  far: FarKind | null;
  weight: number;
}

/**
 * A whole explanation of the box before readings: every core's class, the far ends of traveler cables,
 * circuits and loads.
 */
export interface Explanation {
  /** By core. */
  classes: readonly CoreClass[];
  /** By cable. */
  far: readonly (FarKind | null)[];
  /** Circuit number and leg of each line (and of the neutral that came with it); by core. */
  circuitOfCore: readonly (number | null)[];
  legOfCore: readonly (string | null)[];
  /** Circuit number of a source at the far end of travelers; by cable. */
  circuitOfCable: readonly (number | null)[];
  /** Loads each load core feeds; empty: one nobody named. */
  loadsOfCore: readonly (readonly string[])[];
  /** Loads at the far end of travelers; by cable. */
  loadsOfCable: readonly (readonly string[])[];
  prior: number;
}

/** Hidden things of an explanation that hold for all its readings. */
export interface Hidden {
  /** Whether a circuit nobody named is on. */
  outsideOn: boolean;
  /** Which contact "up" makes, by position with a multi-location switch, and by cable for the far one. */
  polarity: ReadonlyMap<number, boolean>;
  farPolarity: ReadonlyMap<number, boolean>;
  /** At the switch in the middle: which of the two far switches is on which of its cables. */
  swapped: boolean;
  missing: ReadonlySet<string>;
  /** For loads of other boxes: how each is fed. */
  outside: ReadonlyMap<string, OutsideFeed>;
}

/** How a lamp that is not of this box gets its supply: through a line-on of this box, or apart from it. */
export interface OutsideFeed {
  through: number | null;
  circuit: number | null;
  on: boolean;
}

/** Hidden things that are settled before any reading is looked at. */
export type OuterHidden = Pick<Hidden, 'outsideOn' | 'polarity' | 'farPolarity' | 'swapped'>;
