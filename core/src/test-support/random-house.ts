import { newJob } from '../job/new-job.js';
import type { Catalogue, Device } from '../job/schema/catalogue.js';
import type { Job, Load } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { labelFor } from '../survey/label-context.js';
import { newBox } from '../survey/new-box.js';
import { PRESETS, type PresetId } from '../survey/preset-list.js';
import { presetContents } from '../survey/presets.js';
import type { Random } from './random.js';

const ROLES: Partial<Record<PresetId, Parameters<typeof labelFor>[1][]>> = {
  'power-at-switch': ['line', 'neutral', 'ground', 'load', 'neutral', 'ground'],
  'switch-loop': ['line', 'load', 'ground'],
  'feed-through': ['line', 'neutral', 'ground', 'line-on', 'neutral', 'ground', 'load', 'neutral', 'ground'],
  'three-way-line': ['traveler', 'traveler', 'neutral', 'ground', 'line', 'neutral', 'ground'],
  'three-way-load': ['traveler', 'traveler', 'neutral', 'ground', 'load', 'neutral', 'ground'],
};

/** A made-up surveyed house of `us` practice: one or two usual boxes a place, labelled for the most part. */
export function randomHouse(random: Random, boxes: number, catalogue: Catalogue): Job {
  let serial = 0;
  const newId = () => {
    serial += 1;
    return `n${serial}`;
  };
  const base = newJob('house', 'House', 'us', random.pick(['2017', '2020', '2023'] as const), catalogue);
  const circuits = Array.from({ length: 12 }, (_, index) => ({
    id: `c${index}`,
    panel: 'Main',
    breaker: String(index + 1),
    label: 'Lights',
    amps: random.pick([15, 20]),
    volts: 120,
  }));
  const rooms = Array.from({ length: 10 }, (_, index) => ({
    id: `r${index}`,
    name: `Room ${index}`,
    floor: index % 3,
    order: index,
  }));
  const loads: Load[] = Array.from({ length: boxes }, (_, index) => ({
    id: `l${index}`,
    name: `Load ${index}`,
    roomId: `r${index % 10}`,
    kind: random.pick(['led', 'led', 'led', 'resistive', 'fluorescent', 'exhaust-fan', 'fan-ac'] as const),
    count: random.int(1, 10),
    wattsEach: random.int(5, 60),
    ...(random.chance(0.7) ? { dimmable: random.chance(0.8) } : {}),
  }));
  const made = Array.from({ length: boxes }, (_, index): Box => {
    const circuit = random.pick(circuits);
    const preset = random.pick(PRESETS.filter((entry) => ROLES[entry.id] !== undefined)).id;
    const contents = presetContents(
      { preset, practice: 'us', size: circuit.amps > 15 ? '12AWG' : '14AWG', loadIds: [`l${index}`] },
      newId,
    );
    let traveler = 0;
    const labels = contents.conductors.flatMap((conductor, at) => {
      const role = ROLES[preset]?.[at];
      if (!role || !random.chance(0.95)) return [];
      if (role === 'traveler') traveler += 1;
      return [
        labelFor(conductor.id, role, {
          loadIds: [`l${index}`],
          circuitIds: [circuit.id],
          groupId: undefined,
          traveler,
        }),
      ];
    });
    return {
      ...newBox({ id: `b${index}`, roomId: `r${index % 10}`, name: `Box ${index}`, order: index }, 'us', [
        circuit.id,
      ]),
      ...contents,
      labels: labels.filter((label) => label.role !== 'traveler'),
      enclosure: {
        gangs: 1,
        material: 'plastic',
        grounded: false,
        capacity: { from: 'marked', in3: random.pick([14, 16, 18, 20.3, 22.5]) },
        depth: random.int(55, 90),
        internalClamps: random.chance(0.3),
        supportFittings: 0,
      },
      signal: { rssi: -random.int(40, 85) },
    };
  });
  return { ...base, circuits, rooms, loads, boxes: made };
}

/**
 * The same house with every two or three of its boxes in one, side by side on one circuit, as far as the list
 * of widths goes.
 */
export function gangedHouse(house: Job, widths: readonly number[]): Job {
  const rest = [...house.boxes];
  const boxes = widths.map((width) => rest.splice(0, width).reduce(beside));
  return { ...house, boxes: [...boxes, ...rest] };
}

function beside(left: Box, right: Box): Box {
  const shift = left.positions.length;
  const [circuit] = left.circuitIds;
  const at = <Where extends { position?: number | undefined }>(where: Where): Where =>
    where.position === undefined ? where : { ...where, position: where.position + shift };
  return {
    ...left,
    enclosure: {
      ...left.enclosure,
      gangs: left.enclosure.gangs + 1,
      capacity: { from: 'marked', in3: volumeOf(left) + volumeOf(right) },
    },
    cables: [...left.cables, ...right.cables],
    joints: [...left.joints, ...right.joints],
    conductors: [
      ...left.conductors,
      ...right.conductors.map((conductor) => ({
        ...conductor,
        ...(conductor.at ? { at: at(conductor.at) } : {}),
        ...(conductor.ends ? { ends: conductor.ends.map(at) } : {}),
      })),
    ],
    positions: [
      ...left.positions,
      ...right.positions.map((position) => ({ ...position, index: position.index + shift })),
    ],
    labels: [
      ...left.labels,
      ...right.labels.map((label) => (label.circuitId && circuit ? { ...label, circuitId: circuit } : label)),
    ],
  };
}

function volumeOf({ enclosure: { capacity } }: Box): number {
  return capacity.from === 'marked' ? (capacity.in3 ?? 0) : 0;
}

/** As many devices as asked, varied from a few real shapes. */
export function manyDevices(random: Random, from: readonly Device[], count: number): Device[] {
  return Array.from({ length: count }, (_, index) => {
    const device = random.pick(from);
    return {
      ...device,
      id: `d${index}`,
      price: random.int(1000, 9000),
      body: { ...device.body, depth: random.int(24, 45) },
      multiLocation: undefined,
      channels: device.channels.map((channel) => ({
        ...channel,
        ratings: channel.ratings.map((rating) => ({
          ...rating,
          limit: rating.limit.map((limit) => limit * (0.5 + random.next())),
        })),
      })),
    };
  });
}
