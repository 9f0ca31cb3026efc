import type { Automation, Job, JobEvent, Pairing, PairingAttempt, PairingMark } from '@inventario/core';
import { ternHouse } from './tern-house.js';

const at = (minute: number) => new Date(Date.UTC(2026, 4, 11, 9, minute)).toISOString().replace('.000Z', 'Z');

/** What is told of one channel, in the order of its minutes. */
interface Told {
  channel?: number;
  name?: string;
  names?: Record<string, string>;
  attempts?: [minute: number, more: Omit<PairingAttempt, 'id' | 'at'>][];
  marks?: [minute: number, more: Omit<PairingMark, 'id' | 'at'>][];
  /** Apps that found it, each over a route. */
  found?: [platform: string, route: 'direct' | 'maker' | 'hub'][];
  /** Every way in which it was tried and worked. */
  worked?: boolean;
  trim?: NonNullable<Pairing['trim']>;
  settings?: NonNullable<Pairing['settings']>;
}

const joined: Told['attempts'] = [[20, { outcome: 'joined', band: '2.4', seconds: 24, by: 'hand' }]];
const updated: Told['marks'] = [[24, { what: 'updated' }]];
const failed = (reason: string, more: Partial<PairingAttempt> = {}): Told['attempts'] => [
  [31, { outcome: 'failed', reason, band: '2.4', by: 'hand', ...more }],
];
const looked = (reason: string, bad: boolean): Told['marks'] => [[33, { what: 'looked', reason, bad }]];

function pairing(job: Job, place: string, told: Told): Pairing {
  const [boxId = '', index] = place.split('/');
  const position = Number(index);
  const { channel = 1 } = told;
  const id = `pairing-${boxId}-${position}-${channel}`;
  const deviceId = job.selections.find((one) => one.boxId === boxId && one.position === position)?.deviceId;
  const voices = (told.found ?? []).map(([platform]) => platform).filter((name) => name === 'Orrery');
  return {
    id,
    boxId,
    position,
    deviceId: deviceId ?? '',
    channel,
    state: told.attempts?.at(-1)?.[1].outcome ?? 'waiting',
    ...(told.name ? { name: told.name } : {}),
    ...(told.names ? { names: told.names } : {}),
    attempts: (told.attempts ?? []).map(([minute, more], nth) => ({
      id: `${id}-a${nth}`,
      at: at(minute),
      ...more,
    })),
    marks: (told.marks ?? []).map(([minute, more], nth) => ({
      id: `${id}-m${nth}`,
      at: at(minute),
      ...more,
    })),
    reached: (told.found ?? []).map(([platform, route], nth) => ({
      platform,
      at: at(40 + nth),
      outcome: 'found',
      route,
    })),
    tried: told.worked
      ? [
          { path: 'wall', at: at(45), ok: true },
          { path: 'app', at: at(46), ok: true, ms: 310 },
          ...voices.map((platform) => ({ path: 'voice' as const, platform, at: at(47), ok: true, ms: 1150 })),
          { path: 'automation', at: at(48), ok: true },
        ]
      : [],
    ...(told.settings ? { settings: told.settings } : {}),
    ...(told.trim ? { trim: told.trim } : {}),
  };
}

