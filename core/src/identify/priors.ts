import type { Colour, PracticeId } from '../job/schema/primitives.js';
import type { CoreClass, FarKind } from './vocabulary.js';

/** How common a cable of these conductors is; orders of it share the weight and are told apart by colour. */
export interface PatternPrior {
  classes: readonly CoreClass[];
  far?: FarKind;
  weight: number;
  /** Colours follow the drop: the re-used conductor is the always-hot side or the switched one. */
  loop?: boolean;
  /** The one practice that wires so. */
  only?: PracticeId;
}

/** Patterns with their weights before colour. Sums do not matter; ratios do. */
const COMMON: readonly PatternPrior[] = [
  { classes: ['line'], weight: 0.3 },
  { classes: ['load'], weight: 0.3 },
  { classes: ['neutral-in'], weight: 0.2 },
  { classes: ['line-on'], weight: 0.1 },
  { classes: ['switched-line'], weight: 0.02 },
  { classes: ['spare'], weight: 0.1 },

  { classes: ['line', 'neutral-in'], weight: 1 },
  { classes: ['load', 'return'], weight: 1 },
  { classes: ['line-on', 'neutral-out'], weight: 0.6 },
  { classes: ['line', 'load'], weight: 0.5, loop: true },
  { classes: ['switched-line', 'neutral-in'], weight: 0.02 },
  { classes: ['line', 'line'], weight: 0.01 },
  { classes: ['load', 'load'], weight: 0.02 },
  { classes: ['line-on', 'line-on'], weight: 0.002 },
  { classes: ['spare', 'spare'], weight: 0.02 },
  { classes: ['line', 'spare'], weight: 0.003 },
  { classes: ['load', 'spare'], weight: 0.003 },
  { classes: ['line-on', 'load'], weight: 0.01, loop: true },
  { classes: ['traveler', 'traveler'], far: 'fed', weight: 0.15 },
  { classes: ['traveler', 'traveler'], far: 'load', weight: 0.15 },

  { classes: ['line', 'load', 'neutral-in'], weight: 0.5, loop: true },
  { classes: ['load', 'load', 'return'], weight: 0.3 },
  { classes: ['line', 'line', 'neutral-in'], weight: 0.15 },
  { classes: ['line-on', 'line-on', 'neutral-out'], weight: 0.05 },
  { classes: ['line-on', 'load', 'return'], weight: 0.05 },
  { classes: ['line', 'load', 'load'], weight: 0.05, loop: true },
  { classes: ['line', 'neutral-in', 'spare'], weight: 0.05 },
  { classes: ['load', 'return', 'spare'], weight: 0.08 },
  { classes: ['line-on', 'neutral-out', 'spare'], weight: 0.03 },
  { classes: ['line', 'load', 'spare'], weight: 0.05, loop: true },
  { classes: ['line', 'switched-line', 'neutral-in'], weight: 0.01 },
  { classes: ['spare', 'spare', 'spare'], weight: 0.005 },
  { classes: ['traveler', 'traveler', 'neutral-in'], far: 'fed', weight: 0.5 },
  { classes: ['traveler', 'traveler', 'return'], far: 'load', weight: 0.5 },
  { classes: ['traveler', 'traveler', 'neutral-out'], far: 'fed', weight: 0.05 },
  { classes: ['traveler', 'traveler', 'line-on'], far: 'fed-by-third', weight: 0.15 },
  { classes: ['traveler', 'traveler', 'line'], far: 'fed', weight: 0.05 },
  { classes: ['traveler', 'traveler', 'line'], far: 'load', weight: 0.02 },
  { classes: ['traveler', 'traveler', 'switched-line'], far: 'load-by-third', weight: 0.15 },
  { classes: ['traveler', 'traveler', 'load'], far: 'fed', weight: 0.05 },
  { classes: ['traveler', 'line-on', 'switched-line'], far: 'conversion', weight: 0.1, only: 'gb' },
  { classes: ['traveler', 'line', 'load'], far: 'conversion', weight: 0.1, only: 'gb' },
  { classes: ['traveler', 'traveler', 'spare'], far: 'fed', weight: 0.03 },
  { classes: ['traveler', 'traveler', 'spare'], far: 'load', weight: 0.03 },

  { classes: ['line', 'load', 'load', 'neutral-in'], weight: 0.05, loop: true },
  { classes: ['load', 'load', 'return', 'spare'], weight: 0.03 },
  { classes: ['load', 'load', 'load', 'return'], weight: 0.03 },
  { classes: ['line', 'line', 'neutral-in', 'spare'], weight: 0.01 },
  { classes: ['line', 'neutral-in', 'spare', 'spare'], weight: 0.01 },
  { classes: ['line-on', 'load', 'load', 'return'], weight: 0.01 },
  { classes: ['traveler', 'traveler', 'line', 'neutral-in'], far: 'fed', weight: 0.03 },
  { classes: ['traveler', 'traveler', 'line-on', 'neutral-out'], far: 'fed-by-third', weight: 0.05 },
  { classes: ['traveler', 'traveler', 'switched-line', 'neutral-out'], far: 'load-by-third', weight: 0.03 },
  { classes: ['traveler', 'traveler', 'load', 'return'], far: 'fed', weight: 0.02 },
];

/** What a practice has more or less of than North America. */
const MORE: Record<PracticeId, (pattern: PatternPrior) => number> = {
  us: () => 1,
  ca: () => 1,
  // Ceiling-fed drops without neutral, the line looped at the switch, two-way in three-core.
  gb: ({ classes, loop }) =>
    loop && classes.length === 2
      ? 3
      : loop && classes.length === 3 && classes.includes('spare')
        ? 3
        : classes.includes('line-on')
          ? 1.5
          : 1,
  modular: ({ classes }) => (classes.length === 1 ? 3 : 1),
};

