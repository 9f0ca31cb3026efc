import type { Device } from '@inventario/core';
import {
  ALL_LEADS,
  box,
  dimmer,
  family,
  fan,
  GROUND,
  LINE,
  LOAD,
  lead,
  NEUTRAL,
  needs,
  pair,
  relay,
  SCREWS,
  TRAVELER,
  TWO_WIRE_LEADS,
} from './pieces.js';

const oskra = family({
  reset: 'Hold the lower edge for 15 s',
  lights: [{ shows: 'violet, fast', means: 'waiting to be joined' }],
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
  opening: 'wide',
  shade: 'cool white',
  faceProud: 5,
  onLevel: 'full',
  audible: true,
  pairing: {
    steps: [
      'Press the hub once: it listens for two minutes',
      'Press the lower left corner of the device',
      'It clicks when it is in',
    ],
  },
  includes: [
    { partId: 'pack-screws', count: 2 },
    { partId: 'pack-twist', count: 3 },
  ],
});

export const OSKRA_DEVICES: Device[] = [
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
  oskra('os-hears', 'Stair hearer', 5400, {
    terminals: [LINE, LOAD, NEUTRAL, GROUND, TRAVELER],
    channels: [relay([500])],
    needs: needs(true),
    multiLocation: [
      pair('keep-mechanical', {
        mainAt: 'load',
        partner: { line: true, neutral: false, travelers: 1 },
        middle: 'tie',
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
  oskra('os-plain', 'Plain post switch', 3300, {
    body: box(32),
    terminals: ALL_LEADS,
    channels: [relay([500])],
    needs: needs(true),
  }),
  oskra('os-main-dim', 'Stair main dimmer', 5900, {
    body: box(35),
    audible: false,
    terminals: [...ALL_LEADS, TRAVELER],
    channels: [dimmer([150], [350])],
    needs: needs(true),
    multiLocation: [
      pair('companion', {
        partnerIds: ['os-comp', 'os-comp-slim'],
        mainAt: 'load',
        partner: { line: true, neutral: false, travelers: 1 },
        middle: 'companion',
      }),
    ],
  }),
  oskra('os-comp-slim', 'Stair companion slim', 3400, {
    body: box(24),
    radio: 'none',
    terminals: [LINE, GROUND, TRAVELER],
    channels: [],
    needs: needs(false),
    multiLocation: [
      pair('companion', {
        partnerIds: ['os-main-dim'],
        mainAt: 'load',
        partner: { line: true, neutral: false, travelers: 1 },
        middle: 'companion',
      }),
    ],
  }),
  oskra('os-apart', 'Apart, two dry contacts', 7200, {
    body: box(40),
    terminals: [
      LINE,
      NEUTRAL,
      GROUND,
      lead('A', 'line', 'IN A', 'orange', { channel: 1, optional: true }),
      lead('LA', 'load', 'OUT A', 'red', { channel: 1 }),
      lead('B', 'line', 'IN B', 'purple', { channel: 2, optional: true }),
      lead('LB', 'load', 'OUT B', 'blue', { channel: 2 }),
    ],
    channels: [relay([400], { name: 'A' }), relay([400], { id: 2, name: 'B' })],
    needs: needs(true),
  }),
  oskra('os-warm', 'Heater 20', 6900, {
    body: box(39),
    terminals: SCREWS,
    channels: [
      relay([20], {
        name: 'Heater',
        ratings: [{ kinds: ['heater', 'receptacle', 'resistive'], limit: [20], unit: 'A' }],
      }),
    ],
    needs: needs(true, 'required'),
  }),
  oskra('os-scene', 'Post scenes', 5700, {
    actuator: 'buttons',
    scenes: true,
    terminals: ALL_LEADS,
    channels: [dimmer([120], [300])],
    needs: needs(true),
  }),
  oskra('os-leaf', 'Leaf two-wire', 4200, {
    body: box(28),
    audible: false,
    terminals: TWO_WIRE_LEADS,
    channels: [relay([200], { minWatts: 10 })],
    needs: needs(false, 'none'),
    interchangeableLineLoad: true,
  }),
];
