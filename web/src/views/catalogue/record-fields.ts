import { CATALOGUE_KINDS, type CatalogueList, PRACTICES } from '@inventario/core';

/** How a field of a hub, part, connector, enclosure or platform is typed in. */
export interface RecordField {
  key: string;
  label: string;
  kind: 'text' | 'number' | 'whole' | 'money' | 'yes-no' | 'choice' | 'words' | 'platforms' | 'range';
  options?: readonly string[];
  unit?: string;
}

const id: RecordField = { key: 'id', label: 'Id', kind: 'text' };
const name: RecordField = { key: 'name', label: 'Name', kind: 'text' };
const price: RecordField = { key: 'price', label: 'Price', kind: 'money' };
const volume: RecordField[] = [
  { key: 'mL', label: 'Volume', kind: 'number', unit: 'mL' },
  { key: 'in3', label: 'or', kind: 'number', unit: 'in³' },
];

export const RECORD_FIELDS: Record<Exclude<CatalogueList, 'devices'>, RecordField[]> = {
  hubs: [
    id,
    name,
    price,
    {
      key: 'radio',
      label: 'Radio',
      kind: 'choice',
      options: ['wifi', 'mesh', 'subghz', 'maker', 'ble', 'none'],
    },
    { key: 'platforms', label: 'Assistants', kind: 'platforms' },
    { key: 'deviceLimit', label: 'Devices it takes', kind: 'whole' },
    { key: 'wired', label: 'Wired to the router', kind: 'yes-no' },
  ],
  parts: [
    id,
    name,
    { key: 'kind', label: 'Kind', kind: 'text' },
    price,
    { key: 'where', label: 'Goes', kind: 'choice', options: ['fitting', 'box'] },
    { key: 'depth', label: 'Depth', kind: 'number', unit: 'mm' },
    ...volume,
    { key: 'gangs', label: 'Gangs of a plate', kind: 'whole' },
    { key: 'opening', label: 'Opening of a plate', kind: 'text' },
    { key: 'colours', label: 'Colours, with commas', kind: 'words' },
    { key: 'bulbFamily', label: 'Family of a bulb', kind: 'text' },
    { key: 'fullColour', label: 'A bulb in colours', kind: 'yes-no' },
  ],
  connectors: [
    id,
    { key: 'kind', label: 'Kind', kind: 'choice', options: ['twist-on', 'lever', 'terminal-block', 'crimp'] },
    { key: 'conductors', label: 'Conductors, fewest and most', kind: 'range' },
    { key: 'section', label: 'Section mm², least and most', kind: 'range' },
    { key: 'ports', label: 'Ports', kind: 'whole' },
    ...volume,
    price,
  ],
  enclosures: [
    id,
    name,
    { key: 'practice', label: 'Practice', kind: 'choice', options: [...PRACTICES] },
    ...volume,
    { key: 'gangs', label: 'Gangs', kind: 'whole' },
    { key: 'depth', label: 'Depth', kind: 'number', unit: 'mm' },
    { key: 'material', label: 'Material', kind: 'choice', options: ['metal', 'plastic'] },
    price,
  ],
  platforms: [
    name,
    { key: 'matching', label: 'Hears names', kind: 'choice', options: ['exact', 'tolerant'] },
    { key: 'groupsByRoom', label: 'Groups by room', kind: 'yes-no' },
    { key: 'phrasePerAction', label: 'A phrase for each action', kind: 'yes-no' },
    { key: 'reserved', label: 'Words it keeps for itself, with commas', kind: 'words' },
  ],
};

const FRESH: Record<Exclude<CatalogueList, 'devices'>, object> = {
  hubs: { name: '', price: 0, radio: 'mesh', platforms: [], deviceLimit: 50, wired: true },
  parts: { name: '', kind: '', price: 0 },
  connectors: { kind: 'twist-on', conductors: [2, 3], section: [1.6, 4.2], mL: 0, price: 0 },
  enclosures: { name: '', practice: 'us', in3: 0, gangs: 1 },
  platforms: { name: '', matching: 'tolerant' },
};

export function freshRecord(list: Exclude<CatalogueList, 'devices'>, newId: string): Record<string, unknown> {
  return list === 'platforms' ? { ...FRESH[list] } : { id: newId, ...FRESH[list] };
}

/** What names a record of the list. */
export function nameOfRecord(record: Record<string, unknown>): string {
  return String(record.name || record.id || 'unnamed');
}

export const kindOf = (list: CatalogueList) => CATALOGUE_KINDS[list];
