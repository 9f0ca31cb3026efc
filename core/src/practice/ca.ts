import type { CountingRule, FillRule } from './counting.js';
import { CEC_FIGURES } from './figures/fill.js';
import { NORTH_AMERICA } from './north-america.js';
import type { PracticeProfile, StandardBoxRow } from './profile.js';

const CLAUSE = '12-3034';
const CLAUSES: Record<FillRule, string> = {
  conductor: CLAUSE,
  loop: CLAUSE,
  clamps: CLAUSE,
  support: CLAUSE,
  device: CLAUSE,
  ground: CLAUSE,
  'ground-extra': CLAUSE,
  'isolated-ground': CLAUSE,
  'terminal-block': CLAUSE,
  connectors: CLAUSE,
};

const RULE: CountingRule = {
  method: 'cec-12-3034',
  scheme: 'by-pair',
  clauses: CLAUSES,
  capacityClause: '12-3034, Table 23',
  figures: CEC_FIGURES,
  isolatedGroundsApart: false,
  terminalBlocksCount: false,
};

/** CE Code Table 23, mL. */
const BOXES: readonly StandardBoxRow[] = [
  ['ca-oct-4-150', 'Octagon 4 x 1-1/2', 245, 38],
  ['ca-oct-4-212', 'Octagon 4 x 2-1/8', 344, 54],
  ['ca-sq-4-150', 'Square 4 x 1-1/2', 344, 38, 2],
  ['ca-sq-4-212', 'Square 4 x 2-1/8', 491, 54, 2],
  ['ca-sq-411-150', 'Square 4-11/16 x 1-1/2', 491, 38, 2],
  ['ca-sq-411-212', 'Square 4-11/16 x 2-1/8', 688, 54, 2],
  ['ca-dev-150', 'Device 3 x 2 x 1-1/2', 131, 38],
  ['ca-dev-200', 'Device 3 x 2 x 2', 163, 51],
  ['ca-dev-225', 'Device 3 x 2 x 2-1/4', 163, 57],
  ['ca-dev-250', 'Device 3 x 2 x 2-1/2', 204, 64],
  ['ca-dev-300', 'Device 3 x 2 x 3', 245, 76],
  ['ca-dev4-150', 'Device 4 x 2 x 1-1/2', 147, 38],
  ['ca-dev4-187', 'Device 4 x 2-1/8 x 1-7/8', 229, 48],
  ['ca-dev4b-187', 'Device 4 x 2-3/8 x 1-7/8', 262, 48],
  ['ca-masonry-250', 'Masonry 3-3/4 x 2 x 2-1/2, per gang', 229, 64],
  ['ca-masonry-350', 'Masonry 3-3/4 x 2 x 3-1/2, per gang', 344, 89],
];

export const CA: PracticeProfile = {
  ...NORTH_AMERICA,
  id: 'ca',
  title: 'Canada',
  words: { ...NORTH_AMERICA.words, practice: 'Canada' },
  units: 'metric',
  volumesIn: 'mL',
  usualBoxes: {
    volumes: { 1: [295, 333, 369], 2: [524, 557], 3: [721, 803], 4: [983, 1114] },
    depths: NORTH_AMERICA.usualBoxes.depths,
  },
  editions: null,
  count: () => RULE,
  notes: ['Confirm against the edition in force.'],
  boxes: { rows: BOXES, source: 'CE Code, Table 23' },
  breakerBySize: 'CE Code, Rule 14-104',
};
