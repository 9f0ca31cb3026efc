import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import { newJob } from '../job/new-job.js';
import type { Channel, Device } from '../job/schema/catalogue.js';
import type { Job, Load } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { newBox } from '../survey/new-box.js';
import { presetContents } from '../survey/presets.js';
import { carryAt, carryOfCircuit, carryOfHouse, energyOfHouse } from './carry.js';

const lamp = (id: string, more: Partial<Load> = {}): Load => ({
  id,
  name: id,
  roomId: 'r1',
  kind: 'led',
  count: 8,
  wattsEach: 9,
  ...more,
});
const dimmer: Channel = {
  id: 1,
  kind: 'dimmer',
  ratings: [{ kinds: ['led'], unit: 'W', limit: [150, 120, 90] }],
};

function device(more: Partial<Device> & { channels: Channel[] }): Device {
  return {
    id: 'd1',
    maker: 'M',
    model: 'Model',
    family: 'f',
    price: 1000,
    practices: ['us'],
    volts: [110, 127],
    gangs: 1,
    mount: 'box',
    body: { width: 44, height: 68, depth: 33 },
    needs: { neutral: true },
    terminals: [
      { id: 'L', role: 'line' },
      { id: 'N', role: 'neutral' },
      { id: 'O', role: 'load', channel: 1 },
    ],
    standbyW: 0.5,
    ...more,
  } as unknown as Device;
}

function house(loads: Load[], of: Device, change: (job: Job) => void = () => {}) {
  let serial = 0;
  const newId = () => `n${++serial}`;
  const box: Box = {
    ...newBox({ id: 'b1', roomId: 'r1', name: 'Box', order: 1 }, 'us', ['c1']),
    ...presetContents(
      { preset: 'power-at-switch', practice: 'us', size: '14AWG', loadIds: loads.map((load) => load.id) },
      newId,
    ),
  };
  const catalogue = { devices: [of], hubs: [], parts: [], connectors: [], enclosures: [], platforms: [] };
  const job: Job = {
    ...newJob('j', 'Job', 'us', '2023', catalogue),
    rooms: [{ id: 'r1', name: 'Hall', floor: 0, order: 1 }],
    circuits: [{ id: 'c1', panel: 'Main', breaker: '1', label: '', amps: 15, volts: 120 }],
    loads,
    boxes: [box],
    selections: [{ boxId: 'b1', position: 1, deviceId: of.id, strategy: 'single' }],
  };
  change(job);
  return lookup(job);
}

describe('a channel', () => {
  test('of 150 W takes sixteen 9 W lamps at most, thirteen within its margin', () => {
    const [carry] = carryOfHouse(house([lamp('l1')], device({ channels: [dimmer] })));
    // 150 / 9 = 16.7; 0.8 x 150 / 9 = 13.3.
    expect(carry?.most).toEqual({ loadId: 'l1', allowed: 16, withinMargin: 13 });
    expect(carry?.rating).toMatchObject({ verdict: 'ok', share: 72 / 150 });
  });

  test('exactly full is allowed', () => {
    const [carry] = carryOfHouse(
      house([lamp('l1', { wattsEach: 10, count: 15 })], device({ channels: [dimmer] })),
    );
    expect(carry?.most?.allowed).toBe(15);
    expect(carry?.rating.verdict).toBe('margin');
  });

  test('with a neighbour on each side takes ten of them', () => {
    const known = house([lamp('l1')], device({ channels: [dimmer], fins: true }), (job) => {
      const box = job.boxes[0] as Box;
      box.enclosure.gangs = 3;
      box.positions = [
        { index: 1, existing: 'single-pole', loadIds: [] },
        { ...(box.positions[0] as Box['positions'][number]), index: 2 },
        { index: 3, existing: 'single-pole', loadIds: [] },
      ];
      job.selections = [{ boxId: 'b1', position: 2, deviceId: 'd1', strategy: 'single' }];
    });
    expect(carryOfHouse(known)[0]).toMatchObject({ removedSides: 2, most: { allowed: 10, withinMargin: 8 } });
  });

  test('with motors on a relay the margin is the limit: 5 A at 120 V and 0.6 take four fans of 75 W', () => {
    const relay: Channel = { id: 1, kind: 'relay', ratings: [{ kinds: ['fan-ac'], unit: 'A', limit: [5] }] };
    const [carry] = carryOfHouse(
      house([lamp('f', { kind: 'fan-ac', count: 1, wattsEach: 75 })], device({ channels: [relay] })),
    );
    // 75 / 0.6 / 120 = 1.0417 A, a share of 0.2083; 0.8 / 0.2083 = 3.84: three, not four.
    expect(carry?.most).toEqual({ loadId: 'f', allowed: 3, withinMargin: 3 });
  });

  test('of a device without a neutral says whether its lamps are enough, and what a bypass does', () => {
    const twoWire = (own: Partial<Channel>) =>
      device({
        needs: { neutral: false } as Device['needs'],
        terminals: [
          { id: 'L', role: 'line' },
          { id: 'O', role: 'load', channel: 1 },
        ] as Device['terminals'],
        channels: [{ ...dimmer, minWatts: 25, ...own }],
      });
    const few = lamp('l1', { count: 2 });
    expect(carryOfHouse(house([few], twoWire({})))[0]?.minimum).toMatchObject({
      watts: 18,
      needed: 25,
      enough: false,
      bypassPartId: null,
    });
    const fitted = { ...few, fitted: ['by'] };
    expect(carryOfHouse(house([fitted], twoWire({ bypassPartId: 'by' })))[0]?.minimum).toMatchObject({
      enough: true,
      bypassed: true,
    });
    expect(carryOfHouse(house([lamp('l1')], twoWire({})))[0]?.minimum).toMatchObject({
      watts: 72,
      enough: true,
    });
    expect(carryOfHouse(house([lamp('l1')], device({ channels: [dimmer] })))[0]?.minimum).toBeNull();
  });

  test('of a device that is only considered is told the same', () => {
    const known = house([lamp('l1')], device({ channels: [dimmer] }), (job) => {
      job.selections = [];
    });
    const [box] = known.job.boxes as [Box];
    expect(
      carryAt(box, box.positions[0] as Box['positions'][number], known.devices.get('d1') as Device, known)[0]
        ?.most?.allowed,
    ).toBe(16);
    expect(carryOfHouse(known)).toEqual([]);
  });
});

