import { describe, expect, test } from '@jest/globals';
import { Random } from '../test-support/random.js';
import { type Element, Network } from './network.js';

const lamp = (a: number, b: number, loadId = 'lamp', conducts = true, ohms = 240): Element => ({
  a,
  b,
  loadId,
  conducts,
  ohms,
});

describe('what a point is', () => {
  test('the line is a source, and so is what a closed switch joins to it', () => {
    const network = new Network(3);
    network.tieSource(0, 0, 'A', true);
    network.merge(0, 1);
    expect(network.state(1)).toEqual({ kind: 'source', leg: 'A', circuit: 0 });
    expect(network.state(2)).toEqual({ kind: 'floating' });
  });

  test('a switched conductor behind an open switch is reference through its lamp', () => {
    const network = new Network(3);
    network.tieSource(0, 0, 'A', true);
    network.tieReference(2);
    network.addElement(lamp(1, 2));
    expect(network.state(1)).toEqual({
      kind: 'through',
      to: 'reference',
      conducts: true,
      leg: null,
      loads: ['lamp'],
    });
  });

  test('a neutral parted from its joint is the source through the lamp', () => {
    const network = new Network(2);
    network.tieSource(0, 0, 'B', true);
    network.addElement(lamp(0, 1, 'lamp', false));
    expect(network.state(1)).toEqual({
      kind: 'through',
      to: 'source',
      conducts: false,
      leg: 'B',
      loads: ['lamp'],
    });
  });

  test('the line of a breaker that is off reads as reference', () => {
    const network = new Network(1);
    network.tieSource(0, 0, 'A', false);
    expect(network.state(0)).toEqual({ kind: 'reference', deadLine: true });
    expect(network.isLineSide(0)).toBe(true);
  });

  test('a line on beats the same line off, whichever was tied first', () => {
    for (const order of [
      [true, false],
      [false, true],
    ]) {
      const network = new Network(1);
      for (const live of order) network.tieSource(0, live ? 1 : 0, null, live);
      expect(network.state(0)).toMatchObject({ kind: 'source', circuit: 1 });
    }
  });
});

describe('what trips a breaker', () => {
  test('a live line on the reference, whichever is tied first', () => {
    const first = new Network(2);
    first.tieSource(0, 3, 'A', true);
    first.tieReference(1);
    first.merge(0, 1);
    expect(first.shorts).toContain(3);
    const second = new Network(1);
    second.tieReference(0);
    second.tieSource(0, 3, 'A', true);
    expect(second.shorts).toContain(3);
  });

  test('two legs in one joint trip both; two circuits of one leg, or a leg not known, none', () => {
    const joined = (one: string | null, two: string | null) => {
      const network = new Network(2);
      network.tieSource(0, 0, one, true);
      network.tieSource(1, 1, two, true);
      network.merge(0, 1);
      return new Set(network.shorts);
    };
    expect(joined('A', 'B')).toEqual(new Set([0, 1]));
    expect(joined('A', 'A')).toEqual(new Set());
    expect(joined('A', null)).toEqual(new Set());
  });

  test('a line whose breaker is off trips nothing', () => {
    const network = new Network(1);
    network.tieSource(0, 0, 'A', false);
    network.tieReference(0);
    expect(network.shorts).toEqual([]);
  });
});

describe('what a lamp shows', () => {
  test('between two legs it is lit, between two circuits of one leg it is dark', () => {
    const between = (other: string) => {
      const network = new Network(2);
      network.tieSource(0, 0, 'A', true);
      network.tieSource(1, 1, other, true);
      const element = lamp(0, 1);
      network.addElement(element);
      return network.lit(element);
    };
    expect(between('B')).toBe('lit');
    expect(between('A')).toBe('dark');
  });

  test('with a conductor on both its ends it is dark', () => {
    const network = new Network(2);
    network.tieSource(0, 0, 'A', true);
    network.merge(0, 1);
    const element = lamp(0, 1);
    network.addElement(element);
    expect(network.lit(element)).toBe('dark');
  });

  test('on a joint of neutrals that lost its way back, two lamps of one leg are dark and of two legs share', () => {
    const lost = (other: string) => {
      const network = new Network(3);
      network.tieSource(0, 0, 'A', true);
      network.tieSource(1, 1, other, true);
      const elements = [lamp(0, 2, 'one'), lamp(1, 2, 'two')];
      for (const element of elements) network.addElement(element);
      expect(network.state(2).kind).toBe(other === 'A' ? 'through' : 'divided');
      return elements.map((element) => network.lit(element));
    };
    expect(lost('A')).toEqual(['dark', 'dark']);
    expect(lost('B')).toEqual(['divided', 'divided']);
  });
});

describe('loads in series', () => {
  test('three lamps of 120, 240 and 120 ohm share 1 : 2 : 1, and none is dark', () => {
    const network = new Network(4);
    network.tieSource(0, 0, 'A', true);
    network.tieReference(3);
    const elements = [
      lamp(0, 1, 'one', true, 120),
      lamp(1, 2, 'two', true, 240),
      lamp(2, 3, 'three', true, 120),
    ];
    for (const element of elements) network.addElement(element);
    expect([1, 2].map((node) => network.volts(node))).toEqual([
      expect.closeTo(0.75, 12),
      expect.closeTo(0.25, 12),
    ]);
    expect(elements.map((element) => network.lit(element))).toEqual(['divided', 'divided', 'divided']);
  });

  test('a lamp across a balanced bridge is dark', () => {
    const network = new Network(4);
    network.tieSource(0, 0, 'A', true);
    network.tieReference(3);
    const bridge = lamp(1, 2, 'bridge');
    for (const element of [lamp(0, 1), lamp(1, 3), lamp(0, 2), lamp(2, 3), bridge])
      network.addElement(element);
    expect(network.lit(bridge)).toBe('dark');
  });

  test('two legs on a lost neutral: the smaller lamp gets the larger share of twice the supply', () => {
    const network = new Network(3);
    network.tieSource(0, 0, 'A', true);
    network.tieSource(1, 1, 'B', true);
    // 40 W and 160 W at 120 V: 360 and 90 ohm, so 192 V and 48 V of the 240 V.
    for (const element of [lamp(0, 2, 'small', true, 360), lamp(1, 2, 'large', true, 90)])
      network.addElement(element);
    expect(Math.abs((network.volts(0) as number) - (network.volts(2) as number)) * 120).toBeCloseTo(192, 9);
    expect(Math.abs((network.volts(1) as number) - (network.volts(2) as number)) * 120).toBeCloseTo(48, 9);
  });
});

