import type {
  Colour,
  ConnectorKind,
  Edition,
  ExistingDevice,
  Leg,
  PracticeId,
  Protection,
  TerminalForm,
  WireSize,
} from '../terms/trade.js';
import type { UnitSystem } from '../units/present.js';
import type { CountingRule } from './counting.js';
import type { Words } from './words.js';

/** Behind the mounting face, mm. */
export interface Body {
  width: number;
  height: number;
  depth: number;
}

/** Colours of the cores of a new cable, by what they usually carry. */
export interface CableColours {
  line: Colour;
  neutral: Colour;
  ground: Colour;
  load: Colour;
  travelers: readonly [Colour, Colour];
  /** A cable of three between two switches where no neutral is in it: the odd one first. */
  strappers: readonly [Colour, Colour, Colour];
}

type ColourTable = Partial<Record<Colour, number>>;

/** How likely a conductor of a kind has a colour, before anything is read. What is not named: 0.01. */
export interface ColourEvidence {
  hot: ColourTable;
  load: ColourTable;
  neutral: ColourTable;
  traveler: ColourTable;
  spare: ColourTable;
  /** The two cores of a switch loop, where the neutral's colour is re-used. */
  loopLine: ColourTable;
  loopLoad: ColourTable;
}

/** A habit that makes a cable of its kind more or less common than the usual list has it. */
export interface PatternOdds {
  /** Only cables of a switch loop, or drop. */
  loop?: boolean;
  cores?: number;
  /** What one of its cores is. */
  holds?: 'spare' | 'line-on';
  times: number;
}

/** The family a practice wires like: which usual boxes are offered, and which odd patterns exist at all. */
export type WiringHabit = 'north-american' | 'british' | 'modular';

/** A row of a table of standard boxes: volume in the unit the trade gives it in, depth mm. */
export type StandardBoxRow = readonly [
  id: string,
  name: string,
  volume: number,
  depth: number,
  gangs?: number,
];

/**
 * All that differs between practices, one object each. What a practice does not say is the same everywhere
 * and stands in the engines. Lengths mm, volumes mL, amperes, volts.
 */
export interface PracticeProfile {
  id: PracticeId;
  /** Its name in a list to choose from. */
  title: string;
  words: Words;
  units: UnitSystem;
  /** The unit in which its boxes and rings are marked and typed. */
  volumesIn: 'in3' | 'mL';
  /** Editions of its counting rule; null where it has one at most. */
  editions: { known: readonly Edition[]; usual: Edition } | null;
  /** How the fill of a box is counted; null where no count exists and depth and packing decide. */
  count: ((edition: Edition | undefined) => CountingRule) | null;
  /** What every result says beside "the locally adopted code rules". */
  notes: readonly string[];
  wiring: WiringHabit;
  connectors: { preferred: readonly ConnectorKind[]; usual: 'twist-on' | 'lever' };
  sizes: {
    /** A device's lead of unknown size. */
    lead: WireSize;
    /** A new cable on a breaker, the first that is large enough; the last for any other. */
    cable: readonly { upToAmps: number; size: WireSize }[];
    /** What its conductors are measured in. */
    named: 'AWG' | 'mm2';
  };
  /** Cable of today, and of houses wired before the colours changed; null where they never did. */
  colours: { today: CableColours; old: CableColours | null };
  /** Cores that may be made a neutral again by marking them; `any`: whatever their colour. */
  neutralColours: readonly Colour[] | 'any';
  boxes: { rows: readonly StandardBoxRow[]; source: string };
  /**
   * What boxes of its houses usually are beside that list: volumes marked in them, in `volumesIn`, by gangs
   * (none where no count asks for one), and depths, mm.
   */
  usualBoxes: { volumes: Readonly<Record<number, readonly number[]>>; depths: readonly number[] };
  /** A box nobody has looked at. */
  newBox: { gangs: number; material: 'metal' | 'plastic'; grounded: boolean };
  /** Centre to centre of devices side by side, and inside width and height of a box nobody measured. */
  face: { spacing: number; width: number; height: number };
  /** What its plain switches usually measure, where that is not the usual for all. */
  switchBody: SwitchBody | null;
  /** A device wider than its position counts for each gang it takes. */
  deviceTakesItsGangs: boolean;
  /** What hangs on the wall. */
  circuit: {
    amps: number;
    volts: number;
    legs: readonly Leg[];
    legWord: string;
    protections: readonly Protection[];
  };
  /** Nominal supply, and the band that counts as supply when the tester's known source was not recorded. */
  supply: { nominal: number; from: number; to: number; lineToLine: readonly [number, number] | null };
  /** Chance that an indicator alerts on a floating conductor beside a live one. */
  floatingAlert: number;
  /** What may be drawn from one socket; null: all its circuit gives. */
  socketAmps: number | null;
  /** The rule by which a conductor's size limits its breaker; null where its list is not the usual rule. */
  breakerBySize: string | null;
  evidence: {
    colours: ColourEvidence;
    patterns: readonly PatternOdds[];
    /** How much more common a ring, or two feeds joined, is than elsewhere. */
    ring: number;
  };
  /** What a new data sheet of a device begins with. */
  newDevice: { volts: readonly [number, number]; form: TerminalForm };
}

/** `perModule`: so wide for each module; `sharedByYoke`: one body serves all switches of a plate. */
interface SwitchBody {
  kinds: ReadonlySet<ExistingDevice>;
  body: Body;
  perModule: boolean;
  sharedByYoke: boolean;
}
