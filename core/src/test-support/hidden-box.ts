import type { NextTest } from '../identify/asking/next-tests.js';
import { explanationsOf } from '../identify/explaining/explanations.js';
import { problemOf } from '../identify/problem/problem.js';
import { arrangementOf } from '../identify/problem/readings-as-tests.js';
import {
  type Explanation,
  type Hidden,
  type Point,
  type Problem,
  ROLE_OF,
} from '../identify/problem/vocabulary.js';
import { Likelihood } from '../identify/weighing/likelihood.js';
import { lookup } from '../job/lookup.js';
import { newJob } from '../job/new-job.js';
import type { Job, Load } from '../job/schema/job.js';
import type { PracticeId, Role } from '../job/schema/primitives.js';
import type { Box, Reading } from '../job/schema/survey.js';
import { missingPrior } from '../practice/instruments.js';
import { newBox } from '../survey/new-box.js';
import { presetContents, presetsFor } from '../survey/presets.js';
import type { Random } from './random.js';

/** A made-up box whose wiring only the test knows: it answers readings as instruments would. */
export interface HiddenBox {
  job: Job;
  box: Box;
  /** What each insulated conductor truly is. */
  truth: ReadonlyMap<string, Role>;
  /** The reading a proposed test gives: the likeliest outcome, or one drawn by the instruments' tables. */
  answer(test: NextTest, id: string, draw?: Random): Reading;
}

const KINDS = ['led', 'resistive', 'fluorescent', 'electronic', 'exhaust-fan'] as const;

