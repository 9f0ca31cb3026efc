import { FORMAT, type Job, type JobEvent, type Pairing, type Selection, VERSION } from '@inventario/core';
import { demoCatalogue } from './catalogue/index.js';
import { BOXES } from './quillon-boxes.js';
import { surveyed } from './survey-maker.js';

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
  { id: 'event-7', kind: 'switched', circuitId: 'c8', state: 'off', at: at(30) },
  { id: 'event-8', kind: 'proved', boxId: 'loft-table', stage: 'device-out', volts: 119, circuitIds: ['c8'], at: at(32) } as JobEvent,
  { id: 'event-9', kind: 'traced', boxId: 'kitchen-door', circuitId: 'c1', at: at(46) },
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
      hubRooms: { 'ha-hub': 'lamp-stair', 'wr-hub': 'radio-room' },
      feel: { actuators: ['paddle', 'buttons'], indicator: 'dimmable', onLevel: 'last', microphone: false },
      colour: 'white',
      connectors: ['twist-on', 'lever'],
      budget: 90000,
      spares: 1,
      trialFirst: true,
    },
    run: { openAtOnce: 4, testBeforeFold: true, jointOrder: ['ground', 'neutral', 'line', 'load'] },
    circuits: [
      { id: 'c1', panel: 'Cellar', breaker: '1', label: 'Kitchen', amps: 15, volts: 120, leg: 'A' },
      {
        id: 'c2',
        panel: 'Cellar',
        breaker: '2',
        label: 'Lobby',
        amps: 15,
        volts: 120,
        leg: 'A',
        sharesNeutralWith: ['c4'],
        commonTrip: true,
      },
      { id: 'c3', panel: 'Cellar', breaker: '3', label: 'Stair and landing', amps: 15, volts: 120, leg: 'B' },
      {
        id: 'c4',
        panel: 'Cellar',
        breaker: '4',
        label: 'Wash house, porch?',
        amps: 20,
        volts: 120,
        leg: 'B',
        protection: 'gfci',
        commonTrip: true,
      },
      { id: 'c5', panel: 'Cellar', breaker: '5', label: 'Radio, oil', amps: 15, volts: 120, leg: 'A' },
      { id: 'c6', panel: 'Cellar', breaker: '6', label: 'Bunk', amps: 15, volts: 120, leg: 'A', protection: 'afci' },
      { id: 'c7', panel: 'Cellar', breaker: '7', label: 'Boat store', amps: 20, volts: 120, leg: 'B' },
      { id: 'c8', panel: 'Cellar', breaker: '8', label: 'Loft', amps: 15, volts: 120, leg: 'B' },
      { id: 'c9', panel: 'Cellar', breaker: '9', label: 'Wall heater', amps: 20, volts: 240, poles: 2, commonTrip: true },
    ],
    rooms: [
      { id: 'rain-lobby', name: 'Rain lobby', kind: 'hall', floor: 0, order: 0, plan: { x: 4, y: -3 } },
      { id: 'wash-house', name: 'Wash house', kind: 'laundry', floor: 0, order: 7, plan: { x: -4, y: 2 } },
      { id: 'guest-bunk', name: 'Guest bunk', kind: 'bedroom', floor: 1, order: 8, plan: { x: 0, y: 4 } },
      { id: 'chart-loft', name: 'Chart loft', kind: 'study', floor: 2, order: 9, plan: { x: 4, y: 3 } },
      { id: 'kitchen', name: 'Keeper’s kitchen', kind: 'kitchen', floor: 0, order: 1, plan: { x: 0, y: 0 } },
      { id: 'lamp-stair', name: 'Lamp stair', kind: 'stair', floor: 0, order: 2, plan: { x: 5, y: 0 } },
      { id: 'boat-store', name: 'Boat store', kind: 'store', floor: 0, order: 3, plan: { x: 12, y: 2 } },
      { id: 'oil-store', name: 'Oil store', kind: 'store', floor: 0, order: 4, plan: { x: 14, y: 6 } },
      { id: 'radio-room', name: 'Radio room', kind: 'study', floor: 1, order: 5, plan: { x: 2, y: 1 } },
      { id: 'gallery', name: 'Gallery landing', kind: 'landing', floor: 1, order: 6, plan: { x: 6, y: 1 } },
    ],
    loads: [
      { id: 'sink-light', name: 'Sink light', roomId: 'kitchen', kind: 'led', count: 1, wattsEach: 14 },
      { id: 'lobby-light', name: 'Lobby light', roomId: 'rain-lobby', kind: 'led', count: 2, wattsEach: 9, dimmable: true },
      { id: 'porch-light', name: 'Porch light', roomId: 'rain-lobby', kind: 'led', count: 1, wattsEach: 12 },
      { id: 'peg-lamp', name: 'Peg lamp', roomId: 'rain-lobby', kind: 'resistive', count: 1, wattsEach: 40, dimmable: true },
      { id: 'bunk-light', name: 'Bunk light', roomId: 'guest-bunk', kind: 'resistive', count: 2, wattsEach: 40, dimmable: true },
      { id: 'bunk-fan-motor', name: 'Bunk fan', roomId: 'guest-bunk', kind: 'fan-ac', count: 1, wattsEach: 60, speeds: 4 },
      { id: 'bunk-lamp', name: 'Bunk reading lamp', roomId: 'guest-bunk', kind: 'receptacle', count: 1, wattsEach: 60 },
      { id: 'loft-light', name: 'Loft light', roomId: 'chart-loft', kind: 'resistive', count: 1, wattsEach: 60, dimmable: true },
      { id: 'chart-lamp', name: 'Chart lamp', roomId: 'chart-loft', kind: 'resistive', count: 2, wattsEach: 25, dimmable: true },
      { id: 'wash-light', name: 'Wash house light', roomId: 'wash-house', kind: 'fluorescent', count: 2, wattsEach: 36 },
      { id: 'wash-extractor', name: 'Wash house extractor', roomId: 'wash-house', kind: 'exhaust-fan', count: 1, wattsEach: 60 },
      { id: 'wall-heater', name: 'Wall heater', roomId: 'wash-house', kind: 'heater', count: 1, wattsEach: 2000, dimmable: false },
      { id: 'oil-light', name: 'Oil store light', roomId: 'oil-store', kind: 'resistive', count: 1, wattsEach: 60, dimmable: true },
      { id: 'shelf-light', name: 'Shelf light', roomId: 'radio-room', kind: 'resistive', count: 2, wattsEach: 15, dimmable: true },
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
