import { describe, expect, test } from '@jest/globals';
import { referenceProblems } from '../../document/references.js';
import { exampleJob } from '../../test-support/examples.js';
import { Random } from '../../test-support/random.js';
import { changedRecords, findRecord } from '../records.js';
import type { Job } from '../schema/job.js';
import { insist, meet, stillOurs } from './conflicts.js';
import { removalOf } from './consequences.js';
import type { EditPart } from './edit.js';
import { Edit } from './edit.js';
import { inverse } from './inverse.js';
import { fieldByField } from './parts.js';
import { earlierRecords } from './record-at.js';
import { reduce } from './reduce.js';

const room = (id: string, name = id) => ({ id, name, floor: 0, order: 1 });
const done = (job: Job, parts: EditPart[]): Job => {
  const result = reduce(job, { parts });
  if (!result.ok) throw new Error(JSON.stringify(result.refusal));
  return result.job;
};

describe('reduce', () => {
  test('puts, sets, appends and removes; what is untouched is shared', () => {
    const job = exampleJob('pantry');
    const added = done(job, [{ kind: 'room', id: 'r9', base: null, put: room('r9') }]);
    expect(added.rooms.map((entry) => entry.id)).toEqual(['entry', 'r9']);
    expect(added.boxes).toBe(job.boxes);
    const named = done(added, [
      {
        kind: 'room',
        id: 'r9',
        base: 1,
        set: { name: { was: 'r9', now: 'Larder' }, kind: { was: null, now: 'store' } },
      },
    ]);
    expect(named.rooms[1]).toMatchObject({ name: 'Larder', kind: 'store' });
    expect(
      done(named, [{ kind: 'room', id: 'r9', base: 2, set: { kind: { was: 'store', now: null } } }]).rooms[1],
    ).not.toHaveProperty('kind');
    const reading = {
      id: 'm1',
      at: '2026-05-04T09:12:00Z',
      tool: 'lamp',
      arrangement: 'in-place',
      points: ['l-pantry'],
      value: 'lit',
    };
    const read = done(named, [{ kind: 'box', id: 'pantry', base: 2, append: { readings: [reading] } }]);
    expect(read.boxes[0]?.readings.at(-1)?.id).toBe('m1');
    expect(
      done(read, [{ kind: 'box', id: 'pantry', base: 2, append: { readings: [reading] } }]).boxes[0]
        ?.readings,
    ).toHaveLength(12);
    expect(done(read, [{ kind: 'room', id: 'r9', base: 2, remove: true }]).rooms).toHaveLength(1);
  });

  test('all parts or none', () => {
    const job = exampleJob('pantry');
    const result = reduce(job, {
      parts: [
        { kind: 'room', id: 'r9', base: null, put: room('r9') },
        { kind: 'load', id: 'gone', base: 1, remove: true },
      ],
    });
    expect(result).toEqual({ ok: false, refusal: { code: 'no-such-record', part: 1 } });
    expect(job.rooms).toHaveLength(1);
  });

  test.each<[string, EditPart, string]>([
    [
      'the id of the document',
      { kind: 'job', id: 'job-pantry', base: 1, set: { id: { was: 'job-pantry', now: 'x' } } },
      'fixed-field',
    ],
    [
      'a whole list through the header',
      { kind: 'job', id: 'job-pantry', base: 1, set: { boxes: { was: null, now: [] } } },
      'fixed-field',
    ],
    ['a record under another id', { kind: 'room', id: 'entry', base: 1, put: room('other') }, 'key-differs'],
    [
      'an id of a record',
      { kind: 'room', id: 'entry', base: 1, set: { id: { was: 'entry', now: 'other' } } },
      'key-differs',
    ],
    [
      'an append to what is no list',
      { kind: 'room', id: 'entry', base: 1, append: { name: [] } },
      'not-a-list',
    ],
    [
      'an event that is set',
      { kind: 'event', id: 'e1', base: 1, set: { kind: { was: 'a', now: 'b' } } },
      'append-only',
    ],
  ])('refuses %s', (_, part, code) => {
    expect(reduce(exampleJob('pantry'), { parts: [part] })).toMatchObject({ ok: false, refusal: { code } });
  });

  test('an event goes only after what it speaks of', () => {
    const event = { id: 'e1', kind: 'mounted', boxId: 'pantry', at: '2026-05-04T09:12:00Z' };
    const job = done(exampleJob('pantry'), [{ kind: 'event', id: 'e1', base: null, put: event }]);
    expect(reduce(job, { parts: [{ kind: 'event', id: 'e1', base: null, remove: true }] })).toMatchObject({
      ok: false,
    });
    const parts = removalOf(job, 'box', 'pantry');
    const without = done(job, parts);
    expect(without).toMatchObject({ events: [], boxes: [], selections: [] });
    expect(done(without, inverse(job, { parts }))).toEqual(job);
  });
});

