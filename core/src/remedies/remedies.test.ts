import { describe, expect, test } from '@jest/globals';
import { assessBox } from '../enclosure/assess.js';
import { lookup } from '../job/lookup.js';
import { newJob } from '../job/new-job.js';
import type { Device, Part } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import { standardBoxes } from '../practice/standard-boxes.js';
import { newBox } from '../survey/new-box.js';
import { presetContents } from '../survey/presets.js';
import { exampleJob } from '../test-support/examples.js';
import { Random } from '../test-support/random.js';
import { manyDevices, randomHouse } from '../test-support/random-house.js';
import { cubicInches } from '../units/volume.js';
import { type Remedy, remedies, troublesOf } from './remedies.js';

const ring = (id: string, depth: number, in3: number, price: number): Part => ({
  id,
  name: id,
  kind: 'extension-ring',
  price,
  in3,
  depth,
  where: 'box',
});

/**
 * Two cables of 14 AWG at a single-pole switch: four conductors 8 in3, the grounds together 2, the yoke 4: 14
 * in3. The box, 3 x 2 x 2-1/4, holds 10.5.
 */
function tight(change: (job: Job, box: Box) => void = () => {}) {
  let serial = 0;
  const newId = () => `n${++serial}`;
  const catalogue = {
    devices: [],
    hubs: [],
    parts: [ring('flat', 10, 2, 100), ring('usual', 16, 6, 450), ring('tall', 38, 21, 980)],
    connectors: [],
    enclosures: standardBoxes(profileOf({ practice: 'us' })),
    platforms: [],
  };
  const made = newBox({ id: 'b1', roomId: 'r1', name: 'Box', order: 1 }, 'us');
  const box: Box = {
    ...made,
    ...presetContents({ preset: 'power-at-switch', practice: 'us', size: '14AWG' }, newId),
    enclosure: {
      ...made.enclosure,
      material: 'metal',
      grounded: true,
      capacity: { from: 'standard', enclosureId: 'dev-225' },
      depth: 57,
    },
  };
  const job: Job = {
    ...newJob('j', 'Job', 'us', '2023', catalogue),
    rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
    boxes: [box],
  };
  change(job, box);
  return { box, known: lookup(job), found: remedies(box, lookup(job)) };
}
const of = (found: readonly Remedy[], kind: Remedy['kind']) => found.filter((remedy) => remedy.kind === kind);

describe('a box by hand: 14 in3 in 10.5', () => {
  test('the smallest box that closes it is exactly full, and counts as closed', () => {
    const [first] = of(tight().found, 'deeper-box');
    expect(first).toMatchObject({
      id: 'dev-275',
      clears: ['fill'],
      leaves: [],
      also: [{ code: 'wall-opened' }],
    });
    expect(cubicInches(first?.before.usedMl as number)).toBeCloseTo(14, 3);
    expect(cubicInches(first?.after.capacityMl as number)).toBeCloseTo(14, 3);
    expect(first?.after.availableMm).toBe(70);
  });

  test('a ring of 2 in3 is not enough and is left out; of 6 and of 21 the cheaper comes first', () => {
    expect(of(tight().found, 'ring').map(({ id, price }) => [id, price])).toEqual([
      ['usual', 450],
      ['tall', 980],
    ]);
    const [usual] = of(tight().found, 'ring');
    expect(cubicInches(usual?.after.capacityMl as number)).toBeCloseTo(16.5, 3);
    expect(usual?.after.availableMm).toBe(57 + 16);
    expect(usual?.also).toEqual([{ code: 'stands-proud', facts: { mm: 16 } }]);
  });

  test('other connectors change nothing in this count, and are left out', () => {
    expect(of(tight().found, 'connectors')).toEqual([]);
  });

  test('boxes for lights are not offered, nor any to a box that closes', () => {
    expect(of(tight().found, 'deeper-box').some(({ id }) => id.startsWith('oct'))).toBe(false);
    const roomy = tight((_, box) => Object.assign(box.enclosure, { capacity: { from: 'marked', in3: 20 } }));
    expect(roomy.found).toEqual([]);
  });

  test('a price that nobody knows is said to be unknown, one in the catalogue is taken', () => {
    expect(of(tight().found, 'deeper-box')[0]?.price).toBeNull();
    const priced = tight((job) => {
      for (const entry of job.catalogue.enclosures) entry.price = 700;
    });
    expect(of(priced.found, 'deeper-box')[0]?.price).toBe(700);
  });
});

test('too deep by 3 mm of 57: what gives depth helps, what gives volume alone does not', () => {
  const { found } = tight((_, box) =>
    Object.assign(box.enclosure, { capacity: { from: 'marked', in3: 30 }, depth: 30 }),
  );
  // The switch body is 25 mm, its clearance 6: 31 mm in 30.
  expect(found.every((remedy) => remedy.clears.includes('depth'))).toBe(true);
  expect(of(found, 'ring').map(({ id }) => id)).toEqual(['flat', 'usual']);
});

