import { describe, expect, test } from '@jest/globals';
import { homePlans } from '../homeplan/home-plans.js';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job, Load, Room } from '../job/schema/job.js';
import type { Position } from '../job/schema/survey.js';
import { exampleJob } from '../test-support/examples.js';
import { roomAdvice } from './room-advice.js';
import { trialOf } from './trial.js';

/** The pantry with a bulb and a control for it in the catalogue. */
function pantry(change: (job: Job, load: Load, position: Position) => void = () => {}) {
  const job = exampleJob('pantry');
  const [device] = job.catalogue.devices as [Device];
  job.catalogue.parts.push({
    id: 'bulb',
    name: 'Bulb',
    kind: 'bulb',
    price: 1000,
    bulbFamily: 'glow',
    fullColour: true,
  });
  job.catalogue.devices.push({
    ...device,
    id: 'knob',
    price: 2000,
    mount: 'surface',
    radio: 'mesh',
    hubId: 'hub',
    terminals: [],
    channels: [],
    needs: { neutral: false, ground: 'none' },
    bulbController: true,
    bulbFamilies: ['glow'],
  });
  const [load] = job.loads as [Load];
  const position = job.boxes[0]?.positions[0] as Position;
  change(job, load, position);
  const known = lookup(job);
  const choices = homePlans(job, ['lowest-cost'])[0]?.choices ?? [];
  return roomAdvice(job.rooms[0] as Room, choices, known);
}

test('a lamp worked from two rooms counts once, in the room it hangs in, and its switches with it', () => {
  const job = exampleJob('stairs');
  const [stair] = job.rooms as [Room];
  for (const box of job.boxes) {
    for (const position of box.positions) position.need = { ...position.need, smart: true };
  }
  const known = lookup(job);
  const choices = homePlans(job, ['lowest-cost'])[0]?.choices ?? [];
  const of = (id: string) => roomAdvice(known.rooms.get(id) as Room, choices, known);
  const lamps = job.loads.reduce((sum, load) => sum + load.count, 0);
  expect([of(stair.id).lamps, of('landing').lamps]).toEqual([lamps, 0]);
  expect(of('landing')).toMatchObject({ advice: 'leave', because: ['reckoned-elsewhere'] });
  // Hung in the other room, it goes there with both switches.
  for (const load of job.loads) load.roomId = 'landing';
  const moved = lookup(job);
  expect(roomAdvice(moved.rooms.get('landing') as Room, choices, moved).lamps).toBe(lamps);
  expect(roomAdvice(moved.rooms.get(stair.id) as Room, choices, moved).lamps).toBe(0);
});

describe('switches, bulbs or leave', () => {
  test('three lamps: one switch against three bulbs and a control, with the work of either', () => {
    // Switch: 3400 and 17 minutes at 9000 an hour, 2550. Bulbs: 3 x 1000, a control 2000,
    // 3 x (2 + 4) minutes and 12 + 3 + 1 for the control: 34 minutes, 5100.
    expect(pantry()).toMatchObject({
      advice: 'switch',
      lamps: 3,
      switches: { units: 3400, parts: 0, labour: 2550, total: 5950, pieces: 1, clients: 1 },
      bulbs: { units: 3000, parts: 2000, labour: 5100, total: 10100, pieces: 3, clients: 0, controls: 1 },
      because: ['cheaper-switch'],
    });
  });
  test('light in colours is a matter of bulbs, whatever they cost', () => {
    const advice = pantry((_, __, position) => {
      position.need = { ...position.need, colour: true };
    });
    expect(advice).toMatchObject({ advice: 'bulbs', because: ['colour', 'guests'] });
  });
  test('one dear switch against one cheap lamp: the bulb', () => {
    const advice = pantry((job, load) => {
      load.count = 1;
      (job.catalogue.devices[0] as Device).price = 9900;
    });
    expect(advice).toMatchObject({ advice: 'bulbs', because: ['cheaper-bulbs', 'guests'] });
  });
  test('bulbs that are there already are not bought again', () => {
    const advice = pantry((_, load) => Object.assign(load, { kind: 'smart-bulb', bulbFamily: 'glow' }));
    expect(advice).toMatchObject({
      advice: 'bulbs',
      bulbs: { units: 0, pieces: 0 },
      because: ['smart-bulbs-there', 'guests'],
    });
  });
  test('nothing asked for: leave it', () => {
    const advice = pantry((_, __, position) => {
      position.need = { smart: false };
    });
    expect(advice).toMatchObject({ advice: 'leave', because: ['nobody-asks'] });
  });
});

describe('the trial unit', () => {
  const house = (change: (job: Job) => void = () => {}) => {
    const job = exampleJob('shed');
    const [device] = job.catalogue.devices as [Device];
    job.catalogue.devices = [device];
    const [box] = job.boxes;
    // A second, shallower box with the same device.
    const shallow = JSON.parse(JSON.stringify(box).replaceAll('"shed"', '"hut"')) as NonNullable<typeof box>;
    shallow.enclosure.depth = device.body.depth + 13;
    job.boxes.push(shallow);
    change(job);
    const choices = job.boxes.map((entry) => ({
      boxId: entry.id,
      position: 1,
      deviceId: device.id,
      strategy: 'single' as const,
      with: [],
    }));
    return trialOf(choices, lookup(job));
  };
  test('goes where the device comes closest to a limit', () => {
    expect(house()).toMatchObject({
      boxId: 'hut',
      position: 1,
      places: 2,
      told: true,
      tests: [{ what: 'depth' }, {}, {}, {}],
    });
  });
  test('but first to a box in which every conductor is told', () => {
    expect(
      house((job) => {
        (job.boxes[1] as (typeof job.boxes)[number]).labels = [];
      }),
    ).toMatchObject({ boxId: 'shed', told: true });
  });
  test('nor to a box where it does not go in', () => {
    expect(
      house((job) => {
        (job.boxes[1] as (typeof job.boxes)[number]).enclosure.depth = 20;
      }),
    ).toMatchObject({ boxId: 'shed' });
  });
  test('a plan without devices has none', () => {
    expect(trialOf([], lookup(exampleJob('shed')))).toBeNull();
  });
});
