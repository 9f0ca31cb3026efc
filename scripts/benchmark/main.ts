// Speeds the product promises, each against its bound and against a reference measured in the same run: the
// reference takes out how fast this machine happens to be. `npm run benchmark [rounds] [boxes] [loops]
// [devices] [wirings] [changed] [sites] [faults]`.
import { modelRuns } from '../together/runs.js';
import { told } from '../together/told.js';
import { commissioning, seededSites } from './commissioning.js';
import { dayPlanned, daysOfSixty, seededFaults } from './day.js';
import { closedLoops, homePlan, houseEngines, identification, wirings, wiringsProved } from './engines.js';
import { keystrokes } from './keystrokes.js';
import { testsUsed } from './tests-used.js';
import { wholeJob } from './whole-job.js';

const rows = [
  ...(await houseEngines()),
  await homePlan(),
  ...(await identification()),
  ...(await wirings()),
  ...(await dayPlanned()),
  ...(await commissioning()),
  ...(await wholeJob()),
  ...(await keystrokes()),
];
console.log('what                                            ms   bound ms   ratio   to');
for (const row of rows)
  console.log(
    `${row.what.padEnd(42)} ${row.median.toFixed(2).padStart(9)} ${row.bound.toFixed(1).padStart(10)} ` +
      `${(row.median / row.referenceMs).toFixed(2).padStart(7)}   ${row.reference} ` +
      `(${row.referenceMs.toFixed(2)} ms)${row.median > row.bound ? '  OVER' : ''}`,
  );
// 500 boxes say most, and take some minutes; the second argument sets another number.
console.log(testsUsed(Number(process.argv[3] ?? 500)));
console.log(closedLoops(Number(process.argv[4] ?? 200)));
console.log(seededSites(Number(process.argv[8] ?? 2000)));
console.log(daysOfSixty(20));
console.log(seededFaults(Number(process.argv[9] ?? 500)));
// Five thousand plans on true copper, and every single change to those of the first thousand.
console.log(wiringsProved(Number(process.argv[6] ?? 5000), Number(process.argv[7] ?? 1000)));
// Three devices on two servers, with everything breaking now and then.
console.log(
  told(
    await modelRuns(
      Array.from({ length: Number(process.argv[5] ?? 200) }, (_, index) => 100 + index),
      8,
      4,
    ),
  ),
);
