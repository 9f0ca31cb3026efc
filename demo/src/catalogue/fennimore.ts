import type { Device } from '@inventario/core';
import { box, CLAMPS_230, clamp, dimmer, family, fan, needs, relay } from './pieces.js';

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
  opening: 'module',
  shade: 'bright white',
  faceProud: 1,
  onLevel: 'last',
  audible: true,
  lights: [
    { shows: 'blinking', means: 'waiting to be joined' },
    { shows: 'steady', means: 'joined' },
  ],
  reset: 'Flick on and off ten times',
  pairing: {
    steps: ['Flick on and off five times', 'The lamp of the module blinks', 'Join on 2.4 GHz'],
    asOf: '2025-12',
    press: 'Flick on and off five times',
    light: { colours: ['red'], rhythm: 'twice' },
    joinedLight: { colours: ['red'], rhythm: 'steady' },
    minutes: 3,
  },
});

/** Live and neutral loop on from module to module. */
const THROUGH = [
  clamp('L', 'line', 'L', { holds: 2 }),
  clamp('LD', 'load', 'L1', { channel: 1 }),
  clamp('N', 'neutral', 'N', { holds: 2 }),
];

export const FENNIMORE_DEVICES: Device[] = [
  fennimore('fe-one', 'Module 1', 2400, {
    terminals: CLAMPS_230.slice(0, 3),
    channels: [relay([400])],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-small', 'Module 1 small', 1900, {
    terminals: CLAMPS_230.slice(0, 3),
    channels: [
      relay([60], { ratings: [{ kinds: ['led', 'resistive', 'fluorescent'], limit: [60], unit: 'VA' }] }),
    ],
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
    channels: [
      relay([16], { name: 'Socket', ratings: [{ kinds: ['receptacle', 'heater'], limit: [16], unit: 'A' }] }),
    ],
    needs: needs(true, 'required'),
  }),
  fennimore('fe-pass', 'Module 1 through', 3300, {
    terminals: THROUGH,
    channels: [relay([400])],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-fan-pass', 'Module fan through', 6400, {
    gangs: 2,
    body: box(40, 44, 45),
    terminals: THROUGH,
    channels: [{ ...fan(1, 0.8, 4), ratings: [{ kinds: ['fan-ac'], limit: [120], unit: 'W' }] }],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-two', 'Module 2 lights', 3900, {
    terminals: [...CLAMPS_230.slice(0, 3), clamp('LD2', 'load', 'L2', { channel: 2 })],
    channels: [relay([300]), relay([300], { id: 2, name: 'Second light' })],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-dim', 'Module dimmer', 3600, {
    actuator: 'dial',
    audible: false,
    terminals: CLAMPS_230.slice(0, 3),
    channels: [dimmer([150], [300])],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-socket-6', 'Module socket 6', 3100, {
    gangs: 2,
    body: box(38, 44, 45),
    terminals: CLAMPS_230,
    channels: [relay([6], { name: 'Socket', ratings: [{ kinds: ['receptacle'], limit: [6], unit: 'A' }] })],
    needs: needs(true, 'required'),
  }),
  fennimore('fe-geyser', 'Module heater 16', 4600, {
    gangs: 2,
    body: box(42, 44, 45),
    terminals: CLAMPS_230,
    channels: [
      relay([16], { name: 'Heater', ratings: [{ kinds: ['heater', 'motor'], limit: [16], unit: 'A' }] }),
    ],
    needs: needs(true, 'required'),
  }),
  fennimore('fe-scene', 'Module scenes', 3300, {
    actuator: 'buttons',
    scenes: true,
    terminals: CLAMPS_230.slice(0, 3),
    channels: [relay([200])],
    needs: needs(true, 'none'),
  }),
  fennimore('fe-watch', 'Module motion', 3500, {
    terminals: CLAMPS_230.slice(0, 3),
    channels: [relay([200])],
    needs: needs(true, 'none'),
    senses: ['motion'],
  }),
];