test.each([21, 22, 23])('undo gives back the job, whatever was done (seed %i)', (seed) => {
  const random = new Random(seed);
  let job = exampleJob('stairs');
  for (let round = 0; round < 60; round++) {
    const parts = randomParts(job, random, round);
    const result = reduce(job, { parts });
    if (!result.ok) continue;
    const undone = reduce(result.job, { parts: inverse(job, { parts }) });
    expect({ seed, round, job: undone.ok && undone.job }).toEqual({ seed, round, job });
    expect(changedRecords(job, result.job).length).toBeGreaterThanOrEqual(0);
    job = result.job;
  }
});

function randomParts(job: Job, random: Random, round: number): EditPart[] {
  const target = random.pick(job.rooms)?.id ?? 'hall';
  const choices: (() => EditPart[])[] = [
    () => [
      {
        kind: 'room',
        id: `n${round}`,
        base: null,
        put: room(`n${round}`),
        index: random.int(0, job.rooms.length),
      },
    ],
    () => [
      {
        kind: 'room',
        id: target,
        base: 0,
        set: { name: { was: findRecord(job, 'room', target)?.record.name, now: `room ${round}` } },
      },
    ],
    () => [
      {
        kind: 'job',
        id: job.id,
        base: 0,
        set: { notes: { was: job.notes ?? null, now: random.chance(0.3) ? null : `note ${round}` } },
      },
    ],
    () =>
      job.boxes[0]
        ? [{ kind: 'box', id: job.boxes[0].id, base: 0, append: { cables: [{ id: `k${round}` }] } }]
        : [],
    () =>
      random.chance(0.1) && job.rooms.length > 1
        ? removalOf(job, 'room', target)
        : [
            {
              kind: 'load',
              id: `l${round}`,
              base: null,
              put: { id: `l${round}`, name: 'x', roomId: target, kind: 'led', count: 1, wattsEach: 5 },
            },
          ],
  ];
  const parts = random.pick(choices)();
  return parts.length > 0 ? parts : [{ kind: 'room', id: `m${round}`, base: null, put: room(`m${round}`) }];
}

describe('removal with its consequences', () => {
  test.each([
    ['room', 'hall', 'stairs'],
    ['box', 'foot', 'stairs'],
    ['circuit', 'c2', 'stairs'],
    ['load', 'stair-light', 'stairs'],
    ['circuit', 'c4', 'pantry'],
  ] as const)('of the %s %s leaves no reference to nothing', (kind, id, example) => {
    const job = exampleJob(example);
    const parts = removalOf(job, kind, id);
    const after = done(job, parts);
    expect(referenceProblems(after).filter((problem) => problem.severity === 'error')).toEqual([]);
    expect(done(after, inverse(job, { parts }))).toEqual(job);
  });
});

