import { describe, expect, test } from '@jest/globals';
import { gateText, hinderText } from '../findings/words/power.js';
import { stopText } from '../findings/words/stops.js';
import type { Circuit, Job, JobEvent } from '../job/schema/job.js';
import type { Box, Label, Reading } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { powerOfBox } from './power.js';
import { GATES } from './vocabulary.js';

const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 9, minute)).toISOString();
const switched = (minute: number, circuitId: string, state: 'on' | 'off'): JobEvent => ({
  id: `${state}-${circuitId}-${minute}`,
  kind: 'switched',
  circuitId,
  state,
  at: at(minute),
});
const on = (minute: number, circuitId: string) => switched(minute, circuitId, 'on');
const off = (minute: number, circuitId: string) => switched(minute, circuitId, 'off');
const proved = (minute: number, more: Record<string, unknown> = {}): JobEvent =>
  ({
    id: `proof-${minute}`,
    kind: 'proved',
    boxId: 'shed',
    stage: 'device-out',
    circuitIds: ['c5', 'c6'],
    at: at(minute),
    ...more,
  }) as JobEvent;
const face = (minute: number) => proved(minute, { stage: 'face' });
const mounted = (minute: number): JobEvent => ({
  id: `mounted-${minute}`,
  kind: 'mounted',
  boxId: 'shed',
  at: at(minute),
});
const strike = (minute: number, of: string): JobEvent => ({
  id: `strike-${minute}`,
  kind: 'correction',
  of,
  at: at(minute),
});
const cleared = (minute: number, hazard: string): JobEvent =>
  ({ id: `cleared-${minute}`, kind: 'cleared', boxId: 'shed', hazard, at: at(minute) }) as JobEvent;
const read = (minute: number, value: Reading['value'], more: Partial<Reading> = {}): Reading => ({
  id: `reading-${minute}-${value}`,
  at: at(minute),
  tool: typeof value === 'number' ? 'volts-low-z' : 'indicator',
  arrangement: 'device-out',
  position: 1,
  breakers: { c5: 'off', c6: 'off' },
  points: typeof value === 'number' ? [A, 'reference'] : [A],
  value,
  ...more,
});
/** Two conductors of the shed's box. */
const [A, B] = ['A', 'B'];

interface Sequence {
  says: string;
  events: JobEvent[];
  readings?: Reading[];
  labels?: Label[];
  change?: (job: Job, box: Box) => void;
  /** Open gates, in the order of {@link GATES}; `all` and `none` as such. */
  open: string;
  hinders?: string[];
  stops?: string[];
  /** Read hours later. */
  now?: number;
}

const BOTH_OFF = [off(1, 'c5'), off(1, 'c6')];
const PROVED = [...BOTH_OFF, proved(2)];
/** A circuit more, beside c5 and c6 of the shed. */
const more =
  (id: string, fields: Partial<Circuit> = {}) =>
  (job: Job) => {
    job.circuits.push({
      id,
      panel: 'Main',
      breaker: id.slice(1),
      label: id,
      amps: 15,
      volts: 120,
      ...fields,
    });
  };
const sharing = more('c7', { sharesNeutralWith: ['c5'] });
const chain = (job: Job) => {
  sharing(job);
  more('c8', { sharesNeutralWith: ['c7'] })(job);
};
const circuit = (id: string, fields: Partial<Circuit>) => (job: Job) => {
  Object.assign(job.circuits.find((entry) => entry.id === id) as Circuit, fields);
};

