import { describe, expect, test } from '@jest/globals';
import { closeTheLoop, someRealBox } from '../test-support/closed-loop.js';
import { SITUATIONS } from '../test-support/real-box.js';
import { Resistors } from '../test-support/resistors.js';

/** Forty here, two hundred in the benchmark. */
const SEEDS = Array.from({ length: 40 }, (_, at) => at + 1);

describe('boxes of copper and lamps, their meters answered by a resistor network that knows no roles', () => {
  const loops = SEEDS.map((seed) => ({ seed, loop: () => closeTheLoop(someRealBox(seed)) }));
  let conflicts = 0;

  test.each(loops)('box $seed arrives at what the evidence allows', ({ loop }) => {
    const { name, asked, wrong, leftBehind, conflict, first } = loop();
    expect({ name, wrong, leftBehind }).toEqual({ name, wrong: [], leftBehind: [] });
    expect(asked).toBeLessThanOrEqual(2);
    // An installer leads the indicator over the conductors before anything else.
    expect(first).toMatchObject({ tool: 'indicator', why: { code: 'first-look' } });
    conflicts += Number(conflict);
  });

  test('no conflict is reported among true readings in more than 2 % of them', () => {
    expect(conflicts).toBeLessThanOrEqual(Math.floor(SEEDS.length * 0.02));
  });

  test('every situation of one or two positions comes up', () => {
    const names = new Set(SEEDS.map((seed) => someRealBox(seed).name.replace(/^\w+, /, '')));
    expect(names.size).toBe(SITUATIONS.length);
  });
});

describe('the plain solver', () => {
  test('a divider of 1 and 3 ohm on 12 V stands at 9 V', () => {
    const network = new Resistors();
    network.source('in', 12, 1e-9);
    network.resistor('in', 'middle', 1);
    network.resistor('middle', 'E', 3);
    network.source('E', 0, 1e-9);
    expect(network.solve()('middle')).toBeCloseTo(9, 6);
  });

  test('a meter of 1 A over 5 ohm beside 20 ohm shows 4 V, and what hangs on nothing is open', () => {
    const network = new Resistors();
    network.resistor('a', 'b', 5);
    network.resistor('a', 'b', 20);
    network.current('a', 1);
    network.current('b', -1);
    const at = network.solve();
    expect(at('a') - at('b')).toBeCloseTo(4, 3);
    const alone = new Resistors();
    alone.current('a', 1);
    alone.current('b', -1);
    expect(alone.solve()('a') - alone.solve()('b')).toBeGreaterThan(1e9);
  });
});