/** @param plain the truth is one of the likelier explanations; otherwise rare wirings come up too */
export function hiddenBox(
  random: Random,
  practice: PracticeId,
  positions: number,
  plain: boolean,
): HiddenBox {
  let serial = 0;
  const newId = () => {
    serial += 1;
    return `w${serial}`;
  };
  const nothing = { devices: [], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
  const circuits = Array.from({ length: random.chance(0.25) ? 2 : 1 }, (_, at) => ({
    id: `c${at + 1}`,
    panel: 'Main',
    breaker: String(at + 1),
    label: '',
    amps: 15,
    volts: practice === 'us' || practice === 'ca' ? 120 : 230,
    leg: at === 0 ? ('A' as const) : ('B' as const),
  }));
  const loads: Load[] = Array.from({ length: positions }, (_, at) => ({
    id: `l${at + 1}`,
    name: `Load ${at + 1}`,
    roomId: 'r1',
    kind: random.pick(KINDS),
    count: random.int(1, 6),
    wattsEach: random.int(5, 60),
  }));
  let box: Box = {
    ...newBox(
      { id: 'b1', roomId: 'r1', name: 'Box', order: 1 },
      practice,
      circuits.map((circuit) => circuit.id),
    ),
    positions: [],
  };
  for (let index = 1; index <= positions; index = box.positions.length + 1) {
    const usual = presetsFor({ practice }).filter(
      ({ id, existing, gangs }) =>
        // Where nothing is switched there is nothing to find out.
        id !== 'socket-module' &&
        gangs <= positions - index + 1 &&
        (positions === 1 || (existing !== 'three-way' && existing !== 'four-way')),
    );
    const made = presetContents({ preset: random.pick(usual).id, practice, size: '14AWG', index }, newId);
    for (const position of made.positions) position.loadIds = [`l${position.index}`];
    box = {
      ...box,
      cables: [...box.cables, ...made.cables],
      conductors: [...box.conductors, ...made.conductors],
      joints: [...box.joints, ...made.joints],
      positions: [...box.positions, ...made.positions],
    };
  }
  const job: Job = {
    ...newJob('j', 'Job', practice, undefined, nothing),
    circuits,
    loads,
    rooms: [{ id: 'r1', name: 'Room', floor: 0, order: 1 }],
    boxes: [box],
  };
  if (box.positions.some((position) => position.existing === 'three-way')) {
    // The other switch hangs in a box of its own, which nobody opens.
    const far: Box = {
      ...newBox({ id: 'far', roomId: 'r1', name: 'Far', order: 2 }, practice),
      positions: [{ index: 1, existing: 'three-way', loadIds: ['l1'] }],
    };
    job.boxes.push(far);
    job.groups.push({
      id: 'g1',
      loadIds: ['l1'],
      places: [
        { boxId: 'b1', position: 1 },
        { boxId: 'far', position: 1 },
      ],
    });
  }
  const { problem, wiring } = problemOf(box, lookup(job));
  const named = explanationsOf(problem).explanations.filter(
    (explanation) => !explanation.circuitOfCore.includes(problem.circuits.length - 1),
  );
  const explanation = draw(random, named, (entry) => (plain ? entry.prior : Math.sqrt(entry.prior)));
  const hidden: Hidden = {
    outsideOn: true,
    polarity: new Map(problem.positions.map((position) => [position.index, random.chance(0.5)])),
    farPolarity: new Map(problem.cables.map((_, cable) => [cable, random.chance(0.5)])),
    swapped: false,
    missing: new Set(loads.filter((load) => random.chance(missingPrior(load.kind))).map((load) => load.id)),
    outside: new Map(),
  };
  const likelihood = new Likelihood(problem, wiring, []);
  return {
    job,
    box,
    truth: truthOf(problem, explanation),
    answer: (test, id, chance) => {
      const number = new Map(problem.cores.map((core, at) => [core.id, at]));
      const reading = {
        ...test,
        id,
        at: '2026-05-04T09:00:00Z',
        position: test.position ?? undefined,
        value: 'quiet',
      } as unknown as Reading;
      const points = test.points.map((point): Point => {
        if (test.tool === 'lamp') return { kind: 'load', loadId: point };
        if (point === 'reference') return { kind: 'reference' };
        const core = number.get(point);
        return core === undefined ? { kind: 'ground', id: point } : { kind: 'core', core };
      });
      const [row] = likelihood.predict(
        explanation,
        [{ arrangement: arrangementOf(reading, number), points, reading, key: JSON.stringify(test) }],
        hidden,
      );
      const outcomes = Object.entries(row ?? {});
      const [outcome] = chance
        ? draw(chance, outcomes, ([, share]) => share)
        : outcomes.reduce((best, entry) => (entry[1] > best[1] ? entry : best));
      const { why, gainBits, minutes, position, ...rest } = test;
      return {
        ...rest,
        ...(position === null ? {} : { position }),
        id,
        at: '2026-05-04T09:00:00Z',
        value: readingValue(outcome, circuits[0]?.volts ?? 120),
      } as Reading;
    },
  };
}

function truthOf(problem: Problem, explanation: Explanation): Map<string, Role> {
  return new Map(
    problem.cores.map((core, at) => [core.id, ROLE_OF[explanation.classes[at] as keyof typeof ROLE_OF]]),
  );
}

function draw<Item>(random: Random, items: readonly Item[], weight: (item: Item) => number): Item {
  let left = random.next() * items.reduce((sum, item) => sum + weight(item), 0);
  for (const item of items) {
    left -= weight(item);
    if (left <= 0) return item;
  }
  return items.at(-1) as Item;
}

const SHARES: Record<string, number> = {
  'to-5%': 0.04,
  'to-30%': 0.2,
  'to-60%': 0.5,
  'to-92%': 0.8,
  supply: 1,
};
const OHMS: Record<string, number> = { 'to-1': 0.3, 'to-5': 3, 'to-50': 20, 'to-2000': 600, above: 9000 };

function readingValue(outcome: string, volts: number): Reading['value'] {
  if (outcome === 'under-3') return 0.4;
  if (outcome === 'line-to-line') return volts < 200 ? 208 : 400;
  if (outcome === 'other') return volts * 1.4;
  if (outcome in SHARES) return volts * (SHARES[outcome] as number);
  return OHMS[outcome] ?? (outcome as Reading['value']);
}

/**
 * Four switches on one line with a feed, lines carried on and a lamp cable each, half read: 6 cables and 18
 * conductors with one carried on.
 * @param onward how many cables carry the line on
 */
export function wideBox(onward = 1): { job: Job; box: Box } {
  const loads: Load[] = [1, 2, 3, 4].map((at) => ({
    id: `l${at}`,
    name: `Load ${at}`,
    roomId: 'r1',
    kind: at % 2 ? 'led' : 'resistive',
    count: 3,
    wattsEach: 20,
  }));
  const cables = [
    'feed',
    ...Array.from({ length: onward }, (_, at) => `on${at || ''}`),
    'lamp1',
    'lamp2',
    'lamp3',
    'lamp4',
  ];
  const box: Box = {
    ...newBox({ id: 'b1', roomId: 'r1', name: 'Box', order: 1 }, 'us', ['c1']),
    cables: cables.map((id) => ({ id })),
    joints: ['line', 'neutral', 'ground'].map((id) => ({ id, connector: 'twist-on' })),
    conductors: [
      ...cables.flatMap((cableId) => [
        {
          id: `${cableId}-black`,
          cableId,
          size: '14AWG' as const,
          colour: 'black' as const,
          at: cableId.startsWith('lamp')
            ? { position: Number(cableId.slice(4)), terminal: 'b' }
            : { joint: 'line' },
        },
        {
          id: `${cableId}-white`,
          cableId,
          size: '14AWG' as const,
          colour: 'white' as const,
          at: { joint: 'neutral' },
        },
        {
          id: `${cableId}-bare`,
          cableId,
          size: '14AWG' as const,
          colour: 'bare' as const,
          at: { joint: 'ground' },
        },
      ]),
      ...[1, 2, 3, 4].map((position) => ({
        id: `tail${position}`,
        size: '14AWG' as const,
        colour: 'black' as const,
        ends: [{ joint: 'line' }, { position, terminal: 'a' }],
      })),
    ],
    positions: [1, 2, 3, 4].map((index) => ({
      index,
      existing: 'single-pole' as const,
      loadIds: [`l${index}`],
      need: { smart: true },
    })),
  };
  const reading = (
    id: number,
    more: Partial<Reading> & Pick<Reading, 'tool' | 'points' | 'value'>,
  ): Reading => ({
    id: `m${id}`,
    at: '2026-05-04T09:00:00Z',
    arrangement: 'device-out',
    position: 1,
    breakers: { c1: 'on' },
    ...more,
  });
  let serial = 0;
  const next = () => {
    serial += 1;
    return serial;
  };
  const readings = [1, 2, 3, 4].flatMap((position) => [
    reading(next(), {
      tool: 'lamp',
      arrangement: 'in-place',
      position: undefined,
      switches: { [String(position)]: 'on' },
      points: [`l${position}`],
      value: 'lit',
    }),
    reading(next(), {
      tool: 'lamp',
      arrangement: 'in-place',
      position: undefined,
      switches: { [String(position)]: 'off' },
      points: [`l${position}`],
      value: 'dark',
    }),
    reading(next(), {
      tool: 'volts-low-z',
      position,
      points: [`lamp${position}-black`, 'reference'],
      value: 0.2,
    }),
    reading(next(), { tool: 'indicator', position, points: [`lamp${position}-black`], value: 'quiet' }),
  ]);
  readings.push(
    reading(next(), { tool: 'volts-low-z', points: ['feed-black', 'reference'], value: 119 }),
    reading(next(), {
      tool: 'volts-low-z',
      points: ['feed-black', 'reference'],
      value: 0,
      breakers: { c1: 'off' },
    }),
    reading(next(), {
      tool: 'ohms',
      points: ['feed-white', 'reference'],
      value: 0.3,
      breakers: { c1: 'off' },
    }),
    reading(next(), {
      tool: 'ohms',
      points: ['feed-bare', 'reference'],
      value: 0.3,
      breakers: { c1: 'off' },
    }),
  );
  const job: Job = {
    ...newJob('j', 'Job', 'us', undefined, {
      devices: [],
      hubs: [],
      parts: [],
      connectors: [],
      enclosures: [],
      platforms: [],
    }),
    circuits: [{ id: 'c1', panel: 'Main', breaker: '1', label: '', amps: 15, volts: 120 }],
    rooms: [{ id: 'r1', name: 'Room', floor: 0, order: 1 }],
    loads,
  };
  const read = { ...box, readings };
  return { job: { ...job, boxes: [read] }, box: read };
}
