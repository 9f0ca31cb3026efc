import { planDay } from '../../core/src/runsheet/plan-day.js';
import { followed, seededFault } from '../../core/src/test-support/doubted-place.js';
import { Random } from '../../core/src/test-support/random.js';
import { randomDay } from '../../core/src/test-support/random-day.js';
import { median, type Row, STEPS, steps } from './measure.js';

/** A day of 14 units put together in the best way, of any size of batch, and one of 60 in a good one. */
export async function dayPlanned(): Promise<Row[]> {
  const referenceMs = await median(steps);
  const row = { reference: STEPS, referenceMs };
  const day = (units: number, openAtOnce: number) =>
    randomDay(new Random(5), { units, panels: 3, openAtOnce });
  // Each time another day: what was planned is kept.
  const anew = (units: number, openAtOnce: number) => {
    const base = day(units, openAtOnce);
    let turn = 0;
    return () => {
      turn += 1;
      const units = base.units.map((unit) => ({
        ...unit,
        circuitIds: unit.circuitIds.map((id) => `${id}.${turn}`),
      }));
      return planDay({ ...base, units });
    };
  };
  return [
    { what: 'day of 14 units, 4 open, exact', median: await median(anew(14, 4)), bound: 2000, ...row },
    {
      what: 'day of 14 units, all open, exact',
      median: await median(anew(14, 14)),
      bound: 2000,
      ...row,
    },
    { what: 'day of 60 units, 4 open', median: await median(anew(60, 4)), bound: 5000, ...row },
  ];
}

/** How near to what no plan stays under the days of 60 units come. */
export function daysOfSixty(count: number): string {
  let [trips, bound, alone] = [0, 0, 0];
  for (let seed = 1; seed <= count; seed += 1) {
    const random = new Random(seed);
    const made = { units: 60, panels: random.int(1, 3), openAtOnce: random.int(2, 6) };
    const plan = planDay(randomDay(random, made));
    trips += plan.panelTrips;
    bound += plan.lowerBound;
    alone += plan.boxByBoxTrips;
  }
  return (
    `days of 60 units: ${count}; ${trips} trips, ${(trips / bound).toFixed(3)} times what no plan ` +
    `stays under, ${(trips / alone).toFixed(2)} of box by box`
  );
}

/** Faults of seeded boxes, found by what is proposed, answered by plain copper. */
export function seededFaults(count: number): string {
  const all = { first: 0, alike: 0, wrong: 0, tests: 0, fewest: 0, byHand: 0 };
  for (let seed = 1, done = 0; done < count; seed += 1) {
    const seeded = seededFault(seed);
    if (!seeded) continue;
    done += 1;
    const found = followed(seeded.doubted, seeded.fault, seeded.seen);
    all[found.ends] += 1;
    all.tests += found.tests;
    all.fewest += found.fewest;
    all.byHand += found.proposed.filter(({ method }) => method === 'probed').length;
  }
  return (
    `seeded faults: ${count}; the true cause first ${all.first}, one that nothing tells from it ` +
    `${all.alike}, another ${all.wrong}; ${all.tests} tests, ${(all.tests / all.fewest).toFixed(3)} times ` +
    `the fewest that do for one who knows the fault; ${all.byHand} live by hand`
  );
}
