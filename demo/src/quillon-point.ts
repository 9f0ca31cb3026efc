import {
  type Box,
  FORMAT,
  type Job,
  type JobEvent,
  labelFor,
  type Pairing,
  type PresetId,
  presetContents,
  type Role,
  type Selection,
  VERSION,
} from '@inventario/core';
import { demoCatalogue } from './catalogue.js';

/** Roles in the order the preset lists its conductors; undefined leaves one untold. */
type Told = readonly (Role | undefined)[];
const POWER_AT_SWITCH: Told = ['line', 'neutral', 'ground', 'load', 'neutral', 'ground'];
const SWITCH_LOOP: Told = ['line', 'load', 'ground'];
const FEED_THROUGH: Told = ['line', 'neutral', 'ground', 'line-on', 'neutral', 'ground', 'load', 'neutral', 'ground'];
const THREE_WAY_LINE: Told = ['traveler', 'traveler', 'neutral', 'ground', 'line', 'neutral', 'ground'];
const THREE_WAY_LOAD: Told = ['traveler', 'traveler', 'neutral', 'ground', 'load', 'neutral', 'ground'];

interface BoxPlan {
  id: string;
  roomId: string;
  name: string;
  circuitId: string;
  enclosure: Partial<Box['enclosure']>;
  preset?: PresetId;
  size?: '12AWG' | '14AWG';
  loadId?: string;
  told?: Told;
  need?: Box['positions'][number]['need'];
  groupId?: string;
  signal?: number;
  notes?: string;
}

function surveyed(plan: BoxPlan, order: number): Box {
  let serial = 0;
  const newId = () => {
    serial += 1;
    return `${plan.id}-${serial}`;
  };
  const loads = plan.loadId ? [plan.loadId] : [];
  const contents = plan.preset
    ? presetContents(plan.preset, 'us', plan.size ?? '14AWG', loads, newId)
    : {
        cables: [],
        conductors: [],
        joints: [],
        positions: [{ index: 1, existing: 'single-pole' as const, loadIds: [], need: { smart: true } }],
        labels: [],
      };
  let traveler = 0;
  const labels = contents.conductors.flatMap((conductor, index) => {
    const role = plan.told?.[index];
    if (!role) return [];
    if (role === 'traveler') traveler += 1;
    const context = { loadIds: loads, circuitIds: [plan.circuitId], ...(plan.groupId ? { groupId: plan.groupId } : {}), traveler };
    return [labelFor(conductor.id, role, context)];
  });
  return {
    id: plan.id,
    roomId: plan.roomId,
    name: plan.name,
    order,
    circuitIds: [plan.circuitId],
    enclosure: {
      gangs: 1,
      material: 'plastic',
      grounded: false,
      capacity: { from: 'marked', in3: 20 },
      depth: 80,
      internalClamps: false,
      supportFittings: 0,
      ...plan.enclosure,
    },
    ...(plan.signal === undefined ? {} : { signal: { rssi: plan.signal } }),
    ...(plan.notes ? { notes: plan.notes } : {}),
    ...contents,
    positions: contents.positions.map((position) => ({ ...position, need: { smart: true, ...plan.need } })),
    readings: [],
    labels,
  };
}

const steelBox = (enclosureId: string, depth: number): Partial<Box['enclosure']> => ({
  material: 'metal',
  grounded: true,
  capacity: { from: 'standard', enclosureId },
  depth,
  internalClamps: true,
});

