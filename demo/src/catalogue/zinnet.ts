import type { Device } from '@inventario/core';
import { box, CLAMPS_230, clamp, dimmer, family, needs, pair, relay } from './pieces.js';

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
  onLevel: 'last',
  audible: false,
  pairing: {
    steps: ['Touch and hold until the ring turns', 'Join on 2.4 GHz'],
    asOf: '2026-02',
    press: 'Touch and hold for 5 seconds',
    light: { colours: ['blue', 'white'], rhythm: 'slow' },
    joinedLight: { colours: ['white'], rhythm: 'steady' },
    minutes: 3,
  },
  includes: [{ partId: 'pack-screws', count: 2 }],
});

export const ZINNET_DEVICES: Device[] = [
  zinnet('zi-pane-1', 'Pane 1', 4400, {
    terminals: CLAMPS_230,
    channels: [relay([400])],
    needs: needs(true),
  }),
  zinnet('zi-pane-deep', 'Pane deep', 3100, {
    body: box(46, 62, 62),
    terminals: CLAMPS_230,
    channels: [relay([400])],
    needs: needs(true),
  }),
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
  zinnet('zi-drop-tie', 'Pane for two-way drops', 6900, {
    terminals: [clamp('L', 'line', 'L', { holds: 3 }), clamp('LD', 'load', 'L1', { channel: 1, holds: 2 })],
    channels: [relay([200], { minWatts: 10, bypassPartId: 'zi-bypass' })],
    needs: needs(false, 'none'),
    multiLocation: [
      pair('tie-through', { partner: { line: false, neutral: false, travelers: 0 }, middle: 'tie' }),
    ],
  }),
  zinnet('zi-pane-dim', 'Pane dimmer', 5600, {
    terminals: CLAMPS_230,
    channels: [dimmer([200], [400])],
    needs: needs(true),
  }),
  zinnet('zi-drop-dim', 'Pane dimmer for drops', 5900, {
    terminals: [clamp('L', 'line', 'L'), clamp('LD', 'load', 'L1', { channel: 1 })],
    channels: [dimmer([100], [200], { minWatts: 8, bypassPartId: 'zi-bypass' })],
    needs: needs(false, 'none'),
  }),
  zinnet('zi-pane-pair', 'Pane pair', 4700, {
    terminals: CLAMPS_230,
    channels: [relay([400])],
    needs: needs(true),
    multiLocation: [
      pair('both-ends', {
        partnerIds: ['zi-pane-pair'],
        partner: { line: true, neutral: true, travelers: 0 },
      }),
    ],
  }),
  zinnet('zi-pane-watch', 'Pane with motion', 5800, {
    terminals: CLAMPS_230,
    channels: [relay([300])],
    needs: needs(true),
    senses: ['motion'],
  }),
  zinnet('zi-puck', 'Ceiling puck', 3600, {
    mount: 'fitting',
    body: box(17, 45, 45),
    ownPlate: false,
    terminals: CLAMPS_230.slice(0, 3),
    channels: [relay([300])],
    needs: needs(true, 'none'),
    includes: [],
  }),
  zinnet('zi-spur', 'Spur 13', 6200, {
    body: box(34, 66, 66),
    actuator: 'buttons',
    terminals: CLAMPS_230,
    channels: [
      relay([13], { name: 'Spur', ratings: [{ kinds: ['receptacle', 'heater'], limit: [13], unit: 'A' }] }),
    ],
    needs: needs(true, 'required'),
  }),
];
