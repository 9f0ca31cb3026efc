import { describe, expect, test } from '@jest/globals';
import { lookup } from '../job/lookup.js';
import { exampleJob } from '../test-support/examples.js';
import { chosenPlaces, type PlannedPlace } from './comes-out.js';
import { faceShares } from './modules.js';

describe('a face divided anew', () => {
  const job = exampleJob('lounge-plate');
  const [box] = job.boxes as [(typeof job.boxes)[number]];
  const places = chosenPlaces(box, lookup(job));

  test('as found nothing is new, and every share follows the one before', () => {
    const { shares } = faceShares(box, []);
    expect(shares.every(({ isNew }) => !isNew)).toBe(true);
    for (const [at, { from }] of shares.entries())
      if (at > 0) expect(from).toBeGreaterThan(shares[at - 1]?.to ?? 0);
  });

  test('a wider device moves what stands right of it', () => {
    const [first] = places as [PlannedPlace];
    if (!first.device) throw new Error('a device is chosen');
    const before = faceShares(box, places).shares;
    const wide = { ...first, device: { ...first.device, gangs: first.device.gangs + 1 } };
    const after = faceShares(box, [wide, ...places.slice(1)]).shares;
    const own = after.find(({ position }) => position === first.position.index);
    expect(own && own.to - own.from + 1).toBe(wide.device.gangs);
    expect(own?.isNew).toBe(true);
    expect(after.at(-1)?.to).toBeGreaterThanOrEqual(before.at(-1)?.to ?? 0);
  });
});
