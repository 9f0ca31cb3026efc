import type { Shelf } from '../../materials/vocabulary.js';

export const SHELF_WORDS: Record<Shelf, string> = {
  devices: 'Devices',
  hubs: 'Hubs',
  parts: 'Parts',
  plates: 'Plates',
  connectors: 'Connectors',
  conductors: 'Conductors for pigtails',
  screws: 'Screws',
  labels: 'Labels',
  spares: 'Spares',
};
