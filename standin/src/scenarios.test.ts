import { readFileSync } from 'node:fs';
import { deviceStands, deviceTasks, type Job, lookup } from '@inventario/core';
import { expect, test } from '@jest/globals';
import { Scenario } from './scenario.js';

const jsonOf = (path: string): unknown => JSON.parse(readFileSync(path, 'utf8'));

test('behind the plates of the demo hides what its record tells of', () => {
  const { faults, beyondHelp } = Scenario.parse(jsonOf('standin/scenarios/heron-house.json'));
  const known = lookup(jsonOf('demo/jobs/heron-house.inventario.json') as Job);
  const failing = deviceTasks(known)
    .map((task) => deviceStands(task, known))
    .filter((device) => device.failing || device.parked);
  expect(Object.keys(faults).sort()).toEqual(failing.map(({ task }) => task.key).sort());
  // What was put aside for a reason is so for the true one.
  const reasons = failing.flatMap(({ task, parked }) => (parked ? [[task.key, [parked.reason]]] : []));
  expect(Object.entries(beyondHelp)).toEqual(reasons);
});
