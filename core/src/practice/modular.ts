import { plural } from '../units/plural.js';
import { PLAIN_SWITCHES } from './bodies.js';
import { METRIC } from './metric.js';
import type { PracticeProfile, StandardBoxRow } from './profile.js';
import { BRITISH_WORDS } from './words.js';

const BOXES: readonly StandardBoxRow[] = [1, 2, 3, 4, 6, 8, 12].map(
  (modules): StandardBoxRow => [
    `mod-${modules}`,
    `${plural(modules, 'module')}, 45 mm`,
    (22.5 * modules * 45 * 45) / 1000,
    45,
    modules,
  ],
);

export const MODULAR: PracticeProfile = {
  ...METRIC,
  id: 'modular',
  title: 'Modular plates',
  words: { ...BRITISH_WORDS, practice: 'modular plates', gang: 'module' },
  wiring: 'modular',
  colours: {
    today: {
      line: 'red',
      neutral: 'black',
      ground: 'green',
      load: 'red',
      travelers: ['yellow', 'blue'],
      strappers: ['red', 'yellow', 'blue'],
    },
    old: null,
  },
  boxes: { rows: BOXES, source: 'Inside measures, no count stands on them' },
  usualBoxes: { volumes: {}, depths: [45, 50, 60] },
  newBox: { gangs: 2, material: 'plastic', grounded: false },
  face: { spacing: 22.5, width: 28, height: 53 },
  switchBody: {
    kinds: PLAIN_SWITCHES,
    body: { width: 22, height: 45, depth: 30 },
    perModule: true,
    sharedByYoke: false,
  },
  supply: { nominal: 230, from: 185, to: 260, lineToLine: [330, 450] },
  socketAmps: null,
  evidence: {
    colours: {
      hot: { red: 0.5, yellow: 0.2, blue: 0.2, black: 0.01 },
      load: { red: 0.34, yellow: 0.22, blue: 0.25, black: 0.04, white: 0.03 },
      neutral: { black: 0.93, blue: 0.02, red: 0.003 },
      traveler: { yellow: 0.3, blue: 0.3, red: 0.25 },
      spare: { yellow: 0.25, blue: 0.25, red: 0.25, black: 0.15 },
      loopLine: { red: 0.5, yellow: 0.2, blue: 0.2 },
      loopLoad: { red: 0.34, yellow: 0.22, blue: 0.25 },
    },
    // One wire a load, each alone in its conduit.
    patterns: [{ cores: 1, times: 3 }],
    ring: 1,
  },
};
