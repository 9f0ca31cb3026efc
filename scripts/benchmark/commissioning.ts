import { readFileSync } from 'node:fs';
import { type Job, lookup, namesOf, scheduleOf } from '@inventario/core';
import { Random } from '../../core/src/test-support/random.js';
import { speakingHouse, withRules } from '../../core/src/test-support/speaking-house.js';
import { followAdvice, oracle, seededSite } from '../../standin/src/test-support/seeded-sites.js';
import { median, type Row, STEPS, steps } from './measure.js';

const longRoom = (): Job =>
  JSON.parse(readFileSync('core/examples/long-room.inventario.json', 'utf8')) as Job;

/** 1 May 2026. */
const FROM = 20_574;

/** Names of 200 channels, and a year of 200 rules. */
export async function commissioning(): Promise<Row[]> {
  const referenceMs = await median(steps);
  const speaking = speakingHouse(longRoom(), new Random(1), 40);
  const ruled = withRules(speakingHouse(longRoom(), new Random(1), 12), new Random(2), 200);
  const row = { reference: STEPS, referenceMs };
  return [
    {
      what: 'names of 200 channels, with suggestions',
      median: await median(() => namesOf(lookup(speaking))),
      bound: 50,
      ...row,
    },
    {
      what: 'a year of 200 rules, expanded and checked',
      median: await median(() => scheduleOf(lookup(ruled), { fromDay: FROM, toDay: FROM + 365 })),
      bound: 100,
      ...row,
    },
  ];
}

/** Devices of seeded sites with hidden faults, by the advice and by one who knows the faults' shares. */
export function seededSites(count: number): string {
  const all = { ours: 0, oracle: 0, joinable: 0, joined: 0, parked: 0, parkedTrue: 0, looks: 0, devices: 0 };
  for (let seed = 1; seed <= count; seed += 1) {
    const site = seededSite(seed);
    site.devices.forEach((device, nth) => {
      const ours = followAdvice(device, seed * 100 + nth);
      all.devices += 1;
      all.looks += ours.looks;
      if (device.beyondHelp.size === 0) {
        all.joinable += 1;
        if (ours.joined) all.joined += 1;
        all.ours += ours.attempts;
        all.oracle += oracle(device, site.distribution, seed * 100 + nth).attempts;
      } else if (!ours.joined) {
        all.parked += 1;
        if (ours.reason && device.beyondHelp.has(ours.reason)) all.parkedTrue += 1;
      }
    });
  }
  return (
    `seeded sites: ${count}; ${all.joined} of ${all.joinable} devices that can join did, ` +
    `${(all.ours / all.oracle).toFixed(3)} times the tries of one who knows the faults' shares, ` +
    `${(all.looks / all.devices).toFixed(2)} looks each; ` +
    `${all.parkedTrue} of ${all.parked} parked for the true reason`
  );
}
