import type { Device, PracticeId } from '@inventario/core';
import { newId } from '../../data/ids.js';

/**
 * What a new data sheet begins with: a plain switch with a neutral, to be filled in from the maker's leaflet.
 */
export function freshDevice(practice: PracticeId): Device {
  const high = practice === 'gb' || practice === 'modular';
  return {
    id: newId(),
    maker: '',
    model: '',
    family: '',
    price: 0,
    practices: [practice],
    volts: high ? [220, 240] : [110, 127],
    gangs: 1,
    mount: 'box',
    body: { width: 44, height: 68, depth: 33 },
    radio: 'wifi',
    platforms: [],
    terminals: [
      { id: 'L', mark: 'L', role: 'line', form: high ? 'clamp' : 'lead' },
      { id: 'LD', mark: 'LOAD', role: 'load', form: high ? 'clamp' : 'lead', channel: 1 },
      { id: 'N', mark: 'N', role: 'neutral', form: high ? 'clamp' : 'lead' },
      { id: 'G', mark: 'G', role: 'ground', form: high ? 'clamp' : 'lead' },
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
