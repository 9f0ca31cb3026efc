import { describe, expect, test } from '@jest/globals';
import { bundlesOf } from './bundles.js';
import { connectorRange } from './connectors.js';

const range = connectorRange([]);
const of = (count: number, size: '12AWG' | '14AWG' | '10AWG' = '14AWG') =>
  Array.from({ length: count }, (_, at) => ({ name: `w${at}`, size }));

describe('bundles', () => {
  test('of two to six of 14 AWG go in one twist-on', () => {
    for (const count of [2, 3, 4, 5, 6]) {
      const bundles = bundlesOf(of(count), '14AWG', ['twist-on'], range);
      expect([count, bundles.length, bundles[0]?.members.length]).toEqual([count, 1, count]);
    }
  });

  test('of more are two, and each holds with the jumper between counted', () => {
    const bundles = bundlesOf(of(8), '14AWG', ['twist-on'], range);
    expect(bundles.map(({ members }) => members.length).reduce((a, b) => a + b)).toBe(8);
    expect(bundles).toHaveLength(2);
    for (const { members, connector } of bundles) {
      expect(connector?.kind).toBe('twist-on');
      expect(members.length + 1).toBeLessThanOrEqual(connector?.conductors[1] ?? 0);
    }
  });

  test('of many more are a chain: the links between have two jumpers', () => {
    const bundles = bundlesOf(of(14), '14AWG', ['lever'], range);
    expect(bundles.length).toBeGreaterThan(2);
    expect(bundles.flatMap(({ members }) => members)).toHaveLength(14);
    bundles.forEach(({ members, connector }, at) => {
      const jumpers = at === 0 || at === bundles.length - 1 ? 1 : 2;
      expect(members.length + jumpers).toBeLessThanOrEqual(connector?.conductors[1] ?? 0);
    });
  });

  test('that nothing takes stay one, without a connector', () => {
    const aluminium = of(2).map((member) => ({ ...member, aluminium: true }));
    expect(bundlesOf(aluminium, '14AWG', ['twist-on', 'lever'], range)).toEqual([
      { members: aluminium, connector: null },
    ]);
    expect(bundlesOf(of(2, '10AWG'), '10AWG', ['lever'], range)[0]?.connector).toBeNull();
  });
});
