import type { CountingRule } from '../practice/counting.js';
import { CEC_FIGURES } from '../practice/figures/fill.js';
import { NORTH_AMERICA } from '../practice/north-america.js';
import type { PracticeProfile } from '../practice/profile.js';
import { PROFILES } from '../practice/profiles.js';
import type { PracticeId } from '../terms/trade.js';

const CLAUSE = 'Lattice 7';
const RULE: CountingRule = {
  method: 'cec-12-3034',
  scheme: 'by-pair',
  clauses: {
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
  },
  capacityClause: CLAUSE,
  figures: CEC_FIGURES.map((figure) => ({ ...figure, source: CLAUSE })),
  isolatedGroundsApart: false,
  terminalBlocksCount: false,
};

/** A practice nobody has: 100 V, a count by pairs in inches, orange lines, sockets of 9 A. */
export const LATTICE: PracticeProfile = {
  ...NORTH_AMERICA,
  id: 'lattice' as PracticeId,
  title: 'Lattice',
  words: {
    ...NORTH_AMERICA.words,
    practice: 'lattice houses',
    roles: { ...NORTH_AMERICA.words.roles, line: 'warm' },
  },
  units: 'inch',
  volumesIn: 'in3',
  editions: null,
  count: () => RULE,
  notes: ['Ask the lattice keeper.'],
  connectors: { preferred: ['crimp', 'lever'], usual: 'lever' },
  sizes: {
    lead: '0.75mm2',
    cable: [{ upToAmps: Number.POSITIVE_INFINITY, size: '2.5mm2' }],
    named: 'mm2',
  },
  colours: {
    today: {
      line: 'orange',
      neutral: 'grey',
      ground: 'green',
      load: 'orange',
      travelers: ['pink', 'tan'],
      strappers: ['orange', 'pink', 'tan'],
    },
    old: null,
  },
  boxes: { rows: [['lat-1', 'Lattice box', 18, 60]], source: CLAUSE },
  newBox: { gangs: 1, material: 'metal', grounded: true },
  supply: { nominal: 100, from: 95, to: 107, lineToLine: null },
  circuit: { ...NORTH_AMERICA.circuit, amps: 10, volts: 100 },
  socketAmps: 9,
  breakerBySize: null,
  evidence: {
    ...NORTH_AMERICA.evidence,
    colours: {
      ...NORTH_AMERICA.evidence.colours,
      hot: { orange: 0.95 },
      load: { orange: 0.9 },
      neutral: { grey: 0.95 },
    },
  },
};

/** Puts the fifth practice among the others; the answer takes it out again. */
export function addFifthPractice(): () => void {
  const all = PROFILES as Record<string, PracticeProfile>;
  all[LATTICE.id] = LATTICE;
  return () => {
    delete all[LATTICE.id];
  };
}