describe('against the voltages of a nodal analysis', () => {
  test.each(Array.from({ length: 40 }, (_, seed) => seed + 1))(
    'one leg, loads of any resistance (seed %i)',
    (seed) => {
      const random = new Random(seed);
      const nodes = 8;
      const network = new Network(nodes);
      network.tieSource(0, 0, 'A', true);
      network.tieReference(1);
      for (let merges = random.int(0, 3); merges > 0; merges--) {
        const [a, b] = [random.int(2, nodes - 1), random.int(0, nodes - 1)];
        // Never the line on the reference: that is a short, and tested above.
        const ties = new Set([a, b].flatMap((node) => [0, 1].filter((tied) => network.same(node, tied))));
        if (ties.size < 2) network.merge(a, b);
      }
      expect(network.same(0, 1)).toBe(false);
      const ohms = Array.from(
        { length: random.int(2, 9) },
        () => 20 + random.int(1, 900) + random.int(0, 999) / 1000,
      );
      const elements = ohms.map((ohm, at) =>
        lamp(random.int(0, nodes - 1), random.int(0, nodes - 1), `l${at}`, true, ohm),
      );
      for (const element of elements) network.addElement(element);
      const volts = nodal(network, elements, ohms, 120);
      for (let node = 0; node < nodes; node++) {
        const state = network.state(node);
        const at = volts(node);
        if (state.kind === 'source' || (state.kind === 'through' && state.to === 'source'))
          expect(at).toBeCloseTo(120, 6);
        else if (state.kind === 'reference' || state.kind === 'through') expect(at).toBeCloseTo(0, 6);
        else if (state.kind === 'divided') {
          expect(at).toBeGreaterThan(1e-6);
          expect(at).toBeLessThan(120 - 1e-6);
        } else expect(at).toBeNull();
        const solved = network.volts(node);
        if (at === null) expect(solved).toBeNull();
        else expect(solved).toBeCloseTo(at / 120, 9);
      }
      for (const element of elements) {
        const [a, b] = [volts(element.a), volts(element.b)];
        const across = a === null || b === null ? 0 : Math.abs(a - b);
        const shown = network.lit(element);
        expect(shown).toBe(Math.abs(across - 120) < 1e-6 ? 'lit' : across > 1e-3 ? 'divided' : 'dark');
      }
    },
  );
});

/** Volts of every node by elimination on the conductance matrix; null for what hangs on nothing. */
function nodal(network: Network, elements: readonly Element[], ohms: readonly number[], supply: number) {
  const [source, reference] = [network.find(0), network.find(1)];
  const anchored = new Set([source, reference]);
  for (let grown = true; grown; ) {
    grown = false;
    for (const element of elements) {
      const [a, b] = [network.find(element.a), network.find(element.b)];
      if (anchored.has(a) === anchored.has(b)) continue;
      anchored.add(a).add(b);
      grown = true;
    }
  }
  const free = [...anchored].filter((node) => node !== source && node !== reference);
  const matrix = free.map(() => new Array<number>(free.length + 1).fill(0));
  elements.forEach((element, at) => {
    const ends = [network.find(element.a), network.find(element.b)] as const;
    if (ends[0] === ends[1]) return;
    const conductance = 1 / (ohms[at] as number);
    for (const [own, other] of [ends, [ends[1], ends[0]] as const]) {
      const row = matrix[free.indexOf(own)];
      if (!row) continue;
      row[free.indexOf(own)] = (row[free.indexOf(own)] as number) + conductance;
      if (other === source) row[free.length] = (row[free.length] as number) + conductance * supply;
      else if (other !== reference)
        row[free.indexOf(other)] = (row[free.indexOf(other)] as number) - conductance;
    }
  });
  for (let pivot = 0; pivot < free.length; pivot++) {
    const best = matrix
      .slice(pivot)
      .reduce(
        (most, row, at, rows) =>
          Math.abs(row[pivot] as number) > Math.abs(rows[most]?.[pivot] ?? 0) ? at : most,
        0,
      );
    [matrix[pivot], matrix[pivot + best]] = [matrix[pivot + best] as number[], matrix[pivot] as number[]];
    const own = matrix[pivot] as number[];
    matrix.forEach((row, at) => {
      if (at === pivot) return;
      const share = (row[pivot] as number) / (own[pivot] as number);
      for (let column = pivot; column <= free.length; column++)
        row[column] = (row[column] as number) - share * (own[column] as number);
    });
  }
  return (node: number): number | null => {
    const root = network.find(node);
    if (root === source) return supply;
    if (root === reference) return 0;
    const at = free.indexOf(root);
    return at < 0 ? null : (matrix[at]?.[free.length] as number) / (matrix[at]?.[at] as number);
  };
}