test('a room that goes takes with it what the brief, the controls and the choices say of it', () => {
  const job = exampleJob('stairs');
  job.rooms.push(room('yard') as Job['rooms'][number]);
  const [foot, head] = job.boxes as [Job['boxes'][number], Job['boxes'][number]];
  const stay = { boxId: foot.id, position: 1 };
  head.roomId = 'yard';
  job.loads.push({ id: 'yard-lamp', name: 'Yard lamp', roomId: 'yard', kind: 'led', count: 1, wattsEach: 9 });
  job.selections = [{ ...stay, deviceId: 'os-main', strategy: 'companion', channels: { 1: 'yard-lamp' } }];
  job.brief = {
    ...job.brief,
    hubRooms: { 'os-hub': 'yard' },
    wifi: { clientsNow: 3, routerRoom: 'yard' },
    pins: [
      { boxId: head.id, position: 1, deviceId: 'os-comp' },
      { ...stay, deviceId: 'os-main' },
    ],
    bans: [{ deviceId: 'pw-pair', boxId: head.id }, { deviceId: 'pw-pair' }],
  };
  const control = (id: string, roomId: string) => ({
    id,
    roomId,
    name: id,
    deviceId: 'os-main',
    targets: [stay, { boxId: head.id, position: 1 }],
  });
  job.controlPoints = [control('gone', 'yard'), control('stays', foot.roomId)];
  expect(referenceProblems(job).filter((problem) => problem.severity === 'error')).toEqual([]);
  const parts = removalOf(job, 'room', 'yard');
  const after = done(job, parts);
  expect(referenceProblems(after).filter((problem) => problem.severity === 'error')).toEqual([]);
  expect(after.brief).toMatchObject({
    hubRooms: {},
    wifi: { clientsNow: 3 },
    pins: [{ ...stay, deviceId: 'os-main' }],
    bans: [{ deviceId: 'pw-pair' }],
  });
  expect(after.controlPoints).toEqual([{ ...control('stays', foot.roomId), targets: [stay] }]);
  expect(after.selections).toEqual([{ ...stay, deviceId: 'os-main', strategy: 'companion' }]);
  expect(done(after, inverse(job, { parts }))).toEqual(job);
});

describe('meeting what others changed', () => {
  const conflicts = (...given: Parameters<typeof meet>) => meet(...given).conflicts;
  const job = exampleJob('pantry');
  const always = () => true;
  const set = (was: string, now: string): EditPart => ({
    kind: 'room',
    id: 'entry',
    base: 3,
    set: { name: { was, now } },
  });

  test('none when nobody else changed the record', () => {
    expect(conflicts(job, [set('Old', 'New')], () => false)).toEqual([]);
  });

  test('different fields merge, the same field asks with both values', () => {
    expect(
      conflicts(job, [{ kind: 'room', id: 'entry', base: 3, set: { floor: { was: 0, now: 1 } } }], always),
    ).toEqual([]);
    expect(conflicts(job, [set('Old', 'New')], always)).toEqual([
      { part: 0, kind: 'room', id: 'entry', field: 'name', was: 'Old', theirs: 'Entry', yours: 'New' },
    ]);
  });

  test('both setting the same value is no conflict', () => {
    expect(conflicts(job, [set('Old', 'Entry')], always)).toEqual([]);
  });

  test('a removal that meets a change asks, and a change of what was removed', () => {
    expect(conflicts(job, [{ kind: 'room', id: 'entry', base: 3, remove: true }], always)).toHaveLength(1);
    expect(
      conflicts(job, [{ kind: 'room', id: 'gone', base: 3, set: { name: { was: 'a', now: 'b' } } }], always),
    ).toHaveLength(1);
    expect(conflicts(job, [{ kind: 'room', id: 'gone', base: 3, remove: true }], always)).toEqual([]);
  });
});

test('an edit names exactly one way for each part', () => {
  const edit = { id: 'e1', deviceId: 'd1', n: 1, at: '2026-05-04T09:12:00Z', label: 'x' };
  expect(
    Edit.safeParse({ ...edit, parts: [{ kind: 'room', id: 'r', base: null, put: {}, remove: true }] })
      .success,
  ).toBe(false);
  expect(Edit.safeParse({ ...edit, parts: [{ kind: 'room', id: 'r', base: null }] }).success).toBe(false);
  expect(Edit.safeParse({ ...edit, parts: [{ kind: 'room', id: 'r', base: null, put: {} }] }).success).toBe(
    true,
  );
});