const BOXES: BoxPlan[] = [
  {
    id: 'kitchen-door',
    roomId: 'kitchen',
    name: 'Kitchen, by the door',
    circuitId: 'c1',
    enclosure: { capacity: { from: 'marked', in3: 22.5 }, depth: 83 },
    preset: 'power-at-switch',
    loadId: 'kitchen-ceiling',
    told: POWER_AT_SWITCH,
    need: { dim: 'nice' },
    signal: -48,
  },
  {
    id: 'kitchen-range',
    roomId: 'kitchen',
    name: 'Kitchen, beside the range',
    circuitId: 'c1',
    enclosure: steelBox('dev-225', 57),
    preset: 'feed-through',
    loadId: 'range-hood',
    told: FEED_THROUGH,
    need: { dim: 'no' },
    signal: -55,
    notes: 'Old steel box, plaster tight around it.',
  },
  {
    id: 'stair-foot',
    roomId: 'lamp-stair',
    name: 'Lamp stair, foot',
    circuitId: 'c3',
    enclosure: { capacity: { from: 'marked', in3: 20.3 }, depth: 76 },
    preset: 'three-way-line',
    loadId: 'stair-lamps',
    told: THREE_WAY_LINE,
    groupId: 'stair',
    signal: -63,
  },
  {
    id: 'stair-head',
    roomId: 'gallery',
    name: 'Lamp stair, head',
    circuitId: 'c3',
    enclosure: { capacity: { from: 'marked', in3: 20.3 }, depth: 76 },
    preset: 'three-way-load',
    loadId: 'stair-lamps',
    told: THREE_WAY_LOAD,
    groupId: 'stair',
    signal: -71,
  },
  {
    id: 'gallery-rail',
    roomId: 'gallery',
    name: 'Gallery landing, rail',
    circuitId: 'c3',
    enclosure: { capacity: { from: 'marked', in3: 18 }, depth: 70 },
    preset: 'power-at-switch',
    loadId: 'gallery-light',
    told: POWER_AT_SWITCH,
    signal: -84,
  },
  {
    id: 'radio-desk',
    roomId: 'radio-room',
    name: 'Radio room, over the desk',
    circuitId: 'c5',
    enclosure: { capacity: { from: 'marked', in3: 16 }, depth: 66 },
    preset: 'switch-loop',
    loadId: 'desk-lamps',
    told: SWITCH_LOOP,
    need: { dim: 'must' },
    signal: -59,
  },
  {
    id: 'radio-door',
    roomId: 'radio-room',
    name: 'Radio room, door',
    circuitId: 'c5',
    enclosure: { capacity: { from: 'marked', in3: 20 }, depth: 80 },
    preset: 'power-at-switch',
    loadId: 'radio-ceiling',
    told: ['line', 'neutral', undefined, undefined, 'neutral', undefined],
    signal: -60,
  },
  {
    id: 'boat-door',
    roomId: 'boat-store',
    name: 'Boat store, big door',
    circuitId: 'c7',
    size: '12AWG',
    enclosure: { capacity: { from: 'marked', in3: 34 }, gangs: 1, depth: 89 },
    preset: 'feed-through',
    loadId: 'boat-floods',
    told: FEED_THROUGH,
    need: { dim: 'no' },
    signal: -67,
  },
  {
    id: 'boat-slip',
    roomId: 'boat-store',
    name: 'Boat store, slipway',
    circuitId: 'c7',
    size: '12AWG',
    enclosure: { capacity: { from: 'marked', mL: 0 }, depth: 0 },
  },
  {
    id: 'oil-fan',
    roomId: 'oil-store',
    name: 'Oil store, extractor',
    circuitId: 'c5',
    enclosure: { ...steelBox('dev-350', 89), internalClamps: false },
    preset: 'power-at-switch',
    loadId: 'oil-extractor',
    told: POWER_AT_SWITCH,
    need: { dim: 'no' },
    signal: -69,
  },
];

const at = (minute: number) => new Date(Date.UTC(2026, 4, 4, 9, minute)).toISOString().replace('.000Z', 'Z');

const SELECTIONS: Selection[] = [
  { boxId: 'kitchen-door', position: 1, deviceId: 'pw-dim', strategy: 'single', with: [] },
  { boxId: 'kitchen-range', position: 1, deviceId: 'pw-plain-15', strategy: 'single', with: [] },
  { boxId: 'stair-foot', position: 1, deviceId: 'pw-pair', strategy: 'both-ends', with: [] },
  { boxId: 'stair-head', position: 1, deviceId: 'pw-pair', strategy: 'both-ends', with: [] },
  { boxId: 'gallery-rail', position: 1, deviceId: 'pw-plain-15', strategy: 'single', with: [] },
];

const PAIRINGS: Pairing[] = [
  {
    id: 'pairing-kitchen-door',
    boxId: 'kitchen-door',
    position: 1,
    deviceId: 'pw-dim',
    channel: 1,
    state: 'joined',
    attempts: [{ id: 'attempt-1', at: at(52), outcome: 'joined', band: '2.4', rssi: -48, seconds: 4 }],
  },
  {
    id: 'pairing-gallery-rail',
    boxId: 'gallery-rail',
    position: 1,
    deviceId: 'pw-plain-15',
    channel: 1,
    state: 'failed',
    attempts: [{ id: 'attempt-2', at: at(58), outcome: 'failed', reason: 'weak-signal', band: '2.4', rssi: -84, seconds: 9 }],
  },
];

const EVENTS: JobEvent[] = [
  { id: 'event-1', kind: 'switched', circuitId: 'c1', state: 'off', at: at(5) },
  { id: 'event-2', kind: 'mounted', boxId: 'kitchen-door', at: at(40) },
  { id: 'event-3', kind: 'switched', circuitId: 'c1', state: 'on', at: at(45) },
  { id: 'event-4', kind: 'mounted', boxId: 'gallery-rail', at: at(49) },
  { id: 'event-5', kind: 'switched', circuitId: 'c3', state: 'on', at: at(50) },
  { id: 'event-6', kind: 'switched', circuitId: 'c7', state: 'off', at: at(59) },
];

