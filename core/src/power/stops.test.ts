import { describe, expect, test } from '@jest/globals';
import { labelProblems } from '../findings/label-problems.js';
import { identifyBox } from '../identify/identify.js';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box, Conductor, Reading } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { labelClashes } from './label-clashes.js';
import { powerOfBox } from './power.js';
import { provedEvent, provingHinders, provingRound } from './prove.js';
import { readingGate } from './reading-gate.js';

/** The pantry, its readings and what else is changed. */
function pantry(readings: Partial<Reading>[], change: (job: Job, box: Box) => void = () => {}) {
  const job = exampleJob('pantry');
  const [box] = job.boxes as [Box];
  box.readings = readings.map((reading, at) => ({
    id: `r${at}`,
    at: `2026-05-04T10:${String(at).padStart(2, '0')}:00Z`,
    tool: 'ohms',
    arrangement: 'device-out',
    position: 1,
    breakers: { c4: 'off' },
    points: ['pantry-feed-white', 'reference'],
    value: 0.2,
    ...reading,
  })) as Reading[];
  change(job, box);
  return { job, box, power: powerOfBox(job, box) };
}
const codes = ({ power }: ReturnType<typeof pantry>) => power.stops.map(({ code }) => code);
const recolour = (box: Box, id: string, colour: Conductor['colour']) => {
  box.conductors = box.conductors.map((conductor) =>
    conductor.id === id ? { ...conductor, colour } : conductor,
  );
};

describe('stops that readings show', () => {
  const liveWhite: Partial<Reading> = { tool: 'volts-low-z', value: 119, breakers: { c4: 'on' } };
  const earthedBlack: Partial<Reading> = { points: ['pantry-feed-black', 'reference'], value: 0.3 };

  test('white live and black earthed is reversed polarity, to power and to identification', () => {
    const reversed = pantry([liveWhite, earthedBlack]);
    expect(reversed.power.stops).toEqual([
      { code: 'reversed-polarity', conductorIds: ['pantry-feed-white', 'pantry-feed-black'], circuitIds: [] },
    ]);
    expect(identifyBox(reversed.box, lookup(reversed.job)).notes.map(({ code }) => code)).toContain(
      'reversed-polarity',
    );
    expect(codes(pantry([liveWhite]))).toEqual([]);
    expect(codes(pantry([earthedBlack]))).toEqual([]);
    expect(codes(pantry([{ ...liveWhite, breakers: {} }, earthedBlack]))).toEqual([]);
  });

  test('black beside red is the neutral’s colour; blue beside black is not', () => {
    const pair = (hot: Conductor['colour'], other: Conductor['colour']) =>
      codes(
        pantry([liveWhite, earthedBlack], (_, box) => {
          recolour(box, 'pantry-feed-white', hot);
          recolour(box, 'pantry-feed-black', other);
        }),
      );
    expect(pair('black', 'red')).toEqual(['reversed-polarity']);
    expect(pair('blue', 'brown')).toEqual(['reversed-polarity']);
    expect(pair('blue', 'black')).toEqual([]);
    expect(pair('red', 'black')).toEqual([]);
  });

  test('a neutral that is earth although its breaker opened it', () => {
    const isolating = (job: Job) => {
      Object.assign(job.circuits[0] as object, { isolatesNeutral: true });
    };
    expect(codes(pantry([{}], isolating))).toEqual(['neutral-ground-joined']);
    expect(codes(pantry([{ value: 'open' }], isolating))).toEqual([]);
    expect(codes(pantry([{}]))).toEqual([]);
  });

  test('cleared, and shown again by a later reading only', () => {
    const cleared = (at: string) => (job: Job) => {
      job.events.push({
        id: 'ok',
        kind: 'cleared',
        boxId: 'pantry',
        hazard: 'reversed-polarity',
        at,
      } as Job['events'][number]);
    };
    expect(codes(pantry([liveWhite, earthedBlack], cleared('2026-05-04T10:30:00Z')))).toEqual([]);
    expect(codes(pantry([liveWhite, earthedBlack], cleared('2026-05-04T09:30:00Z')))).toEqual([
      'reversed-polarity',
    ]);
  });

  test('while something is live with its breaker off, no dead test is proposed', () => {
    const alive = pantry([{ tool: 'indicator', value: 'alert', points: ['pantry-lamps-black'] }]);
    const { next, notes } = identifyBox(alive.box, lookup(alive.job));
    expect(notes.map(({ code }) => code)).toContain('live-while-off');
    expect(next.filter(({ tool }) => tool === 'ohms')).toEqual([]);
    expect(next.length).toBeGreaterThan(0);
  });
});

