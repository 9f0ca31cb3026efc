import type { CatalogueEnclosure } from '../job/schema/catalogue.js';
import type { PracticeId } from '../job/schema/primitives.js';

type Row = readonly [id: string, name: string, volume: number, depth: number, gangs?: number];

/**
 * NEC Table 314.16(A), in3; depth in mm from the nominal inches. A box of two device widths is listed for two
 * gangs.
 */
const US: readonly Row[] = [
  ['oct-4-125', 'Round or octagon 4 x 1-1/4', 12.5, 32],
  ['oct-4-150', 'Round or octagon 4 x 1-1/2', 15.5, 38],
  ['oct-4-212', 'Round or octagon 4 x 2-1/8', 21.5, 54],
  ['sq-4-125', 'Square 4 x 1-1/4', 18.0, 32, 2],
  ['sq-4-150', 'Square 4 x 1-1/2', 21.0, 38, 2],
  ['sq-4-212', 'Square 4 x 2-1/8', 30.3, 54, 2],
  ['sq-411-125', 'Square 4-11/16 x 1-1/4', 25.5, 32, 2],
  ['sq-411-150', 'Square 4-11/16 x 1-1/2', 29.5, 38, 2],
  ['sq-411-212', 'Square 4-11/16 x 2-1/8', 42.0, 54, 2],
  ['dev-150', 'Device 3 x 2 x 1-1/2', 7.5, 38],
  ['dev-200', 'Device 3 x 2 x 2', 10.0, 51],
  ['dev-225', 'Device 3 x 2 x 2-1/4', 10.5, 57],
  ['dev-250', 'Device 3 x 2 x 2-1/2', 12.5, 64],
  ['dev-275', 'Device 3 x 2 x 2-3/4', 14.0, 70],
  ['dev-350', 'Device 3 x 2 x 3-1/2', 18.0, 89],
  ['dev4-150', 'Device 4 x 2-1/8 x 1-1/2', 10.3, 38],
  ['dev4-187', 'Device 4 x 2-1/8 x 1-7/8', 13.0, 48],
  ['dev4-212', 'Device 4 x 2-1/8 x 2-1/8', 14.5, 54],
  ['masonry-250', 'Masonry 3-3/4 x 2 x 2-1/2, per gang', 14.0, 64],
  ['masonry-350', 'Masonry 3-3/4 x 2 x 3-1/2, per gang', 21.0, 89],
];

/** CE Code Table 23, mL. */
const CA: readonly Row[] = [
  ['ca-oct-4-150', 'Octagon 4 x 1-1/2', 245, 38],
  ['ca-oct-4-212', 'Octagon 4 x 2-1/8', 344, 54],
  ['ca-sq-4-150', 'Square 4 x 1-1/2', 344, 38, 2],
  ['ca-sq-4-212', 'Square 4 x 2-1/8', 491, 54, 2],
  ['ca-sq-411-150', 'Square 4-11/16 x 1-1/2', 491, 38, 2],
  ['ca-sq-411-212', 'Square 4-11/16 x 2-1/8', 688, 54, 2],
  ['ca-dev-150', 'Device 3 x 2 x 1-1/2', 131, 38],
  ['ca-dev-200', 'Device 3 x 2 x 2', 163, 51],
  ['ca-dev-225', 'Device 3 x 2 x 2-1/4', 163, 57],
  ['ca-dev-250', 'Device 3 x 2 x 2-1/2', 204, 64],
  ['ca-dev-300', 'Device 3 x 2 x 3', 245, 76],
  ['ca-dev4-150', 'Device 4 x 2 x 1-1/2', 147, 38],
  ['ca-dev4-187', 'Device 4 x 2-1/8 x 1-7/8', 229, 48],
  ['ca-dev4b-187', 'Device 4 x 2-3/8 x 1-7/8', 262, 48],
  ['ca-masonry-250', 'Masonry 3-3/4 x 2 x 2-1/2, per gang', 229, 64],
  ['ca-masonry-350', 'Masonry 3-3/4 x 2 x 3-1/2, per gang', 344, 89],
];

/**
 * Back boxes by depth; no conductor count stands on their volume (inside width x height x depth), only the
 * packing estimate.
 */
const GB: readonly Row[] = [16, 25, 35, 47].flatMap((depth): Row[] => [
  [`gb-1-${depth}`, `One gang, ${depth} mm`, (68 * 68 * depth) / 1000, depth, 1],
  [`gb-2-${depth}`, `Two gangs, ${depth} mm`, (130 * 68 * depth) / 1000, depth, 2],
]);

const MODULAR: readonly Row[] = [1, 2, 3, 4, 6, 8, 12].map(
  (modules): Row => [
    `mod-${modules}`,
    `${modules} module${modules === 1 ? '' : 's'}, 45 mm`,
    (22.5 * modules * 45 * 45) / 1000,
    45,
    modules,
  ],
);

const ROWS: Record<PracticeId, { rows: readonly Row[]; unit: 'in3' | 'mL' }> = {
  us: { rows: US, unit: 'in3' },
  ca: { rows: CA, unit: 'mL' },
  gb: { rows: GB, unit: 'mL' },
  modular: { rows: MODULAR, unit: 'mL' },
};

/** Boxes for lights: a switch's yoke does not go on them without a cover made for it. */
const CEILING = /^(ca-)?oct-/;

/** The standard metal boxes of a practice as catalogue records, ready to be taken into a job. */
export function standardBoxes(practice: PracticeId): CatalogueEnclosure[] {
  const { rows, unit } = ROWS[practice];
  return rows.map(([id, name, volume, depth, gangs = 1]) => ({
    id,
    practice,
    name,
    [unit]: volume,
    gangs,
    depth,
    material: 'metal' as const,
    ...(CEILING.test(id) ? { forDevices: false } : {}),
  }));
}
