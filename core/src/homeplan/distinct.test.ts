import { expect, test } from '@jest/globals';
import { wallFirst } from '../advice/wall-first.js';
import { lookup } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import { exampleJob } from '../test-support/examples.js';
import { distinctPlans } from './distinct.js';

test('plans that come to the same are one; one that serves nothing is none', () => {
  const plan = (school: string, served: number, deviceId: string) =>
    ({ school, served, total: 100, choices: served ? [{ boxId: 'b', position: 1, deviceId }] : [] }) as never;
  const merged = distinctPlans([
    plan('lowest-cost', 1, 'd1'),
    plan('no-hub', 1, 'd1'),
    plan('makers-hub', 0, ''),
    plan('fewest-families', 1, 'd2'),
  ]);
  expect(merged.map(({ schools }) => schools)).toEqual([['lowest-cost', 'no-hub'], ['fewest-families']]);
  expect(distinctPlans([plan('lowest-cost', 0, '')])).toHaveLength(1);
});

test('a module at the fitting is ruled out where something at the wall goes, unless the old switch is to stay', () => {
  const job = exampleJob('pantry');
  const [device] = job.catalogue.devices;
  if (!device) throw new Error('the pantry has a device');
  const module = { ...device, id: 'at-fitting', mount: 'fitting' as const, price: 1 };
  const free: Job = {
    ...job,
    selections: [],
    catalogue: { ...job.catalogue, devices: [...job.catalogue.devices, module] },
  };
  const wants = lookup(free).job.boxes.flatMap((box) =>
    box.positions.filter(({ need }) => need?.smart).map(({ index }) => ({ boxId: box.id, position: index })),
  );
  expect(wants.length).toBeGreaterThan(0);
  const bans = wallFirst(free).brief?.bans ?? [];
  expect(bans.filter(({ deviceId }) => deviceId !== 'at-fitting')).toEqual(job.brief?.bans ?? []);
  const kept: Job = {
    ...free,
    boxes: free.boxes.map((box) => ({
      ...box,
      positions: box.positions.map((position) => ({
        ...position,
        need: { ...position.need, keepSwitch: true },
      })),
    })),
  };
  expect(wallFirst(kept)).toBe(kept);
  const without: Job = { ...free, catalogue: { ...free.catalogue, devices: job.catalogue.devices } };
  expect(wallFirst(without)).toBe(without);
});
