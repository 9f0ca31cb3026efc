import { describe, expect, test } from '@jest/globals';
import { Random } from '../test-support/random.js';
import { randomDay } from '../test-support/random-day.js';
import { Costs } from './cost.js';
import { planDay, planOf } from './plan-day.js';
import { goodPartition } from './search.js';
import type { DayPlan, DayToPlan } from './vocabulary.js';

/** What a plan comes to by the rules alone: trips, circuits dark, changes of room and floor. */
function reckoned(batches: readonly (readonly string[])[], day: DayToPlan): number[] {
  const of = batches.map((boxIds) => {
    const units = day.units.filter((unit) => unit.boxIds.some((id) => boxIds.includes(id)));
    const places = units.flatMap((unit) => unit.boxIds.map((id) => day.room.get(id)));
    return {
      panels: new Set(units.flatMap((unit) => [...unit.panels])),
      circuits: new Set(units.flatMap((unit) => [...unit.circuitIds])).size,
      each: 2 + (units.some((unit) => unit.needsCheck) ? 2 : 0) + (day.testBeforeFold ? 2 : 0),
      walk:
        new Set(places.map((place) => place?.roomId)).size -
        1 +
        3 * (new Set(places.map((place) => place?.floor)).size - 1),
    };
  });
  let trips = 0;
  of.forEach((batch, at) => {
    for (const panel of batch.panels) trips += batch.each - (of[at - 1]?.panels.has(panel) ? 1 : 0);
  });
  return [
    trips,
    of.reduce((sum, { circuits }) => sum + circuits, 0),
    of.reduce((sum, { walk }) => sum + walk, 0),
  ];
}

const boxesOf = (plan: DayPlan) => plan.batches.map(({ boxIds }) => boxIds);

/** The best there is, by trying every partition in every order. */
function tryAll(day: DayToPlan): number[] {
  let best = [Number.POSITIVE_INFINITY];
  const isLess = (one: number[], other: number[]) => {
    const at = one.findIndex((value, index) => value !== other[index]);
    return at >= 0 && (one[at] as number) < (other[at] as number);
  };
  const mayBeOpen = (units: number[]) =>
    units.length === 1 ||
    (units.reduce((sum, unit) => sum + (day.units[unit]?.boxIds.length ?? 0), 0) <= day.openAtOnce &&
      !day.apart.some(([a, b]) => units.includes(a) && units.includes(b)));
  const go = (left: number[], done: string[][]) => {
    if (left.length === 0) {
      const found = reckoned(done, day);
      if (isLess(found, best)) best = found;
    }
    for (let bits = 1; bits < 2 ** left.length; bits++) {
      const some = left.filter((_, at) => (bits >> at) & 1);
      if (mayBeOpen(some))
        go(
          left.filter((unit) => !some.includes(unit)),
          [...done, some.flatMap((unit) => [...(day.units[unit]?.boxIds ?? [])])],
        );
    }
  };
  go([...day.units.keys()], []);
  return best;
}

describe('the day with the fewest trips', () => {
  test('is the best of every partition in every order, on seeded days', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const random = new Random(seed);
      const made = { units: random.int(1, 6), panels: random.int(1, 4), openAtOnce: random.int(1, 4) };
      const day = randomDay(random, made);
      const plan = planDay(day);
      expect([seed, ...reckoned(boxesOf(plan), day)]).toEqual([seed, ...tryAll(day)]);
      expect(plan.panelTrips).toBe(reckoned(boxesOf(plan), day)[0]);
      expect(plan.lowerBound).toBe(plan.panelTrips);
    }
  });

  test('a good one of many units comes as near as its bound says, and never below it', () => {
    let [exact, good] = [0, 0];
    for (let seed = 1001; seed <= 1020; seed++) {
      const random = new Random(seed);
      const made = { units: random.int(8, 12), panels: random.int(1, 3), openAtOnce: random.int(2, 5) };
      const day = randomDay(random, made);
      const costs = new Costs(day);
      const found = planOf(goodPartition(costs), costs);
      const best = planDay(day);
      expect([seed, found.lowerBound <= best.panelTrips, found.panelTrips >= best.panelTrips]).toEqual([
        seed,
        true,
        true,
      ]);
      exact += best.panelTrips;
      good += found.panelTrips;
    }
    expect(good / exact).toBeLessThan(1.02);
  });

  test('sixty units: every box once, no more open than may be, and the gap said', () => {
    for (const openAtOnce of [1, 4]) {
      const day = randomDay(new Random(60), { units: 60, panels: 2, openAtOnce });
      const plan = planDay(day);
      const boxes = plan.batches.flatMap(({ boxIds }) => boxIds);
      expect([...boxes].sort()).toEqual(day.units.flatMap(({ boxIds }) => boxIds).sort());
      for (const { boxIds } of plan.batches) {
        const units = day.units.filter((unit) => unit.boxIds.some((id) => boxIds.includes(id)));
        expect(units.length === 1 || boxIds.length <= openAtOnce).toBe(true);
      }
      expect(plan.panelTrips).toBe(reckoned(boxesOf(plan), day)[0]);
      expect(plan.lowerBound).toBeLessThanOrEqual(plan.panelTrips);
      expect(plan.panelTrips / plan.lowerBound).toBeLessThan(1.1);
    }
  });

  test('nothing to do takes no trip', () => {
    const day = { units: [], openAtOnce: 4, testBeforeFold: true, apart: [], room: new Map() };
    expect(planDay(day)).toEqual({ batches: [], panelTrips: 0, boxByBoxTrips: 0, lowerBound: 0 });
  });
});
