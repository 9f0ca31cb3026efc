import { describe, expect, test } from '@jest/globals';
import { identifyBox } from '../identify/identify.js';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { newBox } from '../survey/new-box.js';
import { presetContents, withPreset } from '../survey/presets.js';
import { exampleJob } from '../test-support/examples.js';
import { enclosureChips, isOddDepth, usualDepths, usualVolumes } from './enclosures.js';
import { feedCandidates, feedOfNewBox } from './feeds.js';
import { acceptableMarks, labelSets, nextDarkCore, withMarks } from './marks.js';
import { loadsToControl, newLoad } from './new-load.js';
import { standsEvent, standsNow } from './stands.js';
import { lastSourceVolts, usualReadings } from './usual-readings.js';

const ids = () => {
  let serial = 0;
  return () => `id-${++serial}`;
};
const fresh = (id: string, practice: Job['practice'] = 'us', more: Partial<Box> = {}): Box => ({
  ...newBox({ id, roomId: 'hall', name: `Hall, ${id}`, order: 1 }, practice),
  ...more,
});
const circuit = (id: string, label: string): Job['circuits'][number] => ({
  ...(exampleJob('pantry').circuits[0] as Job['circuits'][number]),
  id,
  breaker: id,
  label,
});
function house(practice: Job['practice'], boxes: Box[], circuits: Job['circuits']): Job {
  const rooms = [
    { id: 'hall', name: 'Back hall', floor: 0, order: 1 },
    { id: 'loft', name: 'Chart loft', floor: 1, order: 2 },
  ];
  return {
    ...exampleJob('pantry'),
    practice,
    rooms,
    boxes,
    circuits,
    selections: [],
    groups: [],
    pairings: [],
    loads: [],
    events: [],
  };
}

describe('what feeds a box', () => {
  const circuits = [circuit('c1', 'Loft and stair'), circuit('c2', 'Lights, hall'), circuit('c3', 'Kitchen')];
  test('what its neighbours are on comes first; else whose label names the room; else nobody knows', () => {
    const alone = house('us', [fresh('b')], circuits);
    expect(feedCandidates(alone, fresh('b')).likely).toEqual(['c2']);
    const beside = house('us', [fresh('a', 'us', { circuitIds: ['c3'] }), fresh('b')], circuits);
    expect(feedOfNewBox(beside, fresh('b'))).toEqual(['c3']);
    const two = house('us', [fresh('a', 'us', { circuitIds: ['c3', 'c1'] }), fresh('b')], circuits);
    expect(feedOfNewBox(two, fresh('b'))).toEqual([]);
    expect(feedCandidates(two, fresh('b'))).toEqual({ likely: ['c3', 'c1'], rest: ['c2'] });
    const nothing = house('us', [fresh('b')], [circuit('c1', 'Pump'), circuit('c3', 'Kitchen')]);
    expect(feedOfNewBox(nothing, fresh('b'))).toEqual([]);
  });
  test('the only breaker there is feeds it', () => {
    expect(feedOfNewBox(house('us', [fresh('b')], [circuit('c9', 'Pump')]), fresh('b'))).toEqual(['c9']);
  });
});

