// Model runs beside each other on one house, which breaks now and then while they go on.
import { type House, startHouse } from './house.js';
import { modelRun, type Verdict } from './run.js';

/**
 * @param seeds one run each, a few at a time
 * @param breaks how often something is killed while a few of them run
 */
export async function modelRuns(
  seeds: readonly number[],
  atOnce: number,
  breaks: number,
): Promise<Verdict[]> {
  const house = await startHouse();
  const verdicts: Verdict[] = [];
  try {
    for (let from = 0; from < seeds.length; from += atOnce) {
      const some = seeds.slice(from, from + atOnce);
      const breaking = breakThings(house, breaks, some[0] ?? 0);
      verdicts.push(...(await Promise.all(some.map((seed) => modelRun(seed, house)))));
      await breaking;
    }
  } finally {
    await house.close();
  }
  return verdicts;
}

/** Either server, then the database, then a server again, with a breath between. */
async function breakThings(house: House, times: number, seed: number): Promise<void> {
  for (let time = 0; time < times; time++) {
    await new Promise((done) => setTimeout(done, 150 + ((seed * 37 + time * 113) % 300)));
    if ((seed + time) % 3 === 1) await house.killDatabase();
    else await house.killServer((seed + time) % 2);
  }
}

/** Those of a run that must not be. */
export const failings = ({ lost, swallowed, missing, apart, overwritten, broken }: Verdict) => ({
  lost,
  swallowed,
  missing,
  apart,
  overwritten,
  broken,
});
