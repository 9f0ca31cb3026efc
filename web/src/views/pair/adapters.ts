import type { PairingAttempt } from '@inventario/core';
import { api } from '../../data/api.js';

/** What is asked of a house that answers for itself. */
export type House = Pick<
  typeof api,
  'site' | 'startJoin' | 'join' | 'deed' | 'look' | 'updateDevice' | 'find' | 'sayWords' | 'command'
>;

/** How devices are joined: over the house's own network, or by the installer's hand and word alone. */
export interface Adapter {
  by: NonNullable<PairingAttempt['by']>;
  /** Null where nothing but the installer can be asked. */
  house: House | null;
}

export const ADAPTERS: Readonly<Record<Adapter['by'], Adapter>> = {
  hand: { by: 'hand', house: null },
  site: { by: 'site', house: api },
};