describe('how large a box is', () => {
  const read = (id: string, in3: number, depth: number) =>
    fresh(id, 'us', { enclosure: { ...fresh(id).enclosure, capacity: { from: 'marked', in3 }, depth } });
  test('boxes of the job first, the most usual of them foremost; then what is usually marked', () => {
    const job = house('us', [read('a', 20.3, 76), read('c', 18, 70), read('d', 18, 70), fresh('b')], []);
    const chips = enclosureChips(fresh('b'), job);
    expect(chips.map(({ depth, capacity }) => [capacity, depth])).toEqual([
      [{ from: 'marked', in3: 18 }, 70],
      [{ from: 'marked', in3: 20.3 }, 76],
    ]);
    expect(usualVolumes(fresh('b'), job)).toEqual([18, 20.3, 22.5]);
    expect(usualDepths(fresh('b'), job).slice(0, 2)).toEqual([70, 76]);
  });
  test('where no count applies no marked volume is offered', () => {
    expect(usualVolumes(fresh('b', 'gb'), house('gb', [fresh('b', 'gb')], []))).toEqual([]);
  });
  test('a depth that no standard box of its volume has is odd; one that some has is not', () => {
    const job = house('us', [], []);
    job.catalogue = {
      ...job.catalogue,
      enclosures: [
        { id: 's1', practice: 'us', name: 'Device 3 x 2 x 3-1/2', in3: 18, gangs: 1, depth: 89 },
        { id: 's2', practice: 'us', name: 'Device 3 x 2 x 2-3/4', in3: 14, gangs: 1, depth: 70 },
      ],
    };
    const metal = (in3: number, depth: number) => {
      const box = read('b', in3, depth);
      return { ...box, enclosure: { ...box.enclosure, material: 'metal' as const } };
    };
    expect(isOddDepth(metal(18, 40), job)).toBe(true);
    expect(isOddDepth(metal(18, 88), job)).toBe(false);
    expect(isOddDepth(metal(33, 40), job)).toBe(false);
    expect(isOddDepth(read('b', 18, 40), job)).toBe(false);
    expect(isOddDepth(fresh('b'), job)).toBe(false);
  });
});

describe('marks that can be taken by eye', () => {
  const usual = (more: Partial<Box> = {}): { job: Job; box: Box } => {
    const empty = fresh('b', 'us', { circuitIds: ['c2'] });
    const made = presetContents({ preset: 'power-at-switch', practice: 'us', size: '14AWG' }, ids());
    const box: Box = { ...empty, ...withPreset(empty, made), ...more };
    return { job: house('us', [box], [circuit('c2', 'Hall')]), box };
  };
  const marks = ({ job, box }: { job: Job; box: Box }) =>
    acceptableMarks(box, lookup(job), identifyBox(box, lookup(job)));

  test('what looks speak clearly for, and nothing that could be either', () => {
    const found = marks(usual());
    expect(found.map(({ role }) => role).sort()).toEqual(['ground', 'ground', 'neutral', 'neutral']);
    const { labels } = withMarks(usual().box, found, lookup(usual().job));
    expect(labels.every(({ byEye }) => byEye === true)).toBe(true);
  });
  test('none at a hazard, none beside a label of the same joint that excludes it', () => {
    expect(marks(usual({ hazards: ['scorch'] }))).toEqual([]);
    const { box } = usual();
    const white = box.conductors.find(({ colour }) => colour === 'white')?.id ?? '';
    const against = usual({ labels: [{ conductorId: white, role: 'line' }] });
    expect(marks(against).some(({ role }) => role === 'neutral')).toBe(false);
  });
  test('copied guesses count where nothing was read', () => {
    const { box } = usual();
    const [first] = box.conductors;
    const copied = usual({ guesses: [{ conductorId: first?.id ?? '', role: 'line' }] });
    expect(marks(copied).find(({ conductorId }) => conductorId === first?.id)?.role).toBe('line');
  });
  test('dark cores one after the other; then neutrals and grounds as sets', () => {
    const { box, job } = usual();
    const [black, , , other] = box.conductors;
    expect(nextDarkCore(box, job, null)).toBe(black?.id);
    expect(nextDarkCore(box, job, black?.id ?? '')).toBe(other?.id);
    const told: Box = {
      ...box,
      labels: [black, other].map((one) => ({ conductorId: one?.id ?? '', role: 'line' })),
    };
    expect(nextDarkCore(told, job, null)).toBeUndefined();
    expect(labelSets(told, job).map(({ role, conductorIds }) => [role, conductorIds.length])).toEqual([
      ['neutral', 2],
      ['ground', 2],
    ]);
  });
  test('the re-used white of a switch loop is no member of the set', () => {
    const empty = fresh('b');
    const loop = presetContents({ preset: 'switch-loop', practice: 'us', size: '14AWG' }, ids());
    const box: Box = { ...empty, ...withPreset(empty, loop) };
    const job = house('us', [box], []);
    expect(labelSets(box, job).map(({ role }) => role)).toEqual(['ground']);
    expect(nextDarkCore(box, job, box.conductors[0]?.id ?? '')).toBe(box.conductors[1]?.id);
  });
});

