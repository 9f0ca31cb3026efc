import type { Channel, Device, Job, MultiLocation, Terminal } from '@inventario/core';
import { standardBoxes } from '@inventario/core';

type Catalogue = Job['catalogue'];

/** Leads of 18 AWG, 150 mm, stripped 12 mm: what most devices made for twisted joints bring. */
const lead = (id: string, role: Terminal['role'], mark: string, colour: Terminal['colour'], more: Partial<Terminal> = {}): Terminal => ({
  id,
  mark,
  role,
  form: 'lead',
  colour,
  size: '18AWG',
  length: 150,
  strip: 12,
  holds: 1,
  optional: false,
  ...more,
});
const clamp = (id: string, role: Terminal['role'], mark: string, more: Partial<Terminal> = {}): Terminal => ({
  id,
  mark,
  role,
  form: 'clamp',
  size: '2.5mm2',
  strip: 9,
  holds: 1,
  optional: false,
  ...more,
});

const LINE = lead('L', 'line', 'LINE', 'black');
const LOAD = lead('LD', 'load', 'LOAD', 'red', { channel: 1 });
const NEUTRAL = lead('N', 'neutral', 'NEUT', 'white');
const GROUND = lead('G', 'ground', 'GND', 'green');
const TRAVELER = lead('T', 'traveler', 'LINK', 'yellow');
const ALL_LEADS = [LINE, LOAD, NEUTRAL, GROUND];
const TWO_WIRE_LEADS = [LINE, LOAD, GROUND];
const SCREWS = ALL_LEADS.map((terminal): Terminal => ({ ...terminal, form: 'screw', size: '12AWG', length: 0 }));
const CLAMPS_230 = [
  clamp('L', 'line', 'L'),
  clamp('LD', 'load', 'L1', { channel: 1 }),
  clamp('N', 'neutral', 'N'),
  clamp('G', 'ground', 'E'),
];

const relay = (watts: number[], more: Partial<Channel> = {}): Channel => ({
  id: 1,
  name: 'Light',
  kind: 'relay',
  ratings: [{ kinds: ['led', 'resistive', 'electronic', 'magnetic', 'fluorescent'], limit: watts, unit: 'W' }],
  minWatts: 0,
  ...more,
});
const dimmer = (led: number[], resistive: number[], more: Partial<Channel> = {}): Channel => ({
  id: 1,
  name: 'Light',
  kind: 'dimmer',
  ratings: [
    { kinds: ['led', 'electronic'], limit: led, unit: 'W' },
    { kinds: ['resistive'], limit: resistive, unit: 'W' },
  ],
  minWatts: 0,
  ...more,
});
const fan = (id: number, amps: number, speeds: number): Channel => ({
  id,
  name: 'Fan',
  kind: 'fan-speed',
  speeds,
  ratings: [{ kinds: ['fan-ac'], limit: [amps], unit: 'A' }],
});

/** Starts from what a family has in common; each device then says only what sets it apart. */
const family =
  (common: Omit<Device, 'id' | 'model' | 'price' | 'terminals' | 'channels' | 'needs'>) =>
  (id: string, model: string, price: number, own: Partial<Device> & Pick<Device, 'terminals' | 'channels' | 'needs'>): Device => ({
    ...common,
    id,
    model,
    price,
    ...own,
  });

const box = (depth: number, width = 44, height = 68) => ({ width, height, depth });
const needs = (neutral: boolean, ground: Device['needs']['ground'] = 'recommended') => ({ neutral, ground });
const pair = (strategy: MultiLocation['strategy'], more: Partial<MultiLocation>): MultiLocation => ({
  strategy,
  mainAt: 'either',
  ...more,
});

const pellworth = family({
  maker: 'Pellworth',
  family: 'pellworth',
  practices: ['us', 'ca'],
  volts: [110, 127],
  gangs: 1,
  mount: 'box',
  body: box(33),
  colours: ['white', 'ivory'],
  radio: 'wifi',
  wifiBands: ['2.4'],
  platforms: ['Orrery', 'Hearthside'],
  control: 'both',
  power: 'mains',
  standbyW: 0.8,
  actuator: 'paddle',
  indicator: 'dimmable',
});

const wrenlock = family({
  maker: 'Wrenlock',
  family: 'wrenlock',
  practices: ['us', 'ca'],
  volts: [110, 127],
  gangs: 1,
  mount: 'box',
  body: box(30),
  colours: ['white', 'black'],
  radio: 'maker',
  hubId: 'wr-hub',
  platforms: ['Orrery', 'Hearthside', 'Bellwether'],
  control: 'local',
  power: 'mains',
  standbyW: 0.4,
  actuator: 'buttons',
  indicator: 'fixed',
});