describe('labels that exclude each other', () => {
  test('a white labelled line on in a joint of neutrals', () => {
    const { job, box } = pantry([], (_, own) => {
      own.labels = own.labels.map((label) =>
        label.conductorId === 'pantry-lamps-white' ? { ...label, role: 'line-on' } : label,
      );
    });
    expect(labelClashes(box, job)).toEqual([
      { code: 'contradiction', conductorIds: ['pantry-feed-white', 'pantry-lamps-white'], circuitIds: [] },
    ]);
    expect(labelProblems(job)).toEqual([
      {
        path: '/boxes/0/labels/4',
        severity: 'error',
        message: expect.stringContaining('are joined, and cannot all be what their labels say'),
      },
    ]);
  });

  test('a neutral on the box’s screw, and one joined with a ground', () => {
    const onScrew = pantry([], (_, box) => {
      box.conductors = box.conductors.map((conductor) =>
        conductor.id === 'pantry-lamps-white' ? { ...conductor, at: { boxScrew: true } } : conductor,
      );
    });
    expect(codes(onScrew)).toEqual(['neutral-ground-joined']);
    const joined = pantry([], (_, box) => {
      box.conductors = box.conductors.map((conductor) =>
        conductor.id === 'pantry-lamps-bare' ? { ...conductor, at: { joint: 'pantry-jw' } } : conductor,
      );
    });
    expect(codes(joined)).toEqual(['neutral-ground-joined']);
    expect(labelProblems(joined.job)).toMatchObject([{ severity: 'warning' }]);
  });

  test('caps join nothing, though a tail of each ends capped', () => {
    const { job, box } = pantry([], (_, own) => {
      for (const [id, joint] of [
        ['tail-a', 'pantry-jw'],
        ['tail-b', 'pantry-jg'],
      ] as const)
        own.conductors.push({ id, size: '12AWG', colour: 'black', ends: [{ joint }, { capped: true }] });
    });
    expect(labelClashes(box, job)).toEqual([]);
  });

  test('every worked example reads without a word against its labels', () => {
    for (const name of [
      'pantry',
      'galley',
      'shed',
      'stairs',
      'back-bedroom',
      'lounge-plate',
      'cellar',
      'sail-loft',
    ])
      expect({ name, problems: labelProblems(exampleJob(name)) }).toEqual({ name, problems: [] });
  });
});

describe('a proof of dead is made of readings', () => {
  const off = (job: Job) => {
    job.events = [{ id: 'off', kind: 'switched', circuitId: 'c4', state: 'off', at: '2026-05-04T10:00:00Z' }];
  };
  const made = {
    id: 'p',
    at: '2026-05-04T10:05:00Z',
    stage: 'face' as const,
    volts: 119,
    voltsAfter: 119,
    under5: [],
  };

  test('every conductor to earth, to each neutral, and to each other line', () => {
    const { box } = pantry([]);
    const round = provingRound(box);
    expect([round.earth.length, round.neutral.length, round.lines.length]).toEqual([4, 4, 1]);
  });

  test('names what its prover knew, of every circuit of the circle', () => {
    const { job, box, power } = pantry([], off);
    expect(provedEvent(box, job, power, made)).toMatchObject({
      circuitIds: ['c4'],
      offs: { c4: 'off' },
      ons: { c4: 0 },
      volts: 119,
    });
  });

  test.each([
    [119, 119, true],
    [119, 108, true],
    [119, 106, false],
    [119, 0, false],
    [3, 3, false],
    [50, 50, true],
    [49, 50, false],
  ])('a source that reads %s V before and %s V after: %s', (volts, voltsAfter, taken) => {
    const { job, box, power } = pantry([], off);
    expect(provedEvent(box, job, power, { ...made, volts, voltsAfter }) !== null).toBe(taken);
  });

  test('is refused while a circuit is not recorded off, and while something is alive', () => {
    const unknown = pantry([], (job) => {
      job.events = [];
    });
    expect(provedEvent(unknown.box, unknown.job, unknown.power, made)).toBeNull();
    const alive = pantry([{ tool: 'indicator', value: 'alert', points: ['pantry-lamps-black'] }], off);
    expect(provingHinders(alive.power).map(({ code }) => code)).toEqual(['live-reading']);
    expect(provedEvent(alive.box, alive.job, alive.power, made)).toBeNull();
  });
});