export function patternsOf(cores: number, practice: PracticeId): PatternPrior[] {
  return COMMON.filter(
    ({ classes, only }) => classes.length === cores && (only ?? practice) === practice,
  ).map((pattern) => ({
    ...pattern,
    weight: pattern.weight * MORE[practice](pattern),
  }));
}

/** Cores beyond the usual patterns, one by one, as in conduit. */
export const SINGLE_WEIGHT: Partial<Record<CoreClass, number>> = {
  line: 0.25,
  'line-on': 0.05,
  load: 0.35,
  'neutral-in': 0.2,
  return: 0.05,
  spare: 0.1,
  traveler: 0,
  'switched-line': 0.01,
};

type Table = Partial<Record<Colour, number>>;
const OTHER = 0.01;

interface ColourTables {
  hot: Table;
  load: Table;
  neutral: Table;
  traveler: Table;
  spare: Table;
  loopLine: Table;
  loopLoad: Table;
}

const NORTH_AMERICA: ColourTables = {
  hot: { black: 0.76, red: 0.14, white: 0.03, blue: 0.03 },
  load: { black: 0.6, red: 0.24, white: 0.04, blue: 0.06 },
  neutral: { white: 0.93, grey: 0.03, black: 0.005, red: 0.003 },
  traveler: { red: 0.42, black: 0.3, white: 0.14, blue: 0.06, yellow: 0.02 },
  spare: { red: 0.35, black: 0.2, white: 0.2, blue: 0.1 },
  // White is the always-hot side of most switch loops.
  loopLine: { white: 0.62, black: 0.3, red: 0.05 },
  loopLoad: { black: 0.62, red: 0.17, white: 0.16, blue: 0.03 },
};

const COLOURS: Record<PracticeId, ColourTables> = {
  us: NORTH_AMERICA,
  ca: NORTH_AMERICA,
  gb: {
    hot: { red: 0.46, brown: 0.46, black: 0.02, yellow: 0.01, blue: 0.01 },
    load: { red: 0.36, brown: 0.36, black: 0.08, blue: 0.08, yellow: 0.04, grey: 0.03 },
    neutral: { black: 0.46, blue: 0.46, grey: 0.01, red: 0.003, brown: 0.003 },
    traveler: { yellow: 0.25, blue: 0.2, black: 0.2, grey: 0.2, red: 0.06, brown: 0.06 },
    spare: { yellow: 0.2, grey: 0.2, blue: 0.2, black: 0.2, red: 0.08, brown: 0.08 },
    // In a drop the red or brown core is the permanent live, the black or blue one the switched live.
    loopLine: { red: 0.47, brown: 0.47, black: 0.02, blue: 0.02 },
    loopLoad: { black: 0.42, blue: 0.42, yellow: 0.05, grey: 0.04, red: 0.02, brown: 0.02 },
  },
  modular: {
    hot: { red: 0.5, yellow: 0.2, blue: 0.2, black: 0.01 },
    load: { red: 0.34, yellow: 0.22, blue: 0.25, black: 0.04, white: 0.03 },
    neutral: { black: 0.93, blue: 0.02, red: 0.003 },
    traveler: { yellow: 0.3, blue: 0.3, red: 0.25 },
    spare: { yellow: 0.25, blue: 0.25, red: 0.25, black: 0.15 },
    loopLine: { red: 0.5, yellow: 0.2, blue: 0.2 },
    loopLoad: { red: 0.34, yellow: 0.22, blue: 0.25 },
  },
};

const TABLE_OF: Record<CoreClass, keyof ColourTables> = {
  line: 'hot',
  'line-on': 'hot',
  'switched-line': 'load',
  load: 'load',
  'neutral-in': 'neutral',
  'neutral-out': 'neutral',
  return: 'neutral',
  traveler: 'traveler',
  spare: 'spare',
};

/** How likely a conductor of this class has this colour: a prior only. An unknown colour tells nothing. */
export function colourPrior(practice: PracticeId, core: CoreClass, colour: Colour, loop: boolean): number {
  if (colour === 'unknown') return 0.1;
  const tables = COLOURS[practice];
  const name = loop && core === 'line' ? 'loopLine' : loop && core === 'load' ? 'loopLoad' : TABLE_OF[core];
  return tables[name][colour] ?? OTHER;
}

/** Ground by its looks, before anything is read: bare surest, then green-yellow, then green. */
export const GROUND_PRIOR: Partial<Record<Colour, number>> = {
  bare: 0.998,
  'green-yellow': 0.996,
  green: 0.99,
};

/** Odd things a box can be found with; each lets an explanation live with a share of its weight. */
export const ODDS = {
  /** A switch in the neutral, or with an idle terminal. */
  idleTerminal: 0.01,
  neutralSwitched: 0.001,
  /** A multi-location switch used as a plain one. */
  threeWayAsPlain: 0.03,
  receptacleSwitched: 0.15,
  /** The load or the spare is not where it usually ends. */
  loadNotOnSwitch: 0.03,
  /** Two loads on one terminal, or a load carried to its switch by a tail from a joint. */
  loadUnderOneScrew: 0.1,
  loadByTail: 0.15,
  spareJoined: 0.02,
  spareOnTerminal: 0.02,
  usedButCapped: 0.05,
  twoFeedsOneNeutral: 0.02,
  /** Both ends of a ring, or two feeds joined. */
  ring: 0.002,
  outsideCircuit: 0.03,
  /** One that a reading or a run shows in the box beside its own. */
  shownCircuit: 0.1,
  unnamedLoad: 0.03,
} as const;