const SEQUENCES: Sequence[] = [
  // What the record of switchings says
  {
    says: 'nothing recorded',
    events: [],
    open: 'none',
    hinders: ['circuit-unknown c5', 'circuit-unknown c6', 'not-proved'],
  },
  { says: 'both off, not proved', events: BOTH_OFF, open: 'none', hinders: ['not-proved'] },
  {
    says: 'one off and proved, the other never recorded',
    events: [off(1, 'c5'), proved(2)],
    open: 'none',
    hinders: ['circuit-unknown c6'],
  },
  { says: 'both off and proved', events: PROVED, open: 'all', hinders: [] },
  { says: 'proved at the face only', events: [...BOTH_OFF, face(2)], open: 'none', hinders: ['face-only'] },
  { says: 'face, then device out', events: [...BOTH_OFF, face(2), proved(3)], open: 'all', hinders: [] },
  {
    says: 'device out, then somebody proves the face again',
    events: [...PROVED, face(3)],
    open: 'none',
    hinders: ['face-only'],
  },
  {
    says: 'one goes on',
    events: [...PROVED, on(3, 'c6')],
    open: 'none',
    hinders: ['circuit-on c6', 'on-unknown-to-prover c6'],
  },
  {
    says: 'one went on and off again: not off from before the proof',
    events: [...PROVED, on(3, 'c6'), off(4, 'c6')],
    open: 'none',
    hinders: ['on-unknown-to-prover c6'],
  },
  {
    says: 'proved again after that',
    events: [...PROVED, on(3, 'c6'), off(4, 'c6'), proved(5)],
    open: 'all',
    hinders: [],
  },
  {
    says: 'an on that is late by the clock and arrives last counts as on',
    events: [off(1, 'c5'), off(2, 'c6'), proved(3), on(1, 'c6')],
    open: 'none',
    hinders: ['circuit-on c6', 'on-unknown-to-prover c6'],
  },
  {
    says: 'an off that arrives after its proof, whose proof does not name it',
    events: [off(1, 'c5'), proved(3), off(2, 'c6')],
    open: 'none',
    hinders: ['not-proved c6'],
  },
  {
    says: 'the same where the proof names the off it rests on',
    events: [off(1, 'c5'), proved(3, { offs: { c5: 'off-c5-1', c6: 'off-c6-2' } }), off(2, 'c6')],
    open: 'all',
    hinders: [],
  },
  {
    says: 'the off that the proof names was struck',
    events: [...BOTH_OFF, proved(2, { offs: { c5: 'off-c5-1' } }), strike(3, 'off-c5-1'), off(0, 'c5')],
    open: 'none',
    hinders: ['corrected c5', 'not-proved c5'],
  },
  {
    says: 'a proof that counts the ons its prover knew',
    events: [on(0, 'c6'), ...BOTH_OFF, proved(2, { ons: { c5: 0, c6: 1 } })],
    open: 'all',
    hinders: [],
  },
  {
    says: 'an on it did not know, though earlier by a slow clock',
    events: [...BOTH_OFF, proved(2, { ons: { c5: 0, c6: 0 } }), on(0, 'c6')],
    open: 'none',
    hinders: ['circuit-on c6', 'on-unknown-to-prover c6'],
  },
  {
    says: 'the on was recorded by mistake and struck: whoever recorded it may have switched',
    events: [...PROVED, on(3, 'c6'), strike(4, 'on-c6-3')],
    open: 'none',
    hinders: ['corrected c6'],
  },
  {
    says: 'struck before the proof, and counted by its prover',
    events: [...BOTH_OFF, on(2, 'c6'), strike(3, 'on-c6-2'), proved(4, { ons: { c5: 0, c6: 1 } })],
    open: 'all',
    hinders: [],
  },
  {
    says: 'the proof itself was struck',
    events: [...PROVED, strike(3, 'proof-2')],
    open: 'none',
    hinders: ['corrected', 'not-proved'],
  },
  {
    says: 'the last proof was struck, the one before stands but is not trusted',
    events: [...PROVED, proved(3), strike(4, 'proof-3')],
    open: 'none',
    hinders: ['corrected'],
  },
  // Closed, old
  { says: 'mounted', events: [...PROVED, mounted(3)], open: 'none', hinders: ['closed'] },
  {
    says: 'mounting struck',
    events: [...PROVED, mounted(3), strike(4, 'mounted-3')],
    open: 'none',
    hinders: ['corrected'],
  },
  {
    says: 'mounted, opened and proved again',
    events: [...PROVED, mounted(3), proved(4)],
    open: 'all',
    hinders: [],
  },
  { says: 'twelve hours later to the minute', events: PROVED, now: 2 + 12 * 60, open: 'all', hinders: [] },
  { says: 'a minute more', events: PROVED, now: 3 + 12 * 60, open: 'none', hinders: ['old'] },
  // The circle
  {
    says: 'a neighbour by a shared neutral that nobody recorded',
    events: PROVED,
    change: sharing,
    open: 'none',
    hinders: ['neighbour-unknown c7'],
  },
  {
    says: 'the neighbour on',
    events: [on(0, 'c7'), ...PROVED],
    change: sharing,
    open: 'none',
    hinders: ['neighbour-on c7'],
  },
  {
    says: 'the neighbour off from before',
    events: [off(0, 'c7'), ...PROVED],
    change: sharing,
    open: 'all',
    hinders: [],
  },
  {
    says: 'the neighbour of the neighbour on',
    events: [off(0, 'c7'), on(0, 'c8'), ...PROVED],
    change: chain,
    open: 'none',
    hinders: ['neighbour-on c8'],
  },
  {
    says: 'and off only after the proof',
    events: [off(0, 'c7'), on(0, 'c8'), ...PROVED, off(3, 'c8')],
    change: chain,
    open: 'none',
    hinders: ['not-proved c8'],
  },
  {
    says: 'a circuit taken off the box stays in the circle of the proof that names it',
    events: [...PROVED, on(3, 'c6')],
    change: (_, box) => {
      box.circuitIds = ['c5'];
    },
    open: 'none',
    hinders: ['neighbour-on c6', 'on-unknown-to-prover c6'],
  },
  {
    says: 'a circuit put on the box after its proof',
    events: [off(0, 'c9'), ...PROVED],
    change: (job, box) => {
      more('c9')(job);
      box.circuitIds = ['c5', 'c6', 'c9'];
    },
    open: 'none',
    hinders: ['not-proved c9'],
  },
  {
    says: 'no circuit at all',
    events: PROVED,
    change: (_, box) => {
      box.circuitIds = [];
    },
    open: 'none',
    hinders: ['not-proved'],
  },
  {
    says: 'a label brings a circuit into the circle',
    events: [on(0, 'c9'), ...PROVED],
    labels: [{ conductorId: A, role: 'line', circuitId: 'c9' }],
    change: more('c9'),
    open: 'none',
    hinders: ['neighbour-on c9'],
  },
  {
    says: 'a run that ends at a breaker brings it in',
    events: [on(0, 'c9'), ...PROVED],
    change: (job) => {
      more('c9')(job);
      job.runs = [{ id: 'run', ends: [{ boxId: 'shed', cableId: 'k' }, { circuitId: 'c9' }] }];
    },
    open: 'none',
    hinders: ['neighbour-on c9'],
  },
  {
    says: 'alive with that breaker alone on brings it in',
    events: [on(0, 'c9'), ...PROVED],
    readings: [read(1, 'alert', { breakers: { c5: 'off', c6: 'off', c9: 'on' } })],
    change: more('c9'),
    open: 'none',
    hinders: ['neighbour-on c9'],
  },
  // Breakers of no box
  {
    says: 'a breaker of no box that the prover knew to be on leaves the proof, and shuts the neutral',
    events: [on(0, 'c9'), ...PROVED],
    change: more('c9'),
    open: 'open ohms joint energise',
    hinders: ['unassigned-on c9'],
  },
  {
    says: 'one that goes on later ends it',
    events: [...PROVED, on(3, 'c9')],
    change: more('c9'),
    open: 'none',
    hinders: ['unassigned-on c9'],
  },
  {
    says: 'one that went on and off again since',
    events: [...PROVED, on(3, 'c9'), off(4, 'c9')],
    change: more('c9'),
    open: 'none',
    hinders: ['unassigned-on c9'],
  },
  {
    says: 'the same, struck: whoever recorded it may have switched',
    events: [...PROVED, on(3, 'c9'), strike(4, 'on-c9-3')],
    change: more('c9'),
    open: 'none',
    hinders: ['unassigned-on c9', 'corrected c9'],
  },
  {
    says: 'a stray breaker that was recorded off is no matter',
    events: [off(0, 'c9'), ...PROVED],
    change: more('c9'),
    open: 'all',
    hinders: [],
  },
  // Live while off
  {
    says: 'an alert with everything off ends the proof and stops',
    events: PROVED,
    readings: [read(3, 'alert')],
    open: 'none',
    hinders: ['live-reading reading-3-alert', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: 'low impedance reads that conductor dead in the same state: the alert counts no more',
    events: PROVED,
    readings: [read(3, 'alert'), read(4, 0.4)],
    open: 'all',
    hinders: [],
  },
  {
    says: 'another conductor read dead takes nothing back',
    events: PROVED,
    readings: [read(3, 'alert'), read(4, 0.4, { points: [B, 'reference'] })],
    open: 'none',
    hinders: ['live-reading reading-3-alert', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: '6.1 V on low impedance is over 5 % of 120 V, 5.9 V is not',
    events: PROVED,
    readings: [read(3, 6.1), read(3, 5.9, { id: 'under' })],
    open: 'none',
    hinders: ['live-reading reading-3-6.1', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: 'a ghost of 50 V on high impedance is none, 60 V is',
    events: PROVED,
    readings: [read(3, 50, { tool: 'volts' }), read(4, 60, { tool: 'volts' })],
    open: 'none',
    hinders: ['live-reading reading-4-60', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: 'a lamp of the box burns',
    events: PROVED,
    readings: [read(3, 'dim', { tool: 'lamp', arrangement: 'in-place', points: ['porch'] })],
    change: (job, box) => {
      job.loads.push({ id: 'porch', name: 'Porch', roomId: box.roomId, kind: 'led', count: 1, wattsEach: 9 });
      (box.positions[0] as Box['positions'][number]).loadIds = ['porch'];
    },
    open: 'none',
    hinders: ['live-reading reading-3-dim', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: 'alive with a breaker named on is what one expects',
    events: PROVED,
    readings: [read(3, 'alert', { breakers: { c5: 'on', c6: 'off' } })],
    open: 'all',
    hinders: [],
  },
  {
    says: 'a proof after it, the source not found: the stop stands',
    events: [...PROVED, proved(5)],
    readings: [read(3, 'alert')],
    open: 'none',
    hinders: ['live-reading reading-3-alert', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: 'the breaker found by one more off; not proved again yet',
    events: [...PROVED, off(4, 'c9')],
    readings: [read(3, 118), read(5, 0.2, { breakers: { c5: 'off', c6: 'off', c9: 'off' } })],
    change: more('c9'),
    open: 'none',
    hinders: ['live-reading c9 reading-3-118', 'not-proved c9'],
  },
  {
    says: 'and proved: all open',
    events: [...PROVED, off(4, 'c9'), proved(6)],
    readings: [read(3, 118), read(5, 0.2, { breakers: { c5: 'off', c6: 'off', c9: 'off' } })],
    change: more('c9'),
    open: 'all',
    hinders: [],
  },
  {
    says: 'two more off find neither',
    events: [...PROVED, off(4, 'c9'), proved(6)],
    readings: [read(3, 118), read(5, 0.2, { breakers: { c5: 'off', c6: 'off', c9: 'off', c8: 'off' } })],
    change: (job) => {
      more('c9')(job);
      more('c8')(job);
    },
    open: 'none',
    hinders: ['live-reading reading-3-118', 'hazard'],
    stops: ['live-while-off'],
  },
  {
    says: 'put right by somebody competent, and proved again',
    events: [...PROVED, cleared(4, 'live-while-off'), proved(5)],
    readings: [read(3, 'alert')],
    open: 'all',
    hinders: [],
  },
  {
    says: 'cleared, and alive again',
    events: [...PROVED, cleared(4, 'live-while-off'), proved(7)],
    readings: [read(3, 'alert'), read(6, 'alert')],
    open: 'none',
    hinders: ['live-reading reading-6-alert', 'hazard'],
    stops: ['live-while-off'],
  },
  // Stops
  {
    says: 'a hazard ticked at the box leaves dead ohms alone open',
    events: PROVED,
    change: (_, box) => {
      box.hazards = ['scorch'];
    },
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['scorch'],
  },
  {
    says: 'cleared',
    events: [...PROVED, cleared(3, 'scorch')],
    change: (_, box) => {
      box.hazards = ['scorch'];
    },
    open: 'all',
    hinders: [],
  },
  {
    says: 'two that share a neutral on one leg, through a third',
    events: [off(0, 'c7'), off(0, 'c8'), ...PROVED],
    change: (job) => {
      chain(job);
      circuit('c5', { leg: 'A' })(job);
      circuit('c8', { leg: 'A' })(job);
      circuit('c7', { leg: 'B' })(job);
    },
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['one-leg'],
  },
  {
    says: 'a shared neutral without a common trip',
    events: [off(0, 'c7'), ...PROVED],
    change: (job) => {
      sharing(job);
      circuit('c7', { commonTrip: false })(job);
    },
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['no-common-trip'],
  },
  {
    says: 'an inverter',
    events: PROVED,
    change: circuit('c6', { source: 'inverter' }),
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['other-source'],
  },
  {
    says: '14 AWG on 20 A',
    events: PROVED,
    labels: [{ conductorId: A, role: 'line', circuitId: 'c6' }],
    change: circuit('c6', { amps: 20 }),
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['conductor-too-small'],
  },
  {
    says: 'line on in a joint of neutrals: a dead short by its labels',
    events: PROVED,
    labels: [
      { conductorId: A, role: 'neutral', circuitId: 'c5' },
      { conductorId: B, role: 'line-on', circuitId: 'c5' },
    ],
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['contradiction'],
  },
  {
    says: 'neutrals of two circuits that share none in one joint',
    events: PROVED,
    labels: [
      { conductorId: A, role: 'neutral', circuitId: 'c5' },
      { conductorId: B, role: 'neutral', circuitId: 'c6' },
    ],
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['borrowed-neutral'],
  },
  {
    says: 'one and the same test twice so and twice so',
    events: PROVED,
    readings: ['open', 0.2, 'open', 0.3].map((value, index) =>
      read(3 + index, value as Reading['value'], { tool: 'ohms', points: [A, 'reference'] }),
    ),
    open: 'ohms',
    hinders: ['hazard'],
    stops: ['contradiction'],
  },
  // A neutral carried by a device
  {
    says: 'two neutrals on the terminals of one receptacle',
    events: PROVED,
    labels: [
      { conductorId: A, role: 'neutral', circuitId: 'c5' },
      { conductorId: B, role: 'neutral', circuitId: 'c5' },
    ],
    change: (_, box) => {
      const [a, b] = box.conductors as [Box['conductors'][number], Box['conductors'][number]];
      Object.assign(box.positions[0] as object, { existing: 'receptacle' });
      a.at = { position: 1, terminal: 'neutral' };
      b.at = { position: 1, terminal: 'neutral2' };
    },
    open: 'open ohms joint neutral',
    hinders: [],
  },
];

/** The shed, fed by c5 and c6, its box two conductors of one cable in one joint. */
function shed(sequence: Sequence): { job: Job; box: Box } {
  const job = exampleJob('shed');
  const [box] = job.boxes as [Box];
  job.events = sequence.events;
  job.runs = [];
  job.circuits = job.circuits.map((entry) => ({ ...entry, amps: 15 }));
  const conductor = { cableId: 'k', size: '14AWG', colour: 'black', at: { joint: 'j' } } as const;
  Object.assign(box, {
    cables: [{ id: 'k' }],
    conductors: [
      { ...conductor, id: A },
      { ...conductor, id: B },
    ],
    joints: [{ id: 'j', connector: 'unknown' }],
    positions: [{ index: 1, existing: 'single-pole', loadIds: [] }],
    readings: sequence.readings ?? [],
    labels: sequence.labels ?? [],
    hazards: [],
  });
  sequence.change?.(job, box);
  return { job, box };
}

describe('what may be touched, by what was recorded', () => {
  test.each(SEQUENCES.map((sequence) => [sequence.says, sequence] as const))('%s', (_, sequence) => {
    const { job, box } = shed(sequence);
    const power = powerOfBox(job, box, { at: Date.parse(at(sequence.now ?? 60)) });
    const open = GATES.filter((gate) => power.gates[gate]).join(' ');
    const wanted = { all: GATES.join(' '), none: '' }[sequence.open] ?? sequence.open;
    expect(open).toBe(wanted);
    const hinders = power.hinders.map(({ code, circuitId, readingId }) =>
      [code, circuitId, readingId].filter(Boolean).join(' '),
    );
    if (sequence.hinders) expect(hinders.sort()).toEqual([...sequence.hinders].sort());
    expect(power.stops.map(({ code }) => code)).toEqual(sequence.stops ?? []);
    // Every shut gate, hinder and stop has a sentence of its own.
    for (const gate of GATES) expect(gateText(gate, power, box, job) === null).toBe(power.gates[gate]);
    for (const hinder of power.hinders) expect(hinderText(hinder, box, job)).toMatch(/[.]$/);
    for (const stop of power.stops) expect(stopText(stop, box, job)).toMatch(/[.]$/);
  });

  test('there are at least forty, each told apart', () => {
    expect(SEQUENCES.length).toBeGreaterThanOrEqual(40);
    expect(new Set(SEQUENCES.map(({ says }) => says)).size).toBe(SEQUENCES.length);
  });
});
