import type { PracticeProfile } from './profile.js';

/** What the two metric practices have in common: no count of a box, plates with one body, 230 V. */
export const METRIC = {
  units: 'metric',
  volumesIn: 'mL',
  editions: null,
  count: null,
  notes: [],
  connectors: { preferred: ['lever', 'terminal-block'], usual: 'lever' },
  sizes: {
    lead: '1.0mm2',
    cable: [{ upToAmps: Number.POSITIVE_INFINITY, size: '1.5mm2' }],
    named: 'mm2',
  },
  neutralColours: 'any',
  deviceTakesItsGangs: false,
  circuit: {
    amps: 6,
    volts: 230,
    legs: ['A', 'B', 'C'],
    legWord: 'Phase',
    protections: ['none', 'rcd', 'rcbo'],
  },
  floatingAlert: 0.65,
  breakerBySize: null,
  newDevice: { volts: [220, 240], form: 'clamp' },
} as const satisfies Partial<PracticeProfile>;
