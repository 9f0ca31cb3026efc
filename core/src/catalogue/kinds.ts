import type { RECORD_SCHEMAS } from '../job/record-schemas.js';
import type { Catalogue } from '../job/schema/catalogue.js';

/** The lists of a catalogue, with the kind of record each holds. */
export const CATALOGUE_KINDS = {
  devices: 'device',
  hubs: 'hub',
  parts: 'part',
  connectors: 'connector',
  enclosures: 'enclosure',
  platforms: 'platform',
} as const satisfies Record<keyof Catalogue, keyof typeof RECORD_SCHEMAS>;

export type CatalogueList = keyof typeof CATALOGUE_KINDS;
export const CATALOGUE_LISTS = Object.keys(CATALOGUE_KINDS) as CatalogueList[];