describe('a circuit', () => {
  const circuitOf = (known: ReturnType<typeof house>) =>
    carryOfCircuit(known.job.circuits[0] as Job['circuits'][number], known);

  test('adds up what its boxes work: 1200 W of heater at 120 V are 10 A, two thirds of 15', () => {
    const carry = circuitOf(
      house([lamp('h', { kind: 'heater', count: 1, wattsEach: 1200 })], device({ channels: [dimmer] })),
    );
    expect(carry).toMatchObject({ watts: 1200, amps: 10, verdict: 'ok' });
    expect(carry.share).toBeCloseTo(2 / 3, 12);
    expect(
      circuitOf(
        house([lamp('h', { kind: 'heater', count: 1, wattsEach: 1500 })], device({ channels: [dimmer] })),
      ).verdict,
    ).toBe('margin');
    expect(
      circuitOf(
        house([lamp('h', { kind: 'heater', count: 1, wattsEach: 1801 })], device({ channels: [dimmer] })),
      ).verdict,
    ).toBe('over');
  });

  test('a load of two boxes counts once; one of a box on two breakers is not sure', () => {
    const two = house([lamp('l1')], device({ channels: [dimmer] }), (job) => {
      job.boxes.push({ ...(job.boxes[0] as Box), id: 'b2' });
    });
    expect(circuitOf(two).watts).toBe(72);
    const shared = house([lamp('l1')], device({ channels: [dimmer] }), (job) => {
      job.circuits.push({ ...(job.circuits[0] as Job['circuits'][number]), id: 'c2', breaker: '2' });
      (job.boxes[0] as Box).circuitIds = ['c1', 'c2'];
    });
    expect(circuitOf(shared)).toMatchObject({ watts: 0, unsure: [{ id: 'l1' }] });
  });

  test('14 AWG on a 20 A breaker is named; on 15 A it is right', () => {
    const on = (amps: number) =>
      circuitOf(
        house([lamp('l1')], device({ channels: [dimmer] }), (job) => {
          (job.circuits[0] as Job['circuits'][number]).amps = amps;
        }),
      ).conductor;
    expect(on(15)).toBeNull();
    expect(on(20)).toEqual({ size: '14AWG', amps: 15, boxId: 'b1' });
  });
});

test('energy by hand: 72 W for five hours a day are 131.4 kWh a year; half a watt of standby is 4.38', () => {
  const known = house([lamp('l1')], device({ channels: [dimmer] }));
  const use = energyOfHouse(known, () => 5, 30);
  expect(use.running[0]?.kWh).toBeCloseTo(131.4, 9);
  expect(use.standby[0]?.kWh).toBeCloseTo(4.38, 9);
  expect(use.total.cost).toBeCloseTo((131.4 + 4.38) * 30, 9);
  expect(energyOfHouse(known, () => 5, null).total.cost).toBeNull();
});
