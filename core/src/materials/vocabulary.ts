/** Where a line of the list belongs: the shelves one walks past. */
export const SHELVES = [
  'devices',
  'hubs',
  'parts',
  'plates',
  'connectors',
  'conductors',
  'screws',
  'labels',
  'spares',
] as const;
export type Shelf = (typeof SHELVES)[number];

export interface MaterialLine {
  shelf: Shelf;
  /** Names the line for good: what is in hand is kept by it. */
  item: string;
  what: string;
  /** What tells it apart: colour, opening, section. */
  detail: string;
  unit: 'piece' | 'mm';
  needed: number;
  /** What comes in the packages of the devices. */
  inPackages: number;
  /** In boxes that are wired and mounted already. */
  fitted: number;
  inHand: number;
  toBuy: number;
  /** Minor units for one piece; null where the catalogue has no price. */
  priceEach: number | null;
  price: number | null;
  boxIds: string[];
}

export interface Materials {
  lines: MaterialLine[];
  /** Minor units of what is to buy, as far as priced. */
  total: number;
  unpriced: number;
  labour: { minutes: number; cost: number };
  /** All of it, what is fitted or in hand too, with the work. */
  estimate: number;
  /** Boxes whose joints are not all known yet: connectors and tails of theirs may still change. */
  openBoxIds: string[];
}