const halvorn = family({
  maker: 'Halvorn',
  family: 'halvorn',
  practices: ['us', 'ca'],
  volts: [110, 127],
  gangs: 1,
  mount: 'box',
  body: box(35),
  fins: true,
  colours: ['white'],
  radio: 'mesh',
  hubId: 'ha-hub',
  repeater: true,
  platforms: ['Orrery', 'Bellwether'],
  control: 'local',
  power: 'mains',
  standbyW: 0.6,
  actuator: 'paddle',
  indicator: 'dimmable',
});

const oskra = family({
  maker: 'Oskra',
  family: 'oskra',
  practices: ['us', 'ca'],
  volts: [110, 127],
  gangs: 1,
  mount: 'box',
  body: box(38),
  colours: ['white', 'grey'],
  radio: 'subghz',
  hubId: 'os-hub',
  platforms: ['Orrery', 'Hearthside'],
  control: 'local',
  power: 'mains',
  standbyW: 0.5,
  actuator: 'paddle',
  indicator: 'fixed',
});

const zinnet = family({
  maker: 'Zinnet',
  family: 'zinnet',
  practices: ['gb'],
  volts: [220, 240],
  gangs: 1,
  mount: 'box',
  body: box(27, 62, 62),
  ownPlate: true,
  colours: ['white', 'slate'],
  radio: 'wifi',
  wifiBands: ['2.4'],
  platforms: ['Hearthside', 'Bellwether'],
  control: 'both',
  power: 'mains',
  standbyW: 0.7,
  actuator: 'touch',
  indicator: 'dimmable',
});

const fennimore = family({
  maker: 'Fennimore',
  family: 'fennimore',
  practices: ['modular'],
  volts: [185, 260],
  gangs: 1,
  mount: 'box',
  body: box(38, 22, 45),
  colours: ['white'],
  radio: 'wifi',
  wifiBands: ['2.4'],
  platforms: ['Bellwether', 'Orrery'],
  control: 'both',
  power: 'mains',
  standbyW: 0.6,
  actuator: 'toggle',
  indicator: 'fixed',
});

