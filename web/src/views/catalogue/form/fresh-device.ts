import { type Device, type PracticeId, profileOf } from '@inventario/core';
import { newId } from '../../../data/ids.js';

/**
 * What a new data sheet begins with: a plain switch with a neutral, to be filled in from the maker's leaflet.
 */
export function freshDevice(practice: PracticeId): Device {
  const { volts, form } = profileOf({ practice }).newDevice;
  return {
    id: newId(),
    maker: '',
    model: '',
    family: '',
    price: 0,
    practices: [practice],
    volts: [...volts],
    gangs: 1,
    mount: 'box',
    body: { width: 44, height: 68, depth: 33 },
    radio: 'wifi',
    platforms: [],
    terminals: [
      { id: 'L', mark: 'L', role: 'line', form },
      { id: 'LD', mark: 'LOAD', role: 'load', form, channel: 1 },
      { id: 'N', mark: 'N', role: 'neutral', form },
      { id: 'G', mark: 'G', role: 'ground', form },
    ],
    needs: { neutral: true, ground: 'recommended' },
    channels: [
      {
        id: 1,
        name: 'Light',
        kind: 'relay',
        ratings: [{ kinds: ['led', 'resistive'], limit: [0], unit: 'W' }],
      },
    ],
  };
}
