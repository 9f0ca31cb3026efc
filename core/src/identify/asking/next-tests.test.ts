import { expect, test } from '@jest/globals';
import { conflictWords, nextTestWhy, noteWords, reasonWords } from '../../findings/words/identify.js';
import { lookup } from '../../job/lookup.js';
import { newJob } from '../../job/new-job.js';
import type { Job } from '../../job/schema/job.js';
import type { Box, Reading } from '../../job/schema/survey.js';
import { newBox } from '../../survey/new-box.js';
import { presetContents } from '../../survey/presets.js';
import { readingWords } from '../../survey/reading-words.js';
import { hiddenBox } from '../../test-support/hidden-box.js';
import { Random } from '../../test-support/random.js';
import type { Identification } from '../answer.js';
import { identifyBox } from '../identify.js';
import type { CoreGrade } from '../judging/grades.js';
import { problemOf } from '../problem/problem.js';
import { arrangementOf } from '../problem/readings-as-tests.js';
import type { Explanation } from '../problem/vocabulary.js';
import { type Posterior, posteriorOf } from '../weighing/posterior.js';
import type { Looked } from '../weighing/shape.js';
import { nextTests } from './next-tests.js';

/** Every state of a box on the way, as its proposed tests are answered; now and then one comes out wrong. */
function* onTheWay(
  seed: number,
  steps: number,
): Generator<{ box: Box; known: ReturnType<typeof lookup>; result: Identification }> {
  const random = new Random(seed);
  const practice = random.pick(['us', 'ca', 'gb', 'modular'] as const);
  const hidden = hiddenBox(random, practice, random.int(1, 3), random.chance(0.7));
  let { box } = hidden;
  for (let step = 0; step <= steps; step++) {
    const known = lookup({ ...hidden.job, boxes: [box, ...hidden.job.boxes.slice(1)] });
    const result = identifyBox(box, known);
    yield { box, known, result };
    const [next] = result.next;
    if (!next) return;
    const reading = hidden.answer(next, `r${step}`);
    const flipped: Reading['value'] =
      reading.value === 'alert' ? 'quiet' : reading.value === 'lit' ? 'dark' : reading.value;
    box = {
      ...box,
      readings: [...box.readings, random.chance(0.1) ? { ...reading, value: flipped } : reading],
    };
  }
}

test.each(Array.from({ length: 14 }, (_, at) => at + 101))(
  'what is proposed can be done, and safely (seed %i)',
  (seed) => {
    for (const { box, known, result } of onTheWay(seed, 7)) {
      const conductors = new Set(box.conductors.map((conductor) => conductor.id));
      const neutrals = new Set(
        result.conductors.filter((entry) => entry.role === 'neutral').map((entry) => entry.id),
      );
      for (const next of result.next) {
        expect(next.minutes).toBeGreaterThan(0);
        expect(next.gainBits).toBeGreaterThanOrEqual(0);
        for (const point of next.points)
          expect(
            conductors.has(point) ||
              ['reference', 'box'].includes(point) ||
              known.loads.has(point) ||
              known.circuits.has(point),
          ).toBe(true);
        for (const id of Object.keys(next.breakers)) expect(known.circuits.has(id)).toBe(true);
        // Ohms are read with every breaker of the box off; a neutral is never what is lifted with one on.
        if (next.tool === 'ohms')
          expect(box.circuitIds.every((id) => next.breakers[id] === 'off')).toBe(true);
        if (box.circuitIds.some((id) => next.breakers[id] !== 'off'))
          for (const id of next.lifted) expect(neutrals.has(id)).toBe(false);
      }
      const keys = result.next.map(({ gainBits, minutes, why, ...what }) => JSON.stringify(what));
      expect(new Set(keys).size).toBe(keys.length);
    }
  },
);