/** The story of the afternoon: what is in, what is not and why, what is badly named, what was put aside. */
const STORY: Record<string, Told[]> = {
  'hall/1': [
    {
      name: 'Hall light',
      attempts: joined,
      marks: updated,
      found: [
        ['Orrery', 'maker'],
        ['Hearthside', 'maker'],
      ],
      worked: true,
    },
  ],
  'kitchen/1': [
    {
      name: 'Light 2',
      attempts: joined,
      marks: updated,
      settings: [{ name: 'Bulb type', value: 'LED', at: at(50), for: 'the installer' }],
      trim: [
        { level: 20, steady: true, at: at(51) },
        { level: 10, steady: false, at: at(52) },
      ],
    },
  ],
  'kitchen/2': [{ attempts: failed('not-found'), marks: looked('light', false) }],
  'kitchen/3': [{ attempts: failed('refused', { listed: false }) }],
  'larder/1': [{ attempts: failed('owned') }],
  'snug/1': [{ name: 'Ground floor', attempts: joined, marks: updated, found: [['Orrery', 'hub']] }],
  'reading/1': [
    { attempts: failed('no-network', { band: '5', listed: false }), marks: looked('band', true) },
  ],
  'work-door/1': [{ name: 'Bench light', attempts: joined, marks: updated, found: [['Orrery', 'hub']] }],
  'work-door/2': [{ name: 'Bench lite', attempts: joined, marks: updated, found: [['Orrery', 'hub']] }],
  'work-fan-switch/1': [
    { channel: 1, name: 'Fan', attempts: joined, marks: updated },
    { channel: 2, name: 'Fan lamp' },
  ],
  'work-window/1': [{ attempts: joined, marks: updated }],
  'work-kiln/1': [{ attempts: failed('lost', { rssi: -79 }), marks: looked('signal', true) }],
  'work-store/1': [
    {
      attempts: [
        ...(failed('not-found') ?? []),
        [35, { outcome: 'failed', reason: 'not-found', by: 'hand' }],
      ],
      marks: [...(looked('hub-open', false) ?? []), [39, { what: 'parked', reason: 'broken' }]],
    },
  ],
  'stair-high/1': [{ name: 'Stairs lights', attempts: joined, marks: [[26, { what: 'update-stuck' }]] }],
  'cellar-top/1': [{ attempts: failed('full') }],
  'landing-near/1': [
    {
      name: 'Landing lights',
      attempts: joined,
      marks: updated,
      names: { Hearthside: 'Upstairs' },
      found: [
        ['Orrery', 'hub'],
        ['Hearthside', 'hub'],
      ],
    },
  ],
  'attic-low/1': [{ attempts: failed('lost', { listed: true }) }],
  'long-west/1': [
    {
      name: 'Long passage',
      attempts: joined,
      marks: updated,
      found: [
        ['Orrery', 'direct'],
        ['Orrery', 'hub'],
      ],
    },
  ],
};

const on = (boxId: string, position = 1, channel = 1) => ({ boxId, position, channel });

/** Rules of three apps, of which some clash. */
const RULES: Automation[] = [
  {
    id: 'hall-evening',
    name: 'Hall in the evening',
    lives: 'Orrery',
    when: { sun: 'sunset', offset: -15 },
    then: [{ target: on('hall'), do: 'on' }],
    seen: at(58),
  },
  {
    id: 'hall-night',
    name: 'Hall at night',
    lives: 'Orrery',
    when: { at: '23:00' },
    then: [{ target: on('hall'), do: 'off' }],
  },
  {
    id: 'friday-guests',
    name: 'Friday guests',
    lives: 'Hearthside',
    when: { at: '23:00' },
    days: ['fri'],
    then: [{ target: on('hall'), do: 'on' }],
  },
  {
    id: 'reading-hour',
    name: 'Reading hour',
    lives: 'Orrery',
    when: { at: '20:00' },
    then: [{ target: on('snug'), do: 'level', value: 60 }],
  },
  {
    id: 'ground-quiet',
    name: 'Ground floor quiet',
    lives: 'Orrery',
    when: { at: '20:03' },
    days: ['sat', 'sun'],
    then: [{ target: { roomId: 'ground-floor' }, do: 'off' }],
  },
  {
    id: 'bench-on',
    name: 'Bench when it is dark',
    lives: 'Bellwether',
    when: { at: '17:30' },
    days: ['mon', 'tue', 'wed', 'thu', 'fri'],
    if: { dark: true },
    then: [{ target: on('work-door'), do: 'on' }],
  },
  {
    id: 'vice-turn',
    name: 'Vice in turn with the bench',
    lives: 'Bellwether',
    when: { at: '18:30' },
    then: [
      { target: on('work-door', 2), do: 'on' },
      { target: on('work-door'), do: 'on' },
    ],
  },
  {
    id: 'fan-off',
    name: 'Fan off after a while',
    lives: 'Orrery',
    when: { countdown: 30, of: on('work-fan-switch') },
  },
];

