import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { exampleJob } from '../test-support/examples.js';
import { chosenPlaces } from '../wire/comes-out.js';
import { contentsAsFound } from './as-found.js';
import { contentsAsPlanned } from './as-planned.js';
import { assessBox } from './assess.js';

const first = (job: Job) => job.boxes[0] as Job['boxes'][number];
const found = (job: Job) => contentsAsFound(first(job), lookup(job));

describe('the box as found', () => {
  test('rings and set-back add to depth, rings to volume', () => {
    const job = exampleJob('pantry');
    Object.assign(first(job).enclosure, { rings: [{ in3: 6, depth: 16 }], setBack: 3 });
    expect(found(job).availableDepth).toBe(80 + 16 + 3);
    expect(found(job).capacity).toEqual({ ml: expect.closeTo(26 * 16.387064, 6), standing: true });
  });

  test('a standard box stands when it is metal; a measured one never does', () => {
    const job = exampleJob('galley');
    expect(found(job).capacity.standing).toBe(true);
    first(job).enclosure.material = 'plastic';
    expect(found(job).capacity.standing).toBe(false);
    first(job).enclosure.capacity = { from: 'measured', width: 50, height: 75, depth: 70 };
    expect(found(job).capacity).toEqual({ ml: 262.5, standing: false });
  });

  test('a volume or depth of 0 is not read, and says so instead of computing with it', () => {
    const job = exampleJob('pantry');
    Object.assign(first(job).enclosure, { capacity: { from: 'marked', mL: 0 }, depth: 0 });
    const result = assessBox(first(job), lookup(job), 'found');
    expect(result).toMatchObject({ capacityMl: null, remainingMl: null, verdict: 'no-rule' });
    expect(result.depth).toMatchObject({ availableMm: null, verdict: 'unknown' });
    expect(result.packing).toMatchObject({ occupancy: null, verdict: 'unknown' });
  });

  test('a conductor labelled ground counts as one whatever its colour; a bare one labelled otherwise does not', () => {
    const job = exampleJob('pantry');
    const box = first(job);
    box.labels = [
      { conductorId: 'pantry-feed-white', role: 'ground' },
      { conductorId: 'pantry-feed-bare', role: 'spare' },
      { conductorId: 'pantry-lamps-bare', role: 'unknown' },
    ];
    const grounds = found(job).conductors.filter((conductor) => conductor.ground);
    expect(grounds.map((conductor) => conductor.id)).toEqual(['pantry-feed-white', 'pantry-lamps-bare']);
  });

  test('a loop shorter than twice the free length counts once, a loop of unknown length twice', () => {
    const job = exampleJob('pantry');
    const conductor = first(job).conductors[0] as Job['boxes'][number]['conductors'][number];
    Object.assign(conductor, { unbroken: true, looped: true, at: undefined });
    expect(found(job).conductors[0]?.longLoop).toBe(true);
    conductor.freeLength = 303;
    expect(found(job).conductors[0]?.longLoop).toBe(false);
    conductor.freeLength = 304;
    expect(found(job).conductors[0]?.longLoop).toBe(true);
  });

  test('two devices on one yoke are one strap; leads reach the conductors in their joints', () => {
    const job = exampleJob('shed');
    const box = first(job);
    for (const position of box.positions) position.yoke = 1;
    expect(found(job).straps).toMatchObject([{ positions: [1, 2], size: '14AWG' }]);
    const [position] = box.positions;
    if (position) position.leads = [{ terminal: 'a', at: { joint: 'shed-jw-a' } }];
    expect(found(job).leads).toEqual([{ size: '18AWG', length: 150 }]);
    expect(found(job).straps[0]?.bodies[0]?.clearance).toBe(12);
  });

  test('three switches of one British plate share its body', () => {
    const job = exampleJob('back-bedroom');
    const box = first(job);
    box.positions = [1, 2, 3].map((index) => ({ index, existing: 'single-pole', loadIds: [], yoke: 1 }));
    expect(found(job).straps).toMatchObject([{ positions: [1, 2, 3], bodies: [{ body: { depth: 18 } }] }]);
  });
});

describe('the box as planned', () => {
  test('the neutrals of three devices, and their grounds, are each split between two connectors with a jumper', () => {
    const job = exampleJob('galley');
    const known = lookup(job);
    const planned = contentsAsPlanned(first(job), chosenPlaces(first(job), known), known);
    expect(
      planned.conductors.filter((conductor) => !conductor.fromOutside && !conductor.id.startsWith('galley')),
    ).toHaveLength(2);
    expect(planned.conductors.map((conductor) => conductor.id)).not.toContain('galley-tail-1');
    expect(planned.conductors.map((conductor) => conductor.id)).toContain('galley-bond');
  });

  test('a device at the fitting leaves the box empty', () => {
    const job = exampleJob('pantry');
    const [device] = job.catalogue.devices;
    if (device) device.mount = 'fitting';
    const known = lookup(job);
    expect(contentsAsPlanned(first(job), chosenPlaces(first(job), known), known)).toMatchObject({
      straps: [],
      leads: [],
    });
  });

  test('without labels the device counts as what it replaces', () => {
    const job = exampleJob('pantry');
    first(job).labels = [];
    const known = lookup(job);
    expect(contentsAsPlanned(first(job), chosenPlaces(first(job), known), known).straps[0]?.size).toBe(
      '12AWG',
    );
  });
});
