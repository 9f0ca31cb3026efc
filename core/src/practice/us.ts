import type { Edition } from '../terms/trade.js';
import type { CountingRule, FillMethod } from './counting.js';
import { necFigures } from './figures/fill.js';
import { NORTH_AMERICA } from './north-america.js';
import type { PracticeProfile, StandardBoxRow } from './profile.js';

const CLAUSES: CountingRule['clauses'] = {
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
};

const nec = (
  edition: Edition,
  table: string,
  groundsTogether: number | null,
  more: Pick<CountingRule, 'isolatedGroundsApart' | 'terminalBlocksCount'>,
): CountingRule => ({
  method: `nec-${edition}` satisfies FillMethod,
  scheme: 'by-yoke',
  clauses: CLAUSES,
  capacityClause: '314.16(A)',
  figures: necFigures(`NEC ${edition}`, table, groundsTogether),
  ...more,
});

/** NEC 314.16: all grounds count once until 2017, four of them since; blocks count from 2023. */
const RULES: Record<Edition, CountingRule> = {
  '2017': nec('2017', 'Table 314.16(B)', null, { isolatedGroundsApart: true, terminalBlocksCount: false }),
  '2020': nec('2020', 'Table 314.16(B)(1)', 4, { isolatedGroundsApart: false, terminalBlocksCount: false }),
  '2023': nec('2023', 'Table 314.16(B)(1)', 4, { isolatedGroundsApart: false, terminalBlocksCount: true }),
};
const USUAL_EDITION: Edition = '2023';

/**
 * NEC Table 314.16(A), in3; depth in mm from the nominal inches. A box of two device widths is listed for two
 * gangs.
 */
const BOXES: readonly StandardBoxRow[] = [
  ['oct-4-125', 'Round or octagon 4 x 1-1/4', 12.5, 32],
  ['oct-4-150', 'Round or octagon 4 x 1-1/2', 15.5, 38],
  ['oct-4-212', 'Round or octagon 4 x 2-1/8', 21.5, 54],
  ['sq-4-125', 'Square 4 x 1-1/4', 18.0, 32, 2],
  ['sq-4-150', 'Square 4 x 1-1/2', 21.0, 38, 2],
  ['sq-4-212', 'Square 4 x 2-1/8', 30.3, 54, 2],
  ['sq-411-125', 'Square 4-11/16 x 1-1/4', 25.5, 32, 2],
  ['sq-411-150', 'Square 4-11/16 x 1-1/2', 29.5, 38, 2],
  ['sq-411-212', 'Square 4-11/16 x 2-1/8', 42.0, 54, 2],
  ['dev-150', 'Device 3 x 2 x 1-1/2', 7.5, 38],
  ['dev-200', 'Device 3 x 2 x 2', 10.0, 51],
  ['dev-225', 'Device 3 x 2 x 2-1/4', 10.5, 57],
  ['dev-250', 'Device 3 x 2 x 2-1/2', 12.5, 64],
  ['dev-275', 'Device 3 x 2 x 2-3/4', 14.0, 70],
  ['dev-350', 'Device 3 x 2 x 3-1/2', 18.0, 89],
  ['dev4-150', 'Device 4 x 2-1/8 x 1-1/2', 10.3, 38],
  ['dev4-187', 'Device 4 x 2-1/8 x 1-7/8', 13.0, 48],
  ['dev4-212', 'Device 4 x 2-1/8 x 2-1/8', 14.5, 54],
  ['masonry-250', 'Masonry 3-3/4 x 2 x 2-1/2, per gang', 14.0, 64],
  ['masonry-350', 'Masonry 3-3/4 x 2 x 3-1/2, per gang', 21.0, 89],
];

export const US: PracticeProfile = {
  ...NORTH_AMERICA,
  id: 'us',
  title: 'United States',
  words: { ...NORTH_AMERICA.words, practice: 'United States' },
  units: 'inch',
  volumesIn: 'in3',
  editions: { known: ['2017', '2020', '2023'], usual: USUAL_EDITION },
  count: (edition = USUAL_EDITION) => RULES[edition],
  notes: [],
  boxes: { rows: BOXES, source: 'NEC Table 314.16(A)' },
  breakerBySize: 'NEC 240.4(D)',
};
