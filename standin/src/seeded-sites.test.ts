import { expect, test } from '@jest/globals';
import { followAdvice, oracle, seededSite } from './test-support/seeded-sites.js';

const SITES = 100;

test(`${SITES} seeded sites: what can join does, in few tries; the rest has its true reason`, () => {
  const count = { ours: 0, oracle: 0, notJoined: [] as string[], parked: 0, parkedTrue: 0 };
  for (let seed = 1; seed <= SITES; seed += 1) {
    const site = seededSite(seed);
    site.devices.forEach((device, nth) => {
      const luck = seed * 100 + nth;
      const ours = followAdvice(device, luck);
      if (device.beyondHelp.size === 0) {
        count.ours += ours.attempts;
        count.oracle += oracle(device, site.distribution, luck).attempts;
        if (!ours.joined) count.notJoined.push(`site ${seed}, device ${nth}: ${device.causes}`);
      } else if (!ours.joined) {
        count.parked += 1;
        if (ours.reason && device.beyondHelp.has(ours.reason)) count.parkedTrue += 1;
      }
    });
  }
  expect(count.notJoined).toEqual([]);
  expect(count.ours / count.oracle).toBeLessThanOrEqual(1.3);
  expect(count.parked).toBeGreaterThan(50);
  expect(count.parkedTrue / count.parked).toBeGreaterThanOrEqual(0.95);
});
