import { describe, expect, test } from '@jest/globals';
import { reduce } from '../job/edit/reduce.js';
import { lookup } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import { exampleJob } from '../test-support/examples.js';
import { Random } from '../test-support/random.js';
import { smallHouse } from '../test-support/small-house.js';
import { adoptParts } from './adopt.js';
import { homePlans } from './home-plans.js';
import { outagesOf } from './outages.js';
import { phasesOf } from './phases.js';
import { requirementCosts } from './requirements.js';
import { standingPlaces, stillOpen } from './still-open.js';
import type { HousePlan } from './vocabulary.js';

const cheapest = (job: Job) => homePlans(job, ['lowest-cost'])[0] as HousePlan;

describe.each([1, 4, 7, 12])('phases of a small house (seed %i)', (seed) => {
  const job = smallHouse(new Random(seed));
  job.rooms.forEach((room, at) => {
    room.order = at;
  });
  const plan = cheapest(job);
  const phases = phasesOf(plan, lookup(job));

  test('add up to the plan, hub by hub and minute by minute', () => {
    expect(phases.reduce((sum, phase) => sum + phase.total, 0)).toBe(plan.total);
    expect(phases.at(-1)?.sum ?? 0).toBe(plan.total);
    expect(phases.flatMap((phase) => phase.hubIds).sort()).toEqual(
      plan.hubIds.filter((id) => !job.brief?.hubsOwned?.includes(id)).sort(),
    );
    expect(phases.reduce((sum, phase) => sum + phase.places, 0)).toBe(plan.choices.length);
  });

  test('never part what a group ties together, and no room comes twice', () => {
    const rooms = phases.flatMap((phase) => phase.roomIds);
    expect(new Set(rooms).size).toBe(rooms.length);
    for (const group of job.groups) {
      const own = group.places.map((place) =>
        phases.findIndex((phase) =>
          phase.roomIds.includes(job.boxes.find((box) => box.id === place.boxId)?.roomId ?? ''),
        ),
      );
      expect(new Set(own).size).toBe(1);
    }
  });
});

test('a plan that is adopted becomes the choice; what it leaves out loses what was chosen before', () => {
  const job = exampleJob('shed');
  job.brief = { ...job.brief, bans: [{ deviceId: 'ha-1000' }] };
  const plan = cheapest(job);
  expect(plan.unserved).toEqual([{ boxId: 'shed', position: 2, why: 'ban, rating' }]);
  const result = reduce(job, { parts: adoptParts(plan.choices, job) });
  expect(result.ok && result.job.selections).toEqual([
    { boxId: 'shed', position: 1, deviceId: 'pw-15', strategy: 'single', with: [] },
  ]);
});

describe('what is mounted stands', () => {
  test('it is not planned again, keeps its choice when a plan is adopted, and has its hub', () => {
    const job = exampleJob('shed');
    job.brief = { ...job.brief, hubsOwned: [] };
    // A second shed where the dearer device is mounted at the bench.
    job.boxes.push(
      JSON.parse(
        JSON.stringify(job.boxes[0]).replaceAll('"shed', '"hut').replace('"hut-room"', '"shed-room"'),
      ) as Job['boxes'][number],
    );
    job.selections = [1, 2].map((position) => ({
      boxId: 'shed',
      position,
      deviceId: 'ha-1000',
      strategy: 'single' as const,
    }));
    job.events.push({ id: 'mounted', kind: 'mounted', boxId: 'shed' });
    const plan = cheapest(stillOpen(job));
    expect(plan.choices.map((choice) => choice.boxId)).toEqual(['hut', 'hut']);
    // The hub came with what is mounted: it is not bought a second time.
    expect([plan.hubIds, plan.hubs]).toEqual([['ha-hub'], 0]);
    // Eleven now and the one bench the plan puts on Wi-Fi; with every device on Wi-Fi, the two mounted and
    // the two planned.
    expect(plan.router.clients).toBe(12);
    for (const device of job.catalogue.devices) device.radio = 'wifi';
    expect(cheapest(stillOpen(job)).router.clients).toBe(11 + 4);
    const adopted = reduce(job, { parts: adoptParts(plan.choices, job) });
    expect(adopted.ok && adopted.job.selections.slice(0, 2)).toEqual(job.selections);
    expect(adopted.ok && adopted.job.selections).toHaveLength(4);
  });

  test('with a group of which one end is mounted, both ends', () => {
    const job = exampleJob('stairs');
    job.selections = [
      { boxId: 'foot', position: 1, deviceId: 'os-main', strategy: 'companion' },
      { boxId: 'head', position: 1, deviceId: 'os-comp', strategy: 'companion' },
    ];
    job.events.push({ id: 'mounted', kind: 'mounted', boxId: 'head' });
    expect([...standingPlaces(job)].sort()).toEqual(['foot/1', 'head/1']);
    expect(cheapest(stillOpen(job))).toMatchObject({ served: 0, unserved: [], choices: [] });
    expect(stillOpen(exampleJob('pantry'))).toEqual(exampleJob('pantry'));
  });
});