test('a new load is named after its room and kind, and told from others of that name', () => {
  const job = house('us', [], []);
  const first = newLoad(job, { id: 'l1', roomId: 'hall', kind: 'led' });
  expect(first).toMatchObject({ name: 'Back hall LED lamps', count: 1, wattsEach: 9 });
  const second = newLoad({ ...job, loads: [first] }, { id: 'l2', roomId: 'hall', kind: 'led' });
  expect(second.name).toBe('Back hall LED lamps 2');
  const elsewhere = { ...first, id: 'l3', roomId: 'loft' };
  expect(loadsToControl({ loads: [elsewhere, second], boxes: [] }, 'hall').map(({ id }) => id)).toEqual([
    'l2',
    'l3',
  ]);
});

describe('how a box stands', () => {
  const at = (minute: number) => `2026-05-04T09:${String(minute).padStart(2, '0')}:00Z`;
  const reading = (minute: number, arrangement: 'in-place' | 'device-out'): Box['readings'][number] => ({
    id: `m${minute}`,
    at: at(minute),
    tool: 'indicator',
    arrangement,
    position: 1,
    points: ['w1'],
    value: 'quiet',
  });
  const said = (minute: number, arrangement: 'in-place' | 'device-out') =>
    standsEvent('b', { arrangement, position: 1 }, { id: `e${minute}`, at: at(minute) });
  test.each([
    ['nothing on record: in place', [], [], 'in-place'],
    ['as it was said', [], [said(1, 'device-out')], 'device-out'],
    ['as the last reading found it', [reading(2, 'device-out')], [], 'device-out'],
    ['what was said later than the reading', [reading(1, 'device-out')], [said(2, 'in-place')], 'in-place'],
    ['a reading later than what was said', [reading(3, 'in-place')], [said(2, 'device-out')], 'in-place'],
    [
      'mounted since',
      [reading(1, 'device-out')],
      [said(2, 'device-out'), { id: 'x', kind: 'mounted', boxId: 'b', at: at(3) }],
      'in-place',
    ],
    [
      'struck since',
      [],
      [said(2, 'device-out'), { id: 'x', kind: 'correction', of: 'e2', at: at(3) }],
      'in-place',
    ],
  ] as const)('%s', (_, readings, events, arrangement) => {
    const job = { events: [...events] as Job['events'] };
    expect(standsNow(fresh('b', 'us', { readings: [...readings] }), job).arrangement).toBe(arrangement);
  });
});

test('what a meter usually shows: the supply as the tester last read it', () => {
  const job = house('us', [], []);
  expect(usualReadings(job, 'volts-low-z')).toEqual([0, 0.1, 120]);
  expect(usualReadings(job, 'ohms')).toEqual([0.2, 0.3, 0.5, 'open']);
  const proved = {
    id: 'p',
    kind: 'proved',
    boxId: 'b',
    at: '2026-05-04T09:00:00Z',
    volts: 118.4,
    voltsAfter: 118.2,
  };
  const after: Job = { ...job, events: [proved as Job['events'][number]] };
  expect(usualReadings(after, 'volts-low-z')).toEqual([0, 0.1, 118.2]);
  const noon = Date.parse('2026-05-04T12:00:00Z');
  expect(lastSourceVolts(after, 'b', noon)).toEqual({ ofJob: 118.2, ofBox: null });
  expect(lastSourceVolts(after, 'b', noon - 4 * 3_600_000).ofBox).toBe(118.2);
});
