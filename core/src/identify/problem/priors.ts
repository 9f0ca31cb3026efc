import type { ColourEvidence, PatternOdds, PracticeProfile, WiringHabit } from '../../practice/profile.js';
import type { Colour } from '../../terms/trade.js';
import type { CoreClass, FarKind } from './vocabulary.js';

/** How common a cable of these conductors is; orders of it share the weight and are told apart by colour. */
export interface PatternPrior {
  classes: readonly CoreClass[];
  far?: FarKind;
  weight: number;
  /** Colours follow the drop: the re-used conductor is the always-hot side or the switched one. */
  loop?: boolean;
  /** The one habit that wires so. */
  only?: WiringHabit;
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
  { classes: ['traveler', 'line-on', 'switched-line'], far: 'conversion', weight: 0.1, only: 'british' },
  { classes: ['traveler', 'line', 'load'], far: 'conversion', weight: 0.1, only: 'british' },
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

/** Patterns of so many cores, weighted as the practice's habits have them. */
export function patternsOf(
  cores: number,
  { wiring, evidence }: Pick<PracticeProfile, 'wiring' | 'evidence'>,
): PatternPrior[] {
  return COMMON.filter(({ classes, only }) => classes.length === cores && (only ?? wiring) === wiring).map(
    (pattern) => ({
      ...pattern,
      weight: pattern.weight * (evidence.patterns.find((odds) => isOf(pattern, odds))?.times ?? 1),
    }),
  );
}

function isOf(pattern: PatternPrior, odds: PatternOdds): boolean {
  return (
    (odds.loop === undefined || odds.loop === (pattern.loop === true)) &&
    (odds.cores === undefined || odds.cores === pattern.classes.length) &&
    (odds.holds === undefined || pattern.classes.includes(odds.holds))
  );
}

/** Cores beyond the usual patterns, one by one, as in conduit. */
export const SINGLE_WEIGHTS: readonly (readonly [CoreClass, number])[] = [
  ['line', 0.25],
  ['line-on', 0.05],
  ['load', 0.35],
  ['neutral-in', 0.2],
  ['return', 0.05],
  ['spare', 0.1],
  ['traveler', 0],
  ['switched-line', 0.01],
];

/** Colours a table does not name. */
const OTHER = 0.01;

const TABLE_OF: Record<CoreClass, keyof ColourEvidence> = {
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
export function colourPrior(
  { evidence }: Pick<PracticeProfile, 'evidence'>,
  core: CoreClass,
  colour: Colour,
  loop: boolean,
): number {
  if (colour === 'unknown') return 0.1;
  const name = loop && core === 'line' ? 'loopLine' : loop && core === 'load' ? 'loopLoad' : TABLE_OF[core];
  return evidence.colours[name][colour] ?? OTHER;
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
