import { PLAIN_SWITCHES } from './bodies.js';
import { METRIC } from './metric.js';
import type { PracticeProfile, StandardBoxRow } from './profile.js';
import { BRITISH_WORDS } from './words.js';

/** Back boxes by depth; their volume (inside width x height x depth) serves the packing estimate alone. */
const BOXES: readonly StandardBoxRow[] = [16, 25, 35, 47].flatMap((depth): StandardBoxRow[] => [
  [`gb-1-${depth}`, `One gang, ${depth} mm`, (68 * 68 * depth) / 1000, depth, 1],
  [`gb-2-${depth}`, `Two gangs, ${depth} mm`, (130 * 68 * depth) / 1000, depth, 2],
]);

export const GB: PracticeProfile = {
  ...METRIC,
  id: 'gb',
  title: 'Britain',
  words: { ...BRITISH_WORDS, practice: 'Britain' },
  wiring: 'british',
  colours: {
    today: {
      line: 'brown',
      neutral: 'blue',
      ground: 'green-yellow',
      load: 'brown',
      travelers: ['black', 'grey'],
      strappers: ['brown', 'black', 'grey'],
    },
    old: {
      line: 'red',
      neutral: 'black',
      ground: 'bare',
      load: 'red',
      travelers: ['yellow', 'blue'],
      strappers: ['red', 'yellow', 'blue'],
    },
  },
  boxes: { rows: BOXES, source: 'Inside measures, no count stands on them' },
  usualBoxes: { volumes: {}, depths: [16, 25, 35, 47] },
  newBox: { gangs: 1, material: 'metal', grounded: true },
  face: { spacing: 62, width: 68, height: 68 },
  switchBody: {
    kinds: PLAIN_SWITCHES,
    body: { width: 60, height: 60, depth: 18 },
    perModule: false,
    sharedByYoke: true,
  },
  supply: { nominal: 230, from: 212, to: 255, lineToLine: [370, 440] },
  socketAmps: 13,
  evidence: {
    colours: {
      hot: { red: 0.46, brown: 0.46, black: 0.02, yellow: 0.01, blue: 0.01 },
      load: { red: 0.36, brown: 0.36, black: 0.08, blue: 0.08, yellow: 0.04, grey: 0.03 },
      neutral: { black: 0.46, blue: 0.46, grey: 0.01, red: 0.003, brown: 0.003 },
      traveler: { yellow: 0.25, blue: 0.2, black: 0.2, grey: 0.2, red: 0.06, brown: 0.06 },
      spare: { yellow: 0.2, grey: 0.2, blue: 0.2, black: 0.2, red: 0.08, brown: 0.08 },
      // In a drop the red or brown core is the permanent live, the black or blue one the switched live.
      loopLine: { red: 0.47, brown: 0.47, black: 0.02, blue: 0.02 },
      loopLoad: { black: 0.42, blue: 0.42, yellow: 0.05, grey: 0.04, red: 0.02, brown: 0.02 },
    },
    // Ceiling-fed drops without neutral, the line looped at the switch, two-way in three-core.
    patterns: [
      { loop: true, cores: 2, times: 3 },
      { loop: true, cores: 3, holds: 'spare', times: 3 },
      { holds: 'line-on', times: 1.5 },
    ],
    ring: 10,
  },
};
