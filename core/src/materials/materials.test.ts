import { describe, expect, test } from '@jest/globals';
import { materialRows } from '../findings/material-rows.js';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { materialsOf } from './materials.js';

function list(change: (job: Job, device: Device, box: Box) => void = () => {}, name = 'pantry') {
  const job = exampleJob(name);
  change(job, job.catalogue.devices[0] as Device, job.boxes[0] as Box);
  const materials = materialsOf(lookup(job));
  const count = Object.fromEntries(materials.lines.map((line) => [line.item, line.toBuy]));
  return { materials, count, line: (item: string) => materials.lines.find((entry) => entry.item === item) };
}

describe('what to buy for one switch with four joints', () => {
  test('by hand: line and load small, neutrals and grounds medium; a plate, two screws, a flag for each of four conductors', () => {
    const { count, materials } = list();
    expect(count).toEqual({
      'device:pw-20': 1,
      'plate:1:as found:white:': 1,
      'connector:tw-small': 2,
      'connector:tw-medium': 2,
      screws: 2,
      flags: 4,
      'plate-labels': 1,
    });
    expect(materials).toMatchObject({ total: 3400, labour: { minutes: 19, cost: 2850 }, estimate: 6250 });
  });

  test('less what comes in the package, what is fitted, and what is in hand', () => {
    const packed = list((job, device) => {
      job.catalogue.parts.push(
        { id: 'p-screws', name: 'Screws', kind: 'screws', price: 0 },
        { id: 'p-twist', name: 'Twist-on', kind: 'connector', price: 0, connectorId: 'tw-medium' },
      );
      device.includes = [
        { partId: 'p-screws', count: 2 },
        { partId: 'p-twist', count: 3 },
      ];
      job.inHand = { 'connector:tw-small': 1, 'device:pw-20': 5 };
    });
    expect(packed.count).toMatchObject({
      screws: 0,
      'connector:tw-medium': 0,
      'connector:tw-small': 1,
      'device:pw-20': 0,
    });
    expect(packed.line('device:pw-20')).toMatchObject({ needed: 1, inHand: 1, price: 0 });
    // The client pays for the device whether it is in the van or not.
    expect(packed.materials.estimate).toBe(6250);
    const mounted = list((job) => {
      job.events.push({ id: 'e1', kind: 'mounted', boxId: 'pantry' });
    });
    expect(mounted.line('device:pw-20')).toMatchObject({ needed: 1, fitted: 1, toBuy: 0 });
    expect(mounted.materials).toMatchObject({ total: 0, estimate: 6250 });
  });

  test('spares of each model, a hub that is not owned, parts the choice names', () => {
    const { line } = list((job, device) => {
      job.brief = { ...job.brief, spares: 2, hubsOwned: [] };
      job.catalogue.hubs.push({
        id: 'h1',
        name: 'Post',
        price: 5000,
        radio: 'wifi',
        platforms: [],
        deviceLimit: 9,
        wired: true,
      });
      device.hubId = 'h1';
      job.catalogue.parts.push({ id: 'by', name: 'Bypass', kind: 'bypass', price: 700, where: 'fitting' });
      for (const selection of job.selections) selection.with = ['by'];
    });
    expect(line('spare:pw-20')).toMatchObject({ toBuy: 2, price: 6800 });
    expect(line('hub:h1')).toMatchObject({ toBuy: 1, price: 5000 });
    expect(line('part:by')).toMatchObject({ toBuy: 1, price: 700, detail: 'at the fitting' });
  });

  test('a plate of the catalogue by gangs, opening and colour; none where the device brings its own', () => {
    const plate = {
      id: 'pl',
      name: 'Plate tall 1',
      kind: 'plate',
      price: 300,
      gangs: 1,
      opening: 'tall',
      colours: ['white'],
    };
    const other = { ...plate, id: 'pl2', gangs: 2 };
    const { line } = list((job, device) => {
      job.catalogue.parts.push(other, plate);
      device.opening = 'tall';
    });
    expect(line('part:pl')).toMatchObject({ toBuy: 1, price: 300 });
    const own = list((_, device) => {
      device.ownPlate = true;
    });
    expect(own.materials.lines.filter((entry) => entry.shelf === 'plates')).toEqual([]);
  });

  test('controls without a box count too, and unlabelled conductors are told of', () => {
    const { count, materials } = list((job, device, box) => {
      job.controlPoints = [
        { id: 'cp', roomId: 'entry', name: 'By the bed', deviceId: device.id, targets: [] },
      ];
      box.labels = box.labels.slice(1);
    });
    expect(count['device:pw-20']).toBe(2);
    expect(materials.openBoxIds).toEqual(['pantry']);
  });
});

test('tails by size and use where terminals are screws: a line and an earth for each module of the plate', () => {
  const { materials } = list(undefined, 'lounge-plate');
  const tails = materials.lines.filter((line) => line.shelf === 'conductors');
  expect(tails.map((line) => line.detail)).toContainEqual(expect.stringMatching(/line$/));
  expect(
    materials.lines.filter((line) => line.shelf === 'devices').reduce((sum, line) => sum + line.needed, 0),
  ).toBe(2);
  const [row] = materialRows(tails, 'USD');
  expect(row).toMatchObject({ unit: 'm', needed: expect.any(Number), price: '' });
});
