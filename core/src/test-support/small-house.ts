import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { PracticeId } from '../job/schema/primitives.js';
import { exampleJob } from './examples.js';
import type { Random } from './random.js';

/**
 * Worked examples a small house is put together from; their devices are varied in connections, pairing and
 * families.
 */
const PARTS: Record<PracticeId, string[]> = {
  us: ['pantry', 'shed', 'stairs', 'galley'],
  ca: ['pantry', 'shed', 'stairs', 'galley'],
  gb: ['back-bedroom'],
  modular: ['lounge-plate'],
};

/**
 * A house of a few boxes put together from worked examples, with devices, prices, hubs, limits, pins and bans
 * of its own: small enough to try every plan.
 */
export function smallHouse(random: Random, practice: PracticeId = 'us'): Job {
  const parts = PARTS[practice];
  const names = parts.filter(() => random.chance(0.6));
  const jobs = (names.length > 0 ? names : parts.slice(-1)).map(exampleJob);
  const [first] = jobs as [Job];
  const all = <Item>(of: (job: Job) => readonly Item[]) => jobs.flatMap(of);
  const job: Job = {
    ...first,
    practice,
    edition: '2023',
    circuits: all((one) => one.circuits),
    rooms: all((one) => one.rooms),
    loads: all((one) => one.loads),
    boxes: all((one) => one.boxes),
    runs: all((one) => one.runs ?? []),
    groups: all((one) => one.groups),
    selections: [],
    pairings: [],
    events: [],
    catalogue: {
      ...first.catalogue,
      parts: all((one) => one.catalogue.parts),
      enclosures: all((one) => one.catalogue.enclosures),
      hubs: ['h1', 'h2', 'h3'].map((id) => ({
        id,
        name: id,
        price: random.int(0, 9) * 1000,
        radio: 'mesh' as const,
        platforms: [],
        deviceLimit: random.int(1, 4),
        wired: random.chance(0.5),
      })),
      devices: devices(random, practice),
    },
  };
  // A plate of modules as tight as can be at times, and every place of it wanted.
  if (practice === 'modular')
    for (const box of job.boxes) {
      box.enclosure.capacity = { from: 'marked', mL: random.int(150, 330) };
      for (const position of box.positions) position.need = { smart: position.existing !== 'receptacle' };
    }
  // Roomier galley boxes at times, so that more than one device of it can be served.
  for (const box of job.boxes)
    if (random.chance(0.5)) box.enclosure.rings = [{ mL: random.int(20, 120), depth: 12 }];
  for (const box of job.boxes)
    for (const position of box.positions) if (random.chance(0.15)) position.need = { smart: false };
  const places = job.boxes.flatMap((box) =>
    box.positions.map((position) => ({ boxId: box.id, position: position.index })),
  );
  const some = (probability: number) => places.filter(() => random.chance(probability));
  const anyDevice = () => random.pick(job.catalogue.devices).id;
  job.brief = {
    connectors: ['twist-on'],
    platforms: [
      { name: first.brief?.platforms?.[0]?.name ?? 'Orrery', want: random.chance(0.5) ? 'must' : 'nice' },
    ],
    hubsOwned: ['h1', 'h2', 'h3'].filter(() => random.chance(0.25)),
    ...(random.chance(0.6) ? { wifi: { clientsNow: 10, clientLimit: 10 + random.int(0, 3) } } : {}),
    ...(random.chance(0.4) ? { pins: some(0.2).map((place) => ({ ...place, deviceId: anyDevice() })) } : {}),
    ...(random.chance(0.4)
      ? {
          bans: [
            { deviceId: anyDevice() },
            ...some(0.2).map((place) => ({ ...place, deviceId: anyDevice() })),
          ],
        }
      : {}),
  };
  job.money = { currency: 'USD', labourPerHour: random.pick([0, 6600, 9000]) };
  return job;
}

function devices(random: Random, practice: PracticeId): Device[] {
  const shapes = PARTS[practice].flatMap((name) => exampleJob(name).catalogue.devices);
  const plain = shapes.filter((device) => !device.multiLocation?.length);
  const vary = (device: Device, id: string, family: string): Device => {
    const [radio, hubId] = random.pick([
      ['wifi', undefined],
      ['mesh', random.pick(['h1', 'h2'])],
      ['maker', 'h3'],
      ['subghz', random.pick(['h2', 'h3'])],
      ['mesh', undefined],
    ] as const);
    const { hubId: _, ...rest } = device;
    return {
      ...rest,
      id,
      family,
      price: random.int(20, 60) * 100,
      practices: [practice],
      radio: device.radio === 'none' ? 'none' : radio,
      ...(hubId && device.radio !== 'none' ? { hubId } : {}),
      fins: random.chance(0.4),
      ...(random.chance(0.5) ? { opening: random.pick(['tall', 'round']) } : {}),
      body: {
        ...device.body,
        depth: random.pick(practice === 'us' || practice === 'ca' ? [28, 33, 45] : [20, 30, 40]),
      },
      channels: device.channels.map((channel) => ({
        ...channel,
        ratings: channel.ratings.map((rating) => ({
          ...rating,
          limit: rating.limit.map((limit) => limit * random.pick([1, 1, 0.6])),
        })),
      })),
    };
  };
  const stairs = PARTS[practice].includes('stairs') ? exampleJob('stairs').catalogue.devices : [];
  const made = Array.from({ length: random.int(3, 4) }, (_, at) =>
    vary(random.pick(plain), `d${at}`, random.pick(['fa', 'fb', 'fc'])),
  );
  for (const device of stairs) made.push(vary(device, device.id, device.id.slice(0, 2)));
  return made;
}
