import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Room } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { meshReach } from './mesh.js';
import { signalAt } from './signal.js';

describe('signal at a box', () => {
  const box = (signal: Box['signal'], enclosure: Partial<Box['enclosure']> = {}) => {
    const first = exampleJob('pantry').boxes[0] as Box;
    return { ...first, signal, enclosure: { ...first.enclosure, ...enclosure } } as Box;
  };
  const METAL = { material: 'metal', plate: 'metal' } as const;

  test.each([
    [-55, 4],
    [-55.1, 3],
    [-65, 3],
    [-72, 2],
    [-72.5, 1],
    [-80, 1],
    [-81, 0],
  ])('%d dBm is %i bars', (rssi, bars) => {
    expect(signalAt(box({ rssi }))).toEqual({ bars, rssi, lost: 0 });
  });
  test('a metal plate on a metal box takes 10 dB; a metal box alone none', () => {
    expect(signalAt(box({ rssi: -60 }, METAL))).toEqual({ bars: 2, rssi: -70, lost: 10 });
    expect(signalAt(box({ rssi: -60 }, { material: 'metal', plate: 'plastic' }))).toEqual({
      bars: 3,
      rssi: -60,
      lost: 0,
    });
  });
  test('bars stand as read; behind metal they count from the lowest they stand for', () => {
    expect(signalAt(box({ bars: 2 }))?.bars).toBe(2);
    expect(signalAt(box({ bars: 0 }))?.bars).toBe(0);
    expect(signalAt(box({ bars: 3 }, METAL))).toEqual({ bars: 1, rssi: -75, lost: 10 });
  });
  test('not read is not weak', () => {
    expect(signalAt(box(undefined))).toBeNull();
  });
});

describe('reach of a mesh', () => {
  const reach = (plan: [x: number, y: number, floor: number][], here: number, repeaters: number[]) => {
    const job = exampleJob('shed');
    const device = {
      ...(job.catalogue.devices.find((entry) => entry.radio === 'mesh') as Device),
      repeater: true,
    };
    job.catalogue.devices = [device];
    job.rooms = plan.map(([x, y, floor], at) => ({
      id: `r${at}`,
      name: `Room ${at}`,
      floor,
      order: at,
      plan: { x, y },
    }));
    job.boxes = repeaters.map((room) => ({ ...(job.boxes[0] as Box), id: `b${room}`, roomId: `r${room}` }));
    job.selections = repeaters.map((room) => ({
      boxId: `b${room}`,
      position: 1,
      deviceId: device.id,
      strategy: 'single' as const,
    }));
    job.brief = { ...job.brief, hubRooms: { [device.hubId as string]: 'r0' } };
    return meshReach(job.rooms[here] as Room, device, lookup(job), new Set([`b${here}/1`]));
  };
  test('twelve metres from the hub is near, a step more is far', () => {
    expect(
      reach(
        [
          [0, 0, 0],
          [12, 0, 0],
        ],
        1,
        [],
      )?.near,
    ).toBe(true);
    expect(
      reach(
        [
          [0, 0, 0],
          [12.1, 0, 0],
        ],
        1,
        [],
      ),
    ).toMatchObject({ near: false, metres: 12.1 });
  });
  test('two floors off is far, one is near', () => {
    expect(
      reach(
        [
          [0, 0, 0],
          [0, 0, 1],
        ],
        1,
        [],
      )?.near,
    ).toBe(true);
    expect(
      reach(
        [
          [0, 0, 0],
          [0, 0, 2],
        ],
        1,
        [],
      )?.near,
    ).toBe(false);
  });
  test('repeaters carry it on, one hop at a time, as long as none is missing', () => {
    const line: [number, number, number][] = [
      [0, 0, 0],
      [10, 0, 0],
      [20, 0, 0],
      [30, 0, 0],
    ];
    expect(reach(line, 3, [1, 2])?.near).toBe(true);
    expect(reach(line, 3, [2])?.near).toBe(false);
    // What would stand here does not carry itself.
    expect(reach(line, 3, [3])?.near).toBe(false);
  });
  test('nothing is said where the hub’s room or this one has no place on the plan', () => {
    const job = exampleJob('shed');
    const device = job.catalogue.devices.find((entry) => entry.radio === 'mesh') as Device;
    expect(meshReach(job.rooms[0] as Room, device, lookup(job), new Set())).toBeNull();
  });
});