const HUBS: Job['hubs'] = [
  {
    id: 'hub-oskra',
    hubId: 'os-hub',
    roomId: 'stairs',
    placed: at(6),
    online: at(9),
    updated: at(12),
    links: [{ platform: 'Orrery', at: at(14), outcome: 'linked' }],
  },
  {
    id: 'hub-halvorn',
    hubId: 'ha-hub',
    roomId: 'ground-floor',
    placed: at(7),
    online: at(10),
    updated: at(13),
  },
  {
    id: 'hub-wrenlock',
    hubId: 'wr-hub',
    roomId: 'ground-floor',
    placed: at(8),
    online: at(11),
    links: [{ platform: 'Orrery', at: at(15), outcome: 'failed', reason: 'code not mailed yet' }],
  },
];

const ACCOUNTS: Job['accounts'] = [
  {
    id: 'account-pellworth',
    maker: 'Pellworth',
    holder: 'client',
    links: [{ platform: 'Orrery', at: at(16), outcome: 'linked' }],
  },
];

const THINGS: NonNullable<Job['things']> = [
  {
    id: 'heron-plug',
    name: 'Radio plug',
    roomId: 'ground-floor',
    kind: 'plug',
    platforms: ['Orrery', 'Hearthside'],
  },
  { id: 'heron-eye', name: 'Stair eye', roomId: 'stairs', kind: 'sensor', platforms: ['Orrery'] },
];

/** Every box closed, every breaker on. */
function closedAndOn(house: Job): JobEvent[] {
  return [
    ...house.boxes.map(
      (box, nth): JobEvent => ({ id: `mounted-${nth}`, kind: 'mounted', boxId: box.id, at: at(0) }),
    ),
    ...house.circuits.map(
      (circuit): JobEvent => ({
        id: `on-${circuit.id}`,
        kind: 'switched',
        circuitId: circuit.id,
        state: 'on',
        at: at(5),
      }),
    ),
  ];
}

/** The same house as Tern House, wired and closed: the afternoon on which everything is to join. */
export function heronHouse(): Job {
  const house = ternHouse();
  return {
    ...house,
    id: 'heron-house',
    name: 'Heron House',
    site: { latitude: 43.9, longitude: -69.2, timeZone: 'America/New_York', builtYear: 1988 },
    money: { currency: 'USD', labourPerHour: 9000 },
    brief: {
      ...house.brief,
      platforms: [
        { name: 'Orrery', want: 'must' },
        { name: 'Hearthside', want: 'nice' },
        { name: 'Bellwether', want: 'nice' },
      ],
      wifi: {
        clientsNow: 14,
        clientLimit: 32,
        band24: true,
        routerRoom: 'ground-floor',
        routerCircuit: 't1',
      },
      hubRooms: { 'os-hub': 'stairs', 'ha-hub': 'ground-floor', 'wr-hub': 'ground-floor' },
    },
    boxes: house.boxes.map((box) => ({
      ...box,
      signal: { rssi: SIGNALS[box.id] ?? -58 },
      positions: box.positions.map((position) =>
        box.id === 'landing-near'
          ? { ...position, replaces: { name: 'Landing lights', hub: 'an older hub', removed: false } }
          : position,
      ),
    })),
    pairings: Object.entries(STORY).flatMap(([place, told]) => told.map((one) => pairing(house, place, one))),
    hubs: HUBS,
    accounts: ACCOUNTS,
    things: THINGS,
    automations: [
      ...RULES,
      {
        id: 'stairs-motion',
        name: 'Stairs on motion',
        lives: 'Orrery',
        when: { motion: { thingId: 'heron-eye' } },
        if: { from: '21:00', to: '06:00' },
        then: [{ target: on('stair-high'), do: 'level', value: 20 }],
      },
    ],
    opposites: [{ id: 'bench-or-vice', a: on('work-door'), b: on('work-door', 2) }],
    events: closedAndOn(house),
  };
}

const SIGNALS: Readonly<Record<string, number>> = {
  hall: -49,
  kitchen: -55,
  reading: -61,
  'work-kiln': -79,
  'attic-low': -70,
  'attic-high': -74,
};