describe.each([1, 2, 3, 4])('random houses (seed %i)', (seed) => {
  const random = new Random(9100 + seed);
  const { catalogue } = exampleJob('galley');
  const devices = manyDevices(random, catalogue.devices, 20);
  const job = randomHouse(random, 12, {
    ...catalogue,
    devices,
    parts: [...catalogue.parts, ring('usual', 16, 6, 450)],
  });
  const known = lookup(job);

  test('nothing is offered to a box that closes; whatever is offered helps and harms nothing', () => {
    for (const box of job.boxes) {
      const chosen = box.positions.some(
        (position) => known.selections.get(`${box.id}/${position.index}`)?.deviceId,
      );
      const troubles = troublesOf(assessBox(box, known, chosen ? 'planned' : 'found'));
      const found = remedies(box, known);
      if (troubles.length === 0) expect(found).toEqual([]);
      for (const remedy of found) {
        expect(remedy.clears.length).toBeGreaterThan(0);
        expect([...remedy.clears, ...remedy.leaves].sort()).toEqual([...troubles].sort());
      }
    }
  });

  test('what clears more comes first, then the cheaper', () => {
    for (const box of job.boxes) {
      const found = remedies(box, known);
      for (let at = 1; at < found.length; at++) {
        const [a, b] = [found[at - 1] as Remedy, found[at] as Remedy];
        expect(a.leaves.length).toBeLessThanOrEqual(b.leaves.length);
        if (a.leaves.length === b.leaves.length && a.price !== null && b.price !== null)
          expect(a.price).toBeLessThanOrEqual(b.price);
      }
    }
  });
});

/**
 * The pantry, told to the last conductor, with a device 34 mm deep and 12 mm of leads in a box that has 40;
 * and other devices.
 */
function pantry(others: (device: Device) => Device[], change: (job: Job) => void = () => {}) {
  const job = exampleJob('pantry');
  change(job);
  const box = job.boxes[0] as Box;
  const device = job.catalogue.devices[0] as Device;
  box.enclosure.depth = 40;
  box.labels = box.conductors
    .filter((conductor) => conductor.cableId)
    .map(({ id }) => {
      const [, cable, colour] = id.split('-');
      if (colour === 'bare') return { conductorId: id, role: 'ground' };
      if (colour === 'white')
        return { conductorId: id, role: 'neutral', circuitId: box.circuitIds[0] as string };
      return cable === 'feed'
        ? { conductorId: id, role: 'line', circuitId: box.circuitIds[0] as string }
        : { conductorId: id, role: 'load', loadIds: job.loads.map((load) => load.id) };
    });
  job.catalogue.devices = [device, ...others(device)];
  job.catalogue.parts = [];
  return remedies(box, lookup(job)).filter((remedy) => remedy.place !== null);
}
const like = (device: Device, more: Partial<Device>): Device => ({ ...structuredClone(device), ...more });

describe('another device where the chosen one is too deep: 46 mm in 40', () => {
  test('one with terminals needs 6 mm behind it: 34 + 6 closes exactly; one as deep with leads is left out', () => {
    const found = pantry((device) => [
      like(device, {
        id: 'screws',
        price: 4000,
        terminals: device.terminals.map((terminal) => ({ ...terminal, form: 'screw' as const })),
      }),
      like(device, { id: 'same' }),
    ]);
    expect(found).toMatchObject([
      {
        kind: 'device-terminals',
        id: 'screws',
        place: { position: 1, strategy: 'single' },
        price: 600,
        clears: ['depth'],
        before: { neededMm: 46, availableMm: 40 },
        after: { neededMm: 40, availableMm: 40 },
      },
    ]);
  });

  test('a shallow one; one without a neutral, which says so; the cheaper first', () => {
    const found = pantry((device) => [
      like(device, { id: 'flat', price: 5000, body: { width: 44, height: 68, depth: 26 } }),
      like(device, {
        id: 'two-wire',
        price: 3000,
        family: 'other',
        body: { width: 44, height: 68, depth: 26 },
        needs: { ...device.needs, neutral: false },
        terminals: device.terminals.filter((terminal) => terminal.role !== 'neutral'),
      }),
    ]);
    expect(found.map(({ kind, id, price }) => [kind, id, price])).toEqual([
      ['two-wire', 'two-wire', -400],
      ['smaller-device', 'flat', 1600],
    ]);
    expect(found[0]?.also).toEqual([
      { code: 'neutral-not-used' },
      { code: 'other-family', facts: { from: 'pellworth', to: 'other' } },
    ]);
  });

  test('a module at the fitting leaves the old switch, 25 + 6 mm, in the box', () => {
    const found = pantry((device) => [like(device, { id: 'module', mount: 'fitting' })]);
    expect(found).toMatchObject([
      { kind: 'module-at-fitting', id: 'module', clears: ['depth'], also: [{ code: 'at-fitting' }] },
    ]);
    expect(found[0]?.after.neededMm).toBeLessThanOrEqual(40);
  });

  test('a controller of smart bulbs ties the line through, and says that no wired control is left', () => {
    const found = pantry(
      (device) => [
        like(device, {
          id: 'bulbs',
          mount: 'surface',
          bulbController: true,
          bulbFamilies: ['glow'],
          channels: [],
          terminals: [],
          needs: { neutral: false, ground: 'none' },
          power: 'battery',
        }),
      ],
      (job) => {
        for (const load of job.loads) Object.assign(load, { kind: 'smart-bulb', bulbFamily: 'glow' });
      },
    );
    expect(found).toMatchObject([
      {
        kind: 'tie-through',
        id: 'bulbs',
        place: { strategy: 'bulb-controller' },
        also: expect.arrayContaining([{ code: 'no-wired-control' }]),
      },
    ]);
  });
});
