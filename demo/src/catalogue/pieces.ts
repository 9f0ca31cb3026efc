import type { Channel, Device, MultiLocation, Terminal } from '@inventario/core';

/** Leads of 18 AWG, 150 mm, stripped 12 mm: what most devices made for twisted joints bring. */
export const lead = (
  id: string,
  role: Terminal['role'],
  mark: string,
  colour: Terminal['colour'],
  more: Partial<Terminal> = {},
): Terminal => ({
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
export const clamp = (
  id: string,
  role: Terminal['role'],
  mark: string,
  more: Partial<Terminal> = {},
): Terminal => ({
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

export const LINE = lead('L', 'line', 'LINE', 'black');
export const LOAD = lead('LD', 'load', 'LOAD', 'red', { channel: 1 });
export const NEUTRAL = lead('N', 'neutral', 'NEUT', 'white');
export const GROUND = lead('G', 'ground', 'GND', 'green');
export const TRAVELER = lead('T', 'traveler', 'LINK', 'yellow');
export const ALL_LEADS = [LINE, LOAD, NEUTRAL, GROUND];
export const TWO_WIRE_LEADS = [LINE, LOAD, GROUND];
export const SCREWS = ALL_LEADS.map(
  (terminal): Terminal => ({ ...terminal, form: 'screw', size: '12AWG', length: 0 }),
);
export const CLAMPS_230 = [
  clamp('L', 'line', 'L'),
  clamp('LD', 'load', 'L1', { channel: 1 }),
  clamp('N', 'neutral', 'N'),
  clamp('G', 'ground', 'E'),
];

export const relay = (watts: number[], more: Partial<Channel> = {}): Channel => ({
  id: 1,
  name: 'Light',
  kind: 'relay',
  ratings: [
    { kinds: ['led', 'resistive', 'electronic', 'magnetic', 'fluorescent'], limit: watts, unit: 'W' },
  ],
  minWatts: 0,
  ...more,
});
export const dimmer = (led: number[], resistive: number[], more: Partial<Channel> = {}): Channel => ({
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
export const fan = (id: number, amps: number, speeds: number): Channel => ({
  id,
  name: 'Fan',
  kind: 'fan-speed',
  speeds,
  ratings: [{ kinds: ['fan-ac'], limit: [amps], unit: 'A' }],
});

/** Starts from what a family has in common; each device then says only what sets it apart. */
export const family =
  (common: Omit<Device, 'id' | 'model' | 'price' | 'terminals' | 'channels' | 'needs'>) =>
  (
    id: string,
    model: string,
    price: number,
    own: Partial<Device> & Pick<Device, 'terminals' | 'channels' | 'needs'>,
  ): Device => ({
    ...common,
    id,
    model,
    price,
    ...own,
  });

export const box = (depth: number, width = 44, height = 68) => ({ width, height, depth });
export const needs = (neutral: boolean, ground: Device['needs']['ground'] = 'recommended') => ({
  neutral,
  ground,
});
export const pair = (strategy: MultiLocation['strategy'], more: Partial<MultiLocation>): MultiLocation => ({
  strategy,
  mainAt: 'either',
  ...more,
});