describe('before a reading is made', () => {
  const events = (...states: string[]): Job['events'] =>
    states.map((state, at) => ({
      id: `s${at}`,
      kind: 'switched',
      circuitId: 'c4',
      state,
      at: `2026-05-04T10:0${at}:00Z`,
    }));
  const proof = {
    id: 'p',
    kind: 'proved',
    boxId: 'pantry',
    stage: 'device-out',
    circuitIds: ['c4'],
    at: '2026-05-04T10:09:00Z',
  };
  const states = {
    unknown: { events: [] as Job['events'], readings: [] },
    on: { events: events('on'), readings: [] },
    off: { events: events('off'), readings: [] },
    dead: { events: [...events('off'), proof as Job['events'][number]], readings: [] },
    alive: {
      events: events('off'),
      readings: [{ tool: 'indicator', value: 'alert', points: ['pantry-lamps-black'] } as Partial<Reading>],
    },
  };
  const setUps = {
    'indicator in place': { tool: 'indicator', arrangement: 'in-place' },
    'volts in place': { tool: 'volts-low-z', arrangement: 'in-place' },
    'indicator, device out': { tool: 'indicator', arrangement: 'device-out', position: 1 },
    ohms: { tool: 'ohms', arrangement: 'device-out', position: 1 },
    'a hot core lifted': { tool: 'volts-low-z', arrangement: 'lifted', lifted: ['pantry-feed-black'] },
    'a neutral lifted': { tool: 'volts-low-z', arrangement: 'lifted', lifted: ['pantry-feed-white'] },
    'all parted': { tool: 'indicator', arrangement: 'parted' },
  } as const;

  test.each([
    ['indicator in place', { unknown: 'open', on: 'open', off: 'open', dead: 'open', alive: 'open' }],
    [
      'volts in place',
      { unknown: 'stand-clear', on: 'stand-clear', off: 'open', dead: 'open', alive: 'stand-clear' },
    ],
    [
      'indicator, device out',
      { unknown: 'stand-clear', on: 'stand-clear', off: 'open', dead: 'open', alive: 'stand-clear' },
    ],
    [
      'ohms',
      { unknown: 'prove-dead', on: 'prove-dead', off: 'prove-dead', dead: 'open', alive: 'find-source' },
    ],
    [
      'a hot core lifted',
      { unknown: 'stand-clear', on: 'stand-clear', off: 'open', dead: 'open', alive: 'stand-clear' },
    ],
    [
      'a neutral lifted',
      { unknown: 'neutral', on: 'neutral', off: 'open', dead: 'open', alive: 'stand-clear' },
    ],
    ['all parted', { unknown: 'neutral', on: 'neutral', off: 'open', dead: 'open', alive: 'stand-clear' }],
  ] as const)('%s, in every state', (name, wanted) => {
    const found = Object.fromEntries(
      Object.entries(states).map(([state, { events: recorded, readings }]) => {
        const { job, box, power } = pantry(readings, (own) => {
          own.events = recorded;
        });
        const { circuits } = {
          circuits: [
            {
              circuitId: 'c4',
              state: recorded.length === 0 ? 'unknown' : state === 'on' ? 'on' : 'off',
              since: null,
            },
          ],
        } as const;
        return [
          state,
          readingGate({ box, job, power, circuits }, setUps[name] as never, () => undefined).kind,
        ];
      }),
    );
    expect(found).toEqual(wanted);
  });

  test('a device that carries a neutral is not taken out while a circuit that shares it is on', () => {
    const { job, box, power } = pantry([], (own, at) => {
      own.events = events('on');
      Object.assign(at.positions[0] as object, { existing: 'receptacle' });
      at.conductors = at.conductors.map((conductor) =>
        conductor.colour === 'white'
          ? {
              ...conductor,
              at: { position: 1, terminal: conductor.id.includes('feed') ? 'neutral' : 'neutral2' },
            }
          : conductor,
      );
    });
    expect(power.carriesNeutral).toEqual([1]);
    const circuits = [{ circuitId: 'c4', state: 'on', since: null }] as const;
    expect(
      readingGate({ box, job, power, circuits }, setUps['indicator, device out'], () => undefined),
    ).toEqual({
      kind: 'neutral',
      circuitIds: ['c4'],
    });
    // Nor is it proposed.
    const { next } = identifyBox(box, lookup(job));
    expect(
      next.filter(
        ({ arrangement, breakers }) => arrangement === 'device-out' && Object.values(breakers).includes('on'),
      ),
    ).toEqual([]);
  });
});