const DEVICES: Device[] = [
  pellworth('pw-plain-15', 'Plain 15', 2900, { terminals: ALL_LEADS, channels: [relay([600])], needs: needs(true) }),
  pellworth('pw-plain-20', 'Plain 20', 3400, {
    body: box(34),
    terminals: ALL_LEADS,
    channels: [relay([1200])],
    needs: needs(true, 'required'),
  }),
  pellworth('pw-shallow', 'Shallow 15', 3700, { body: box(26), terminals: SCREWS, channels: [relay([500])], needs: needs(true) }),
  pellworth('pw-dim', 'Soft dimmer', 4300, {
    body: box(36),
    fins: true,
    terminals: ALL_LEADS,
    channels: [dimmer([150, 120, 100], [600, 500, 400])],
    needs: needs(true),
  }),
  pellworth('pw-pair', 'Stair pair', 3600, {
    terminals: ALL_LEADS,
    channels: [relay([600])],
    needs: needs(true),
    multiLocation: [
      pair('both-ends', { partnerIds: ['pw-pair'], partner: { line: true, neutral: true, travelers: 0 }, middle: 'companion' }),
    ],
  }),
  pellworth('pw-air', 'Air three-speed', 5200, { body: box(37), terminals: ALL_LEADS, channels: [fan(1, 1.5, 3)], needs: needs(true) }),
  pellworth('pw-bath', 'Bath timer', 4100, {
    terminals: ALL_LEADS,
    channels: [relay([600], { name: 'Fan', ratings: [{ kinds: ['exhaust-fan', 'led', 'resistive', 'motor'], limit: [3], unit: 'A' }] })],
    needs: needs(true),
    senses: ['humidity'],
  }),

  wrenlock('wr-strand', 'Strand dimmer', 4900, {
    terminals: TWO_WIRE_LEADS,
    channels: [dimmer([100], [450], { minWatts: 15, bypassPartId: 'wr-bypass' })],
    needs: needs(false),
    interchangeableLineLoad: true,
  }),
  wrenlock('wr-strand-s', 'Strand switch', 4400, {
    terminals: TWO_WIRE_LEADS,
    channels: [relay([250], { minWatts: 25, bypassPartId: 'wr-bypass' })],
    needs: needs(false),
    interchangeableLineLoad: true,
  }),
  wrenlock('wr-full', 'Full dimmer', 5600, {
    body: box(34),
    terminals: ALL_LEADS,
    channels: [dimmer([250], [700])],
    needs: needs(true),
    multiLocation: [pair('keep-mechanical', { mainAt: 'load', partner: { line: true, neutral: false, travelers: 1 }, middle: 'tie' })],
  }),
  wrenlock('wr-rover', 'Rover four-button', 3200, {
    mount: 'surface',
    body: box(10, 40, 90),
    power: 'battery',
    batteryYears: 8,
    terminals: [],
    channels: [],
    needs: needs(false, 'none'),
    bulbController: true,
    bulbFamilies: ['wrenlock'],
    scenes: true,
    multiLocation: [pair('tie-through', { partner: { line: false, neutral: false, travelers: 0 }, middle: 'tie' })],
  }),

  halvorn('ha-ridge', 'Ridge dimmer', 4100, {
    terminals: ALL_LEADS,
    channels: [dimmer([300, 240, 200], [600, 500, 400])],
    needs: needs(true),
  }),
  halvorn('ha-ridge-1000', 'Ridge 1000', 4700, { terminals: ALL_LEADS, channels: [relay([1000, 800, 650])], needs: needs(true) }),
  halvorn('ha-slate', 'Slate switch', 3900, {
    body: box(28),
    fins: false,
    terminals: SCREWS,
    channels: [relay([600])],
    needs: needs(true, 'required'),
  }),
  halvorn('ha-tuck', 'Tuck module', 3300, {
    mount: 'fitting',
    body: box(18, 40, 40),
    fins: false,
    terminals: [LINE, LOAD, NEUTRAL],
    channels: [relay([300])],
    needs: needs(true, 'none'),
  }),

  oskra('os-main', 'Stair main', 5200, {
    body: box(33),
    terminals: [...ALL_LEADS, TRAVELER],
    channels: [relay([400, 350, 300])],
    needs: needs(true),
    multiLocation: [
      pair('companion', {
        partnerIds: ['os-comp'],
        mainAt: 'load',
        partner: { line: true, neutral: false, travelers: 1 },
        middle: 'companion',
      }),
    ],
  }),
  oskra('os-comp', 'Stair companion', 2900, {
    body: box(33),
    radio: 'none',
    terminals: [LINE, GROUND, TRAVELER],
    channels: [],
    needs: needs(false),
    multiLocation: [
      pair('companion', {
        partnerIds: ['os-main'],
        mainAt: 'load',
        partner: { line: true, neutral: false, travelers: 1 },
        middle: 'companion',
      }),
    ],
  }),
  oskra('os-twin', 'Twin', 6100, {
    terminals: [LINE, LOAD, lead('LD2', 'load', 'LOAD 2', 'blue', { channel: 2 }), NEUTRAL, GROUND],
    channels: [relay([400]), relay([400], { id: 2, name: 'Second light' })],
    needs: needs(true),
  }),
  oskra('os-breeze', 'Breeze, fan and light', 6800, {
    body: box(40),
    terminals: [
      LINE,
      lead('F', 'load', 'FAN', 'grey', { channel: 1 }),
      lead('LD', 'load', 'LIGHT', 'red', { channel: 2 }),
      NEUTRAL,
      GROUND,
    ],
    channels: [fan(1, 1.2, 3), dimmer([120], [300], { id: 2 })],
    needs: needs(true),
  }),

  zinnet('zi-pane-1', 'Pane 1', 4400, { terminals: CLAMPS_230, channels: [relay([400])], needs: needs(true) }),
  zinnet('zi-pane-deep', 'Pane deep', 3100, { body: box(46, 62, 62), terminals: CLAMPS_230, channels: [relay([400])], needs: needs(true) }),
  zinnet('zi-pane-2', 'Pane 2', 5300, {
    terminals: [...CLAMPS_230, clamp('LD2', 'load', 'L2', { channel: 2 })],
    channels: [relay([300]), relay([300], { id: 2, name: 'Second light' })],
    needs: needs(true),
  }),
  zinnet('zi-drop', 'Pane for drops', 4900, {
    terminals: [clamp('L', 'line', 'L'), clamp('LD', 'load', 'L1', { channel: 1 })],
    channels: [relay([200], { minWatts: 10, bypassPartId: 'zi-bypass' })],
    needs: needs(false, 'none'),
  }),

  fennimore('fe-one', 'Module 1', 2400, { terminals: CLAMPS_230.slice(0, 3), channels: [relay([400])], needs: needs(true, 'none') }),
  fennimore('fe-small', 'Module 1 small', 1900, {
    terminals: CLAMPS_230.slice(0, 3),
    channels: [relay([60], { ratings: [{ kinds: ['led', 'resistive', 'fluorescent'], limit: [60], unit: 'VA' }] })],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-fan', 'Module fan', 5100, {
    gangs: 2,
    body: box(40, 44, 45),
    terminals: CLAMPS_230.slice(0, 3),
    channels: [{ ...fan(1, 0.8, 4), ratings: [{ kinds: ['fan-ac'], limit: [120], unit: 'W' }] }],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-socket', 'Module socket 16', 3800, {
    gangs: 2,
    body: box(40, 44, 45),
    terminals: CLAMPS_230,
    channels: [relay([16], { name: 'Socket', ratings: [{ kinds: ['receptacle', 'heater'], limit: [16], unit: 'A' }] })],
    needs: needs(true, 'required'),
  }),
];