describe('what is left when something is out', () => {
  const left = (device: Partial<Device>, strategy: 'single' | 'bulb-controller' = 'single') => {
    const job = exampleJob('pantry');
    Object.assign(job.catalogue.devices[0] as Device, device);
    const deviceId = job.catalogue.devices[0]?.id as string;
    const reports = outagesOf([{ boxId: 'pantry', position: 1, deviceId, strategy, with: [] }], lookup(job));
    return Object.fromEntries(
      reports.map((report) => [report.outage, report.full ? 'full' : report.wallOnly ? 'wall' : 'none']),
    );
  };

  test.each<[string, Partial<Device>, Record<string, string>]>([
    [
      'Wi-Fi, local',
      { radio: 'wifi', control: 'local' },
      { internet: 'full', server: 'full', hub: 'full', router: 'wall' },
    ],
    [
      'Wi-Fi, over the maker’s server',
      { radio: 'wifi', control: 'maker-cloud' },
      { internet: 'wall', server: 'wall', hub: 'full', router: 'wall' },
    ],
    [
      'mesh on a hub',
      { radio: 'mesh', hubId: 'h', control: 'local' },
      { internet: 'full', server: 'full', hub: 'wall', router: 'wall' },
    ],
    [
      'Bluetooth LE, nothing between',
      { radio: 'ble', control: 'local' },
      { internet: 'full', server: 'full', hub: 'full', router: 'full' },
    ],
    [
      'a bulb controller through a hub',
      { radio: 'mesh', hubId: 'h', control: 'local', terminals: [] },
      { internet: 'full', server: 'full', hub: 'none', router: 'wall' },
    ],
  ])('%s', (_, device, expected) => {
    expect(left(device)).toEqual(expected);
  });
});

describe('what one more wish would cost', () => {
  const job = exampleJob('shed');
  job.catalogue.platforms.push({ name: 'Bellwether', matching: 'exact' });
  const [bench, yard] = job.catalogue.devices as [Device, Device];
  bench.audible = true;
  yard.platforms = [...yard.platforms, 'Bellwether'];
  const costs = requirementCosts(job);
  const of = (kind: string, what = '') => costs.find((cost) => cost.kind === kind && cost.what === what);

  test('a third platform that only the dearer device offers: its price, and a minute for each device', () => {
    // Both places get the dearer one: 1800 more, one Wi-Fi pairing less (a minute), two links more: 33 - 1 +
    // 2 = 34 minutes, 3740 for 3630.
    expect(of('platform', 'Bellwether')).toEqual({
      kind: 'platform',
      what: 'Bellwether',
      extra: 1800 + 110,
      lost: 0,
    });
  });
  test('nothing that clicks: the dearer device at both places', () => {
    // 1800 more for the device, 32 minutes for 33: 3520 for 3630.
    expect(of('silent')).toEqual({ kind: 'silent', what: '', extra: 1800 - 110, lost: 0 });
  });
  test('what every device meets already costs nothing', () => {
    expect(of('no-microphone')).toMatchObject({ extra: 0, lost: 0 });
  });
});
