import { describe, expect, test } from '@jest/globals';
import { lookup } from '../../job/lookup.js';
import { troubles } from '../../test-support/plain-wiring.js';
import { singleChanges } from '../../test-support/plan-changes.js';
import { Random } from '../../test-support/random.js';
import { type TrueHouse, trueHouse } from '../../test-support/true-house.js';
import { type BoxWiring, wiringOfHouse } from '../wiring.js';
import { prove } from './prove.js';

const HOUSES = 300;
/** Of every house so many changes, drawn by the seed; the benchmark takes them all. */
const CHANGES_A_HOUSE = 6;

const wired = (house: TrueHouse): BoxWiring[] => wiringOfHouse(lookup(house.job), () => []);
const printed = (wirings: readonly BoxWiring[]) => wirings.map(({ boxId, plan }) => ({ boxId, ...plan }));

describe('made-up houses with true wiring', () => {
  const told = (house: TrueHouse) =>
    house.job.boxes.every(({ conductors, labels }) =>
      conductors.every(
        ({ id, cableId }) => cableId === undefined || labels.some(({ conductorId }) => conductorId === id),
      ),
    );

  test('every plan that is proved behaves on the true copper as its strategy promises', () => {
    let proved = 0;
    let ofTold = 0;
    for (let seed = 1; seed <= HOUSES; seed++) {
      const house = trueHouse(new Random(seed));
      const wirings = wired(house);
      const ok = wirings.every((wiring) => wiring.ok);
      if (told(house)) ofTold += 1;
      if (!ok) continue;
      proved += 1;
      expect([seed, house.name, troubles(house, printed(wirings))]).toEqual([seed, house.name, []]);
    }
    // Most of what is chosen can be wired; what cannot is a strategy that its travelers do not suffice for.
    expect(proved).toBeGreaterThan(HOUSES * 0.75);
    expect(ofTold).toBeGreaterThan(HOUSES * 0.7);
  });

  test('where everything is told, only a want of travelers, or of a way past the far switch, stops a plan', () => {
    const lacking = new Set(['too-few-travelers', 'signal-lost', 'load-not-worked', 'load-not-off']);
    for (let seed = 1; seed <= HOUSES; seed++) {
      const house = trueHouse(new Random(seed));
      if (!told(house)) continue;
      const codes = wired(house).flatMap(({ findings }) =>
        findings.filter(({ severity }) => severity === 'error').map(({ code }) => code),
      );
      expect([seed, house.name, codes.filter((code) => !lacking.has(code))]).toEqual([seed, house.name, []]);
    }
  });

  test('a single change that breaks the copper is caught by the proof', () => {
    let broken = 0;
    for (let seed = 1; seed <= HOUSES; seed++) {
      const random = new Random(seed);
      const house = trueHouse(random);
      const wirings = wired(house);
      if (!wirings.every(({ ok }) => ok)) continue;
      const changes = wirings.flatMap((wiring) =>
        singleChanges(wiring.plan).map((change) => ({ wiring, ...change })),
      );
      for (let drawn = 0; drawn < CHANGES_A_HOUSE && changes.length > 0; drawn++) {
        const { wiring, what, plan } = random.pick(changes);
        const bad = troubles(
          house,
          printed(wirings.map((other) => (other === wiring ? { ...other, plan } : other))),
        );
        if (bad.length === 0) continue;
        broken += 1;
        expect([
          seed,
          house.name,
          wiring.boxId,
          what,
          breachesWith(house, wirings, wiring, plan),
        ]).not.toEqual([seed, house.name, wiring.boxId, what, []]);
      }
    }
    expect(broken).toBeGreaterThan(HOUSES * 3);
  });
});

/** What the proof finds when one box is wired otherwise; which connectors there are is not tried here. */
function breachesWith(
  house: TrueHouse,
  wirings: readonly BoxWiring[],
  changed: BoxWiring,
  plan: BoxWiring['plan'],
) {
  const known = lookup(house.job);
  const joints = plan.joints.map((joint) => ({ ...joint, kept: true }));
  return prove(
    wirings.map((wiring) => ({
      box: wiring.box,
      places: wiring.places,
      out: wiring.plan.wired.out,
      plan: wiring === changed ? { ...plan, joints } : wiring.plan,
    })),
    known,
  );
}