/** The keeper's house at Quillon Point light: boxes at every stage, with some problems waiting to be found. */
export function quillonPoint(): Job {
  return {
    format: FORMAT,
    version: VERSION,
    id: 'quillon-point',
    name: 'Quillon Point light, keeper’s house',
    client: { name: 'The keeper', contact: 'at the house' },
    address: 'Quillon Point',
    notes: 'Built 1957, extended 1996. The lamp itself is not ours to touch.',
    practice: 'us',
    edition: '2023',
    site: { latitude: 43.9, longitude: -69.3, timeZone: 'America/New_York', builtYear: 1957 },
    money: { currency: 'USD', labourPerHour: 9000 },
    brief: {
      platforms: [
        { name: 'Orrery', want: 'must' },
        { name: 'Hearthside', want: 'nice' },
      ],
      hubsOwned: [],
      radios: ['wifi', 'mesh', 'subghz', 'maker', 'ble'],
      wifi: { clientsNow: 9, clientLimit: 32, band24: true, routerRoom: 'kitchen' },
      feel: { actuators: ['paddle'], indicator: 'dimmable' },
      colour: 'white',
      connectors: ['twist-on', 'lever'],
      budget: 90000,
      spares: 1,
    },
    run: { openAtOnce: 4, testBeforeFold: true, jointOrder: ['ground', 'neutral', 'line', 'load'] },
    circuits: [
      { id: 'c1', panel: 'Cellar', breaker: '1', label: 'Kitchen', amps: 15, volts: 120, leg: 'A' },
      { id: 'c3', panel: 'Cellar', breaker: '3', label: 'Stair and landing', amps: 15, volts: 120, leg: 'B' },
      { id: 'c5', panel: 'Cellar', breaker: '5', label: 'Radio, oil', amps: 15, volts: 120, leg: 'A' },
      { id: 'c7', panel: 'Cellar', breaker: '7', label: 'Boat store', amps: 20, volts: 120, leg: 'B' },
    ],
    rooms: [
      { id: 'kitchen', name: 'Keeper’s kitchen', kind: 'kitchen', floor: 0, order: 1, plan: { x: 0, y: 0 } },
      { id: 'lamp-stair', name: 'Lamp stair', kind: 'stair', floor: 0, order: 2, plan: { x: 5, y: 0 } },
      { id: 'boat-store', name: 'Boat store', kind: 'store', floor: 0, order: 3, plan: { x: 12, y: 2 } },
      { id: 'oil-store', name: 'Oil store', kind: 'store', floor: 0, order: 4, plan: { x: 14, y: 6 } },
      { id: 'radio-room', name: 'Radio room', kind: 'study', floor: 1, order: 5, plan: { x: 2, y: 1 } },
      { id: 'gallery', name: 'Gallery landing', kind: 'landing', floor: 1, order: 6, plan: { x: 6, y: 1 } },
    ],
    loads: [
      { id: 'kitchen-ceiling', name: 'Kitchen ceiling', roomId: 'kitchen', kind: 'led', count: 6, wattsEach: 9, dimmable: true },
      { id: 'range-hood', name: 'Range lamp', roomId: 'kitchen', kind: 'resistive', count: 2, wattsEach: 40 },
      { id: 'stair-lamps', name: 'Stair lamps', roomId: 'lamp-stair', kind: 'led', count: 5, wattsEach: 8, dimmable: true },
      { id: 'gallery-light', name: 'Gallery light', roomId: 'gallery', kind: 'led', count: 2, wattsEach: 12, dimmable: true },
      { id: 'desk-lamps', name: 'Desk lamps', roomId: 'radio-room', kind: 'led', count: 2, wattsEach: 5, dimmable: true },
      { id: 'radio-ceiling', name: 'Radio room ceiling', roomId: 'radio-room', kind: 'fluorescent', count: 2, wattsEach: 36 },
      { id: 'boat-floods', name: 'Boat store floods', roomId: 'boat-store', kind: 'resistive', count: 8, wattsEach: 90, dimmable: true },
      {
        id: 'oil-extractor',
        name: 'Oil store extractor',
        roomId: 'oil-store',
        kind: 'exhaust-fan',
        count: 1,
        wattsEach: 85,
        dimmable: false,
      },
    ],
    boxes: BOXES.map((plan, index) => surveyed(plan, index + 1)),
    runs: [
      {
        id: 'stair-run',
        ends: [
          { boxId: 'stair-foot', cableId: 'stair-foot-1' },
          { boxId: 'stair-head', cableId: 'stair-head-1' },
        ],
        known: 'supposed',
      },
    ],
    groups: [
      {
        id: 'stair',
        loadIds: ['stair-lamps'],
        places: [
          { boxId: 'stair-foot', position: 1 },
          { boxId: 'stair-head', position: 1 },
        ],
      },
    ],
    selections: SELECTIONS,
    pairings: PAIRINGS,
    hubs: [],
    accounts: [],
    automations: [],
    events: EVENTS,
    photos: [],
    catalogue: demoCatalogue(),
  };
}