const twistOn = (id: string, conductors: number[], section: number[], mL: number, price: number) => ({
  id,
  kind: 'twist-on' as const,
  conductors,
  section,
  mL,
  price,
});
const lever = (ports: number, mL: number, price: number) => ({
  id: `lever-${ports}`,
  kind: 'lever' as const,
  conductors: [2, ports],
  section: [0.5, 4],
  ports,
  mL,
  price,
});
/** A catalogue of made-up devices in six families, new at every call. */
export function demoCatalogue(): Catalogue {
  return structuredClone({
    devices: DEVICES,
    hubs: [
      {
        id: 'ha-hub',
        name: 'Halvorn Cairn',
        price: 6900,
        radio: 'mesh' as const,
        platforms: ['Orrery', 'Bellwether'],
        deviceLimit: 60,
        wired: true,
      },
      {
        id: 'wr-hub',
        name: 'Wrenlock Nest',
        price: 8900,
        radio: 'maker' as const,
        platforms: ['Orrery', 'Hearthside', 'Bellwether'],
        deviceLimit: 75,
        wired: true,
      },
      {
        id: 'os-hub',
        name: 'Oskra Relay Post',
        price: 5500,
        radio: 'subghz' as const,
        platforms: ['Orrery', 'Hearthside'],
        deviceLimit: 30,
        wired: false,
      },
    ],
    parts: [
      { id: 'wr-bypass', name: 'Wrenlock bypass', kind: 'bypass', price: 700, where: 'fitting' as const },
      { id: 'zi-bypass', name: 'Zinnet bypass', kind: 'bypass', price: 600, where: 'fitting' as const },
      { id: 'ring-16', name: 'Extension ring 5/8 in', kind: 'extension-ring', price: 450, in3: 6, depth: 16, where: 'box' as const },
      { id: 'ring-38', name: 'Extension ring 1-1/2 in', kind: 'extension-ring', price: 980, in3: 13, depth: 38, where: 'box' as const },
      { id: 'spacer-13', name: 'Plate spacer 13 mm', kind: 'extension-ring', price: 320, mL: 60, depth: 13, where: 'box' as const },
    ],
    connectors: [
      twistOn('twist-small', [2, 3], [1.6, 4.2], 1.6, 12),
      twistOn('twist-medium', [2, 4], [2.6, 10], 3.1, 16),
      twistOn('twist-large', [2, 6], [4.1, 17], 6, 24),
      lever(2, 1.8, 45),
      lever(3, 2.6, 55),
      lever(5, 4.2, 80),
      { id: 'block-1', kind: 'terminal-block' as const, conductors: [2, 2], section: [0.5, 4], ports: 2, mL: 1.5, price: 30 },
    ],
    enclosures: standardBoxes('us').map((box) => ({ ...box, price: 140 + Math.round(22 * (box.in3 ?? 0)) })),
    platforms: [
      { name: 'Orrery', matching: 'tolerant' as const, groupsByRoom: true, phrasePerAction: false, reserved: ['everything'] },
      { name: 'Hearthside', matching: 'exact' as const, groupsByRoom: true, phrasePerAction: false, reserved: [] },
      { name: 'Bellwether', matching: 'tolerant' as const, groupsByRoom: false, phrasePerAction: true, reserved: [] },
    ],
  });
}
