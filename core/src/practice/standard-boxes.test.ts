import { expect, test } from '@jest/globals';
import { CatalogueEnclosure } from '../job/schema/catalogue.js';
import { PROFILES } from './profiles.js';
import { standardBoxes } from './standard-boxes.js';

test('every standard box is a valid record, ids apart over all practices', () => {
  const all = Object.values(PROFILES).flatMap(standardBoxes);
  for (const box of all) expect(CatalogueEnclosure.safeParse(box).error?.issues ?? []).toEqual([]);
  expect(new Set(all.map((box) => box.id)).size).toBe(all.length);
});

test('the volumes of the tables, added up by hand as a check against slips', () => {
  const sum = (practice: 'us' | 'ca') =>
    standardBoxes(PROFILES[practice]).reduce((total, box) => total + (box.in3 ?? box.mL ?? 0), 0);
  // octagons 49.5, squares 69.3 and 97, devices 72.5 and 37.8, masonry 35
  expect(sum('us')).toBeCloseTo(49.5 + 69.3 + 97 + 72.5 + 37.8 + 35, 9);
  // octagons 589, squares 2014, devices 906 and 638, masonry 573
  expect(sum('ca')).toBeCloseTo(589 + 2014 + 906 + 638 + 573, 9);
  expect(standardBoxes(PROFILES.us)).toHaveLength(20);
  expect(standardBoxes(PROFILES.modular).map((box) => box.gangs)).toEqual([1, 2, 3, 4, 6, 8, 12]);
});
