import type { Job } from '../job/schema/job.js';
import { ML_PER_IN3 } from '../units/volume.js';
import type { Gauge } from './wire.js';

/** Names of the counting methods, as results print them. */
export type FillMethod = 'nec-2017' | 'nec-2020' | 'nec-2023' | 'cec-12-3034' | 'none';

export function methodOf(job: Pick<Job, 'practice' | 'edition'>): FillMethod {
  switch (job.practice) {
    case 'us':
      return `nec-${job.edition ?? '2023'}`;
    case 'ca':
      return 'cec-12-3034';
    default:
      return 'none';
  }
}

const in3 = (value: number) => value * ML_PER_IN3;

/** NEC Table 314.16(B) of 2017, 314.16(B)(1) since: volume per conductor, given in in3. */
const US_ALLOWANCE: Record<Gauge, number> = {
  '18AWG': in3(1.5),
  '16AWG': in3(1.75),
  '14AWG': in3(2.0),
  '12AWG': in3(2.25),
  '10AWG': in3(2.5),
  '8AWG': in3(3.0),
  '6AWG': in3(5.0),
};

/** CE Code Table 22: mL per insulated conductor. It begins at 14 AWG; smaller conductors count as that. */
const CA_ALLOWANCE: Record<Gauge, number> = {
  '18AWG': 24.6,
  '16AWG': 24.6,
  '14AWG': 24.6,
  '12AWG': 28.7,
  '10AWG': 36.9,
  '8AWG': 45.1,
  '6AWG': 73.7,
};

export type FillRule =
  | 'conductor'
  | 'loop'
  | 'clamps'
  | 'support'
  | 'device'
  | 'ground'
  | 'ground-extra'
  | 'isolated-ground'
  | 'terminal-block'
  | 'connectors';

const NEC = {
  conductor: '314.16(B)(1)',
  loop: '314.16(B)(1)',
  clamps: '314.16(B)(2)',
  support: '314.16(B)(3)',
  device: '314.16(B)(4)',
  ground: '314.16(B)(5)',
  'ground-extra': '314.16(B)(5)',
  'isolated-ground': '314.16(B)(5)',
  'terminal-block': '314.16(B)(6)',
  connectors: '314.16(B)',
} as const satisfies Record<FillRule, string>;

/**
 * What a counting method consists of. Volumes in mL. The locally adopted code and the maker's instructions
 * rule.
 */
export interface FillFigures {
  allowance: Record<Gauge, number>;
  table: string;
  clauses: Record<FillRule, string>;
  capacityClause: string;
  /** A loop this long or longer counts twice, mm; twice the free length of 300.14. */
  loopFrom: number;
  /** Beyond how many grounds each further one counts a quarter; Infinity: all together always count once. */
  groundsTogether: number;
  isolatedGroundsApart: boolean;
  terminalBlocksCount: boolean;
}

const necSince2020 = {
  allowance: US_ALLOWANCE,
  table: 'Table 314.16(B)(1)',
  clauses: NEC,
  capacityClause: '314.16(A)',
  loopFrom: 304,
  groundsTogether: 4,
  isolatedGroundsApart: false,
};

const ceCode = Object.fromEntries(Object.keys(NEC).map((rule) => [rule, '12-3034'])) as Record<
  FillRule,
  string
>;

export const FILL_FIGURES: Record<Exclude<FillMethod, 'none'>, FillFigures> = {
  'nec-2017': {
    ...necSince2020,
    table: 'Table 314.16(B)',
    groundsTogether: Number.POSITIVE_INFINITY,
    isolatedGroundsApart: true,
    terminalBlocksCount: false,
  },
  'nec-2020': { ...necSince2020, terminalBlocksCount: false },
  'nec-2023': { ...necSince2020, terminalBlocksCount: true },
  'cec-12-3034': {
    allowance: CA_ALLOWANCE,
    table: 'Table 22',
    clauses: ceCode,
    capacityClause: '12-3034, Table 23',
    loopFrom: Number.POSITIVE_INFINITY,
    groundsTogether: Number.POSITIVE_INFINITY,
    isolatedGroundsApart: false,
    terminalBlocksCount: false,
  },
};

/** CE Code 12-3034: a device deeper than this behind its strap counts by its depth, mm and mL per mm. */
export const CA_DEEP_DEVICE = { from: 25.4, mlPerMm: 3.28 };