describe('my word on a question', () => {
  const job = exampleJob('pantry');
  const [box] = job.boxes as [Job['boxes'][number]];

  test('holds where both changed the same fact, and leaves what else they changed', () => {
    const mine = fieldByField(job, [
      { kind: 'box', id: box.id, base: 3, put: { ...box, name: 'Mine', hazards: ['water'] } },
    ]);
    expect(Object.keys(mine[0]?.set ?? {}).sort()).toEqual(['hazards', 'name']);
    const theirs = {
      ...job,
      boxes: [{ ...box, name: 'Theirs', hazards: ['scorch' as const], notes: 'theirs' }],
    };
    const parts = insist(theirs, mine);
    expect(done(theirs, parts).boxes[0]).toMatchObject({
      name: 'Mine',
      notes: 'theirs',
      hazards: ['scorch', 'water'],
    });
    expect(insist(done(theirs, parts), mine)).toEqual([]);
  });

  test('a field that is null stays null: such a record is put whole', () => {
    const there = { boxId: box.id, position: 1, deviceId: 'x', strategy: 'single' as const };
    const chosen = { ...job, selections: [there] } as Job;
    const parts = [
      { kind: 'selection' as const, id: `${box.id}/1`, base: null, put: { ...there, deviceId: null } },
    ];
    expect(fieldByField(chosen, parts)).toEqual(parts);
  });

  test('against a removal brings the record back as this device had it', () => {
    const without = { ...job, boxes: [] };
    const change: EditPart = {
      kind: 'box',
      id: box.id,
      base: 3,
      set: { name: { was: box.name, now: 'Mine' } },
    };
    expect(insist(without, [change])).toEqual([]);
    const back = insist(without, [change], { [`box/${box.id}`]: { ...box, name: 'Mine' } });
    expect(done(without, back).boxes).toEqual([{ ...box, name: 'Mine' }]);
  });
});

describe('what an undo may still take back', () => {
  const job = exampleJob('pantry');
  const [box] = job.boxes as [Job['boxes'][number]];
  const edit = {
    parts: [
      {
        kind: 'box' as const,
        id: box.id,
        base: 1,
        set: { name: { was: box.name, now: 'A' }, order: { was: box.order, now: 7 } },
      },
    ],
  };
  const after = done(job, edit.parts);
  const undo = inverse(job, edit);

  test('fields others changed since are left and named', () => {
    const theirs = { ...after, boxes: [{ ...(after.boxes[0] as object), name: 'B' } as typeof box] };
    const { parts, left } = stillOurs(theirs, undo, {});
    expect(left).toMatchObject([{ kind: 'box', field: 'name', theirs: 'B' }]);
    expect(done(theirs, parts).boxes[0]).toMatchObject({ name: 'B', order: box.order });
  });

  test('a record I added and somebody changed is not taken out again', () => {
    const added = done(job, [{ kind: 'room', id: 'r9', base: null, put: room('r9') }]);
    const back: EditPart[] = [{ kind: 'room', id: 'r9', base: null, remove: true }];
    const mine = { 'room/r9': findRecord(added, 'room', 'r9')?.record as object };
    expect(stillOurs(added, back, mine)).toEqual({ parts: back, left: [] });
    const theirs = done(added, [
      { kind: 'room', id: 'r9', base: 1, set: { name: { was: 'r9', now: 'Den' } } },
    ]);
    expect(stillOurs(theirs, back, mine)).toMatchObject({ parts: [], left: [{ kind: 'room', id: 'r9' }] });
    expect(stillOurs(job, back, mine)).toEqual({ parts: [], left: [] });
  });
});

test('earlier states of a record are walked back from what it is', () => {
  const states = [
    { id: 'r', name: 'one' },
    { id: 'r', name: 'two', kind: 'hall' },
    { id: 'r', name: 'three' },
  ];
  const entry = (sequence: number, undo: EditPart[] | null) => ({
    sequence,
    at: '',
    deviceId: null,
    label: '',
    parts: [],
    undo,
  });
  const set = (fields: Record<string, unknown>): EditPart => ({
    kind: 'room',
    id: 'r',
    base: null,
    set: Object.fromEntries(Object.entries(fields).map(([field, now]) => [field, { was: null, now }])),
  });
  const history = [
    entry(9, [set({ name: 'two', kind: 'hall' })]),
    entry(8, [set({ name: 'one', kind: null })]),
    entry(7, [{ kind: 'room', id: 'r', base: null, remove: true }]),
    entry(6, null),
  ];
  expect(earlierRecords('room', 'r', states[2], history).map(({ record, known }) => [record, known])).toEqual(
    [
      [states[1], true],
      [states[0], true],
      [undefined, true],
      [undefined, false],
    ],
  );
});
