import type { PracticeProfile } from './profile.js';
import { USUAL_WORDS } from './words.js';

/** What the two practices of North America have in common. */
export const NORTH_AMERICA = {
  words: USUAL_WORDS,
  wiring: 'north-american',
  connectors: { preferred: ['twist-on', 'lever'], usual: 'twist-on' },
  sizes: {
    lead: '18AWG',
    cable: [
      { upToAmps: 15, size: '14AWG' },
      { upToAmps: Number.POSITIVE_INFINITY, size: '12AWG' },
    ],
    named: 'AWG',
  },
  colours: {
    today: {
      line: 'black',
      neutral: 'white',
      ground: 'bare',
      load: 'black',
      travelers: ['black', 'red'],
      strappers: ['white', 'black', 'red'],
    },
    old: null,
  },
  neutralColours: ['white', 'grey'],
  newBox: { gangs: 1, material: 'plastic', grounded: false },
  usualBoxes: {
    volumes: { 1: [18, 20.3, 22.5], 2: [32, 34], 3: [44, 49], 4: [60, 68] },
    depths: [64, 70, 76, 89],
  },
  face: { spacing: 46, width: 51, height: 76 },
  switchBody: null,
  deviceTakesItsGangs: true,
  circuit: {
    amps: 15,
    volts: 120,
    legs: ['A', 'B'],
    legWord: 'Leg',
    protections: ['none', 'gfci', 'afci', 'dual'],
  },
  supply: { nominal: 120, from: 110, to: 130, lineToLine: [205, 255] },
  floatingAlert: 0.4,
  socketAmps: null,
  evidence: {
    colours: {
      hot: { black: 0.76, red: 0.14, white: 0.03, blue: 0.03 },
      load: { black: 0.6, red: 0.24, white: 0.04, blue: 0.06 },
      neutral: { white: 0.93, grey: 0.03, black: 0.005, red: 0.003 },
      traveler: { red: 0.42, black: 0.3, white: 0.14, blue: 0.06, yellow: 0.02 },
      spare: { red: 0.35, black: 0.2, white: 0.2, blue: 0.1 },
      // White is the always-hot side of most switch loops.
      loopLine: { white: 0.62, black: 0.3, red: 0.05 },
      loopLoad: { black: 0.62, red: 0.17, white: 0.16, blue: 0.03 },
    },
    patterns: [],
    ring: 1,
  },
  newDevice: { volts: [110, 127], form: 'lead' },
} as const satisfies Partial<Omit<PracticeProfile, 'words'>> & {
  words: Omit<PracticeProfile['words'], 'practice'>;
};