test('everything said on the way is a whole sentence, without a hole in it', () => {
  let said = 0;
  for (let seed = 201; seed < 211; seed++)
    for (const { box, known, result } of onTheWay(seed, 6)) {
      const sentences = [
        ...result.next.flatMap((next) => [
          nextTestWhy(box, known, next),
          readingWords(box, known, next as unknown as Reading),
        ]),
        ...result.conflicts.map((conflict) => conflictWords(box, known, conflict)),
        ...result.notes.map(noteWords),
        ...result.conductors.map((conductor) => reasonWords(box, known, conductor)),
        ...box.readings.map((reading) => readingWords(box, known, reading)),
      ];
      said += sentences.length;
      for (const sentence of sentences) {
        expect(sentence).not.toMatch(/undefined|null|NaN|\[object|\s\s/);
        expect(sentence.length).toBeGreaterThan(8);
      }
    }
  expect(said).toBeGreaterThan(200);
});

test('the same box is told the same, however often it is asked', () => {
  for (const { box, known, result } of onTheWay(301, 4)) expect(identifyBox(box, known)).toEqual(result);
});

test('where the evidence is there and only a rival stands, nothing is proposed that is more of the same', () => {
  const { box, job } = farSwitchRead();
  const result = identifyBox(box, lookup(job));
  const whites = result.conductors.filter(({ id }) =>
    box.conductors.some((conductor) => conductor.id === id && conductor.colour === 'white'),
  );
  expect(whites.map(({ role, grade, missing }) => [role, grade, missing])).toEqual([
    ['neutral', 'confirmed', null],
    ['neutral', 'indicated', 'rival'],
  ]);
  expect(result.next.length).toBeGreaterThan(0);
  expect(result.next.filter(({ tool, why }) => tool === 'ohms' && why.purpose === 'neutral')).toEqual([]);
});

/**
 * The lamp side of a pair of switches: the lamp was watched, the indicator led over all, and the whites, one
 * bundle, read 0.3 ohm to earth.
 */
function farSwitchRead() {
  let serial = 0;
  const contents = presetContents(
    { preset: 'three-way-load', practice: 'us', size: '14AWG', loadIds: ['l1'] },
    () => `w${++serial}`,
  );
  const insulated = contents.conductors.filter(({ colour }) => colour !== 'bare');
  const idOf = (colour: string, nth = 0) =>
    contents.conductors.filter((conductor) => conductor.colour === colour)[nth]?.id ?? '';
  const live = { c1: 'on' } as const;
  const dead = { c1: 'off' } as const;
  const out = { arrangement: 'device-out', position: 1 } as const;
  const lamp = (near: 'up' | 'down', far: 'up' | 'down') => ({
    tool: 'lamp' as const,
    points: ['l1'],
    value: near === far ? ('lit' as const) : ('dark' as const),
    arrangement: 'in-place' as const,
    breakers: live,
    switches: { 1: near, 'foot/1': far },
  });
  const readings: Omit<Reading, 'id' | 'at'>[] = [
    lamp('up', 'up'),
    lamp('down', 'up'),
    lamp('down', 'down'),
    lamp('up', 'down'),
    ...insulated.map(({ id }, at) => ({
      tool: 'indicator' as const,
      points: [id],
      value: at === 0 ? ('alert' as const) : ('quiet' as const),
      breakers: live,
      switches: { 'foot/1': 'down' as const },
      ...out,
    })),
    ...[idOf('black', 1), idOf('white')].map((id) => ({
      tool: 'volts-low-z' as const,
      points: [id, 'reference'],
      value: 0,
      breakers: live,
      switches: { 'foot/1': 'down' as const },
      ...out,
    })),
    {
      tool: 'ohms',
      points: [idOf('white'), 'reference'],
      value: 0.3,
      breakers: dead,
      switches: { 'foot/1': 'up' },
      ...out,
    },
  ];
  const box: Box = {
    ...newBox({ id: 'head', roomId: 'r1', name: 'Head', order: 1 }, 'us', ['c1']),
    ...contents,
    labels: [],
    readings: readings.map((reading, at) => ({
      ...reading,
      id: `r${at}`,
      at: new Date(Date.UTC(2026, 0, 5, 9, at)).toISOString(),
    })),
  };
  const foot: Box = {
    ...newBox({ id: 'foot', roomId: 'r1', name: 'Foot', order: 2 }, 'us', ['c1']),
    positions: [{ index: 1, existing: 'three-way', loadIds: ['l1'] }],
  };
  const nothing = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
  const job: Job = {
    ...newJob('j', 'Job', 'us', undefined, nothing),
    rooms: [{ id: 'r1', name: 'Stair', floor: 0, order: 1 }],
    circuits: [{ id: 'c1', panel: 'Main', breaker: '12', label: '', amps: 15, volts: 120 }],
    loads: [{ id: 'l1', name: 'Ceiling', roomId: 'r1', kind: 'led', count: 4, wattsEach: 9, dimmable: true }],
    boxes: [box, foot],
    groups: [
      {
        id: 'g1',
        loadIds: ['l1'],
        places: [
          { boxId: 'head', position: 1 },
          { boxId: 'foot', position: 1 },
        ],
      },
    ],
  };
  return { box, job };
}

test('when no test tells anything alone, the first of two that do together is proposed', () => {
  const { box, job } = hiddenBox(new Random(1), 'us', 1, true);
  const { problem, wiring } = problemOf(box, lookup(job));
  const real = posteriorOf(problem, wiring) as Posterior;
  const [line, other] = [0, 1];
  // Four ways in which the box may be, as likely each: the core is a line where two lamps agree, and a load
  // where they do not.
  const ways = [
    ['line', 'lit', 'lit'],
    ['line', 'dark', 'dark'],
    ['load', 'lit', 'dark'],
    ['load', 'dark', 'lit'],
  ] as const;
  const entries = ways.map(([name], at) => {
    const classes = [...real.best.explanation.classes];
    classes[line] = name;
    return {
      ...real.best,
      explanation: {
        ...real.best.explanation,
        classes,
        circuitOfCore: [at, ...classes.slice(1).map(() => null)],
      },
      weight: 1,
    };
  });
  const sure = (value: 'alert' | 'quiet') => ({
    alert: value === 'alert' ? 1 : 0,
    quiet: value === 'quiet' ? 1 : 0,
  });
  const told = (explanation: Explanation, test: Looked) => {
    const way = ways[explanation.circuitOfCore[0] as number];
    const point = test.points[0];
    if (test.reading.tool !== 'indicator' || point?.kind !== 'core' || !way) return { nothing: 1 };
    return sure(way[point.core === line ? 1 : 2] === 'lit' ? 'alert' : 'quiet');
  };
  // Somebody has looked already whether the box is fed.
  const looked = {
    key: 'looked',
    points: [],
    reading: { tool: 'indicator', points: [], value: 'quiet' },
    arrangement: arrangementOf({ arrangement: 'in-place', breakers: { c1: 'on' } }, new Map()),
  };
  const posterior = {
    ...real,
    best: { ...real.best, best: { ...real.best.best, each: new Float64Array([1]) } },
    entries,
    total: 4,
    likelihood: {
      tests: [looked],
      switchesThatMatter: () => new Set<string>(),
      predict: (explanation: Explanation, tests: readonly Looked[]) =>
        tests.map((entry) => told(explanation, entry)),
    },
  } as unknown as Posterior;
  const grades = problem.cores.map(
    (): CoreGrade => ({
      role: 'spare',
      probability: 0.5,
      grade: 'guess',
      missing: null,
      isEvidenced: false,
      because: [],
      rival: null,
    }),
  );
  const [next] = nextTests(problem, posterior, grades, new Set([line, other]));
  expect(next).toMatchObject({ tool: 'indicator', why: { code: 'looks-ahead' }, gainBits: 1 });
});

test('a test that was made is not proposed again because some breaker of another box was off meanwhile', () => {
  for (let seed = 301; seed < 306; seed++) {
    const hidden = hiddenBox(new Random(seed), 'us', 1, true);
    const elsewhere = {
      ...(hidden.job.circuits[0] as (typeof hidden.job.circuits)[number]),
      id: 'c9',
      breaker: '9',
    };
    const job = { ...hidden.job, circuits: [...hidden.job.circuits, elsewhere] };
    const look = (box: Box) => identifyBox(box, lookup({ ...job, boxes: [box, ...job.boxes.slice(1)] }));
    const [next] = look(hidden.box).next;
    if (!next) throw new Error('a new box has a test to make');
    const answer = hidden.answer(next, 'm1');
    const reading: Reading = { ...answer, breakers: { ...answer.breakers, c9: 'off' } };
    const again = look({ ...hidden.box, readings: [reading] });
    const { gainBits, minutes, why, ...made } = next;
    for (const { gainBits: gain, minutes: time, why: reason, ...other } of again.next)
      expect(other).not.toEqual(made);
  }
});
