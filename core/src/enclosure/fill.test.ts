import { describe, expect, test } from '@jest/globals';
import { figuresInUse } from '../job/figures.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { FillMethod } from '../practice/counting.js';
import { profileOf } from '../practice/profiles.js';
import { Random } from '../test-support/random.js';
import { ML_PER_IN3 } from '../units/volume.js';
import type { BoxContents, ContentConductor } from './contents.js';
import { fill, printedFill } from './fill.js';
import { depth, packing } from './space.js';

const conductor = (size: WireSize, more: Partial<ContentConductor> = {}): ContentConductor => ({
  id: 'w',
  size,
  fromOutside: true,
  ground: false,
  isolatedGround: false,
  bare: false,
  longLoop: false,
  length: 150,
  ...more,
});
const ground = (size: WireSize, more: Partial<ContentConductor> = {}) =>
  conductor(size, { ground: true, bare: true, ...more });

/** What a counting rule brings: its practice and its usual figures. */
const counted = (method: FillMethod): Pick<BoxContents, 'practice' | 'figures'> => {
  const practice = method === 'none' ? 'gb' : method === 'cec-12-3034' ? 'ca' : 'us';
  const job = practice === 'us' ? { practice, edition: method.slice(4) as '2023' } : { practice };
  return { practice: profileOf({ practice }), figures: figuresInUse(job as { practice: 'us' }) };
};

const contents = (more: Partial<BoxContents>): BoxContents => ({
  ...counted('nec-2023'),
  capacity: { ml: 20 * ML_PER_IN3, standing: true },
  availableDepth: 60,
  opening: null,
  conductors: [],
  internalClamps: false,
  supportFittings: 0,
  straps: [],
  connectors: [],
  leads: [],
  ...more,
});
const strap = (size: WireSize | undefined, gangs = 1, depth = 25) => ({
  positions: [1],
  gangs,
  size,
  bodies: [{ position: 1, body: { width: 33, height: 60, depth }, clearance: 6 }],
});
const used = (box: BoxContents) => (fill(box).usedMl as number) / ML_PER_IN3;

describe('box fill in cubic inches, worked by hand', () => {
  test('four 14 AWG, two grounds, one yoke: 8 + 2 + 4', () => {
    const box = contents({
      conductors: [...Array(4).fill(conductor('14AWG')), ground('14AWG'), ground('14AWG')],
      straps: [strap('14AWG')],
    });
    expect(used(box)).toBeCloseTo(14, 9);
  });

  test('mixed sizes: clamps and support take the largest conductor, each device its own', () => {
    const box = contents({
      conductors: [...Array(3).fill(conductor('14AWG')), ...Array(2).fill(conductor('10AWG'))],
      internalClamps: true,
      supportFittings: 2,
      straps: [strap('14AWG'), strap('10AWG', 2)],
    });
    // 3 x 2 + 2 x 2.5 + clamps 2.5 + support 2 x 2.5 + yokes 2 x 2 and 2 x 2 gangs x 2.5
    expect(used(box)).toBeCloseTo(6 + 5 + 2.5 + 5 + 4 + 10, 9);
  });

  test('grounds: all together once in 2017, a quarter for each beyond four since 2020', () => {
    const conductors = [ground('14AWG'), ...Array(5).fill(ground('12AWG'))];
    expect(used(contents({ ...counted('nec-2017'), conductors }))).toBeCloseTo(2.25, 9);
    expect(used(contents({ ...counted('nec-2020'), conductors }))).toBeCloseTo(2.25 + 2 * 0.25 * 2.25, 9);
  });

  test('an isolated ground set counts once more in 2017 and joins the others since', () => {
    const conductors = [
      ground('12AWG'),
      ground('12AWG'),
      conductor('12AWG', { ground: true, isolatedGround: true }),
    ];
    expect(used(contents({ ...counted('nec-2017'), conductors }))).toBeCloseTo(4.5, 9);
    expect(used(contents({ ...counted('nec-2023'), conductors }))).toBeCloseTo(2.25, 9);
  });

  test('a long unbroken loop counts twice and stands on a line of its own', () => {
    const box = contents({ conductors: [conductor('12AWG', { longLoop: true }), conductor('12AWG')] });
    expect(fill(box).lines.map((line) => [line.rule, line.count])).toEqual([
      ['conductor', 1],
      ['loop', 2],
    ]);
  });

  test('terminal blocks count in 2023 only, once for each assembly by its largest conductor', () => {
    const block = (assembly: string, largest: WireSize) => ({
      kind: 'terminal-block' as const,
      ml: 1.5,
      onlyBare: false,
      assembly,
      largest,
    });
    const box = {
      conductors: [conductor('10AWG')],
      connectors: [block('tb1', '14AWG'), block('tb1', '12AWG'), block('tb2', '14AWG')],
    };
    expect(used(contents(box))).toBeCloseTo(2.5 + 2.25 + 2, 9);
    expect(used(contents({ ...box, ...counted('nec-2020') }))).toBeCloseTo(2.5, 9);
  });

  test('pigtails never count', () => {
    expect(
      used(contents({ conductors: [conductor('12AWG'), conductor('12AWG', { fromOutside: false })] })),
    ).toBeCloseTo(2.25, 9);
  });

  test('exactly full is ok, five hundredths of a mL more still is, beyond is over', () => {
    const conductors = Array(10).fill(conductor('14AWG'));
    const at = (ml: number) => fill(contents({ conductors, capacity: { ml, standing: true } })).verdict;
    expect(at(20 * ML_PER_IN3)).toBe('ok');
    expect(at(20 * ML_PER_IN3 - 0.0499)).toBe('ok');
    expect(at(20 * ML_PER_IN3 - 0.0501)).toBe('over');
  });

  test('a box without standing shows its lines and gives no verdict', () => {
    const result = fill(contents({ conductors: [conductor('14AWG')], capacity: { ml: 5, standing: false } }));
    expect(result).toMatchObject({ verdict: 'no-rule', capacityMl: 5 });
    expect(result.lines).toHaveLength(1);
  });
});

describe('the Canadian count in mL', () => {
  const ca = (more: Partial<BoxContents>) => contents({ ...counted('cec-12-3034'), ...more });

  test('bare bonding counts nothing, an insulated one as a conductor', () => {
    const result = fill(
      ca({ conductors: [conductor('14AWG'), ground('14AWG'), ground('14AWG', { bare: false })] }),
    );
    expect(result.usedMl).toBeCloseTo(49.2, 9);
    expect(result.lines).toMatchObject([
      { rule: 'conductor', count: 2, what: '14AWG, 1 insulated bonding among them' },
    ]);
  });

  test('a strap is two conductors; a deep device 3.28 mL for each mm of its whole depth', () => {
    const conductors = [conductor('12AWG')];
    expect(fill(ca({ conductors, straps: [strap(undefined, 1, 25.4)] })).usedMl).toBeCloseTo(28.7 * 3, 9);
    expect(fill(ca({ conductors, straps: [strap(undefined, 1, 33)] })).usedMl).toBeCloseTo(
      28.7 + 33 * 3.28,
      9,
    );
  });

  test.each([
    [1, 0],
    [2, 1],
    [3, 1],
    [4, 2],
    [5, 2],
  ])('%i connectors count as %i conductors', (connectors, count) => {
    const one = { kind: 'lever' as const, ml: 2, onlyBare: false, assembly: 'x', largest: '14AWG' as const };
    const result = fill(
      ca({
        conductors: [conductor('14AWG')],
        connectors: [...Array(connectors).fill(one), { ...one, onlyBare: true }],
      }),
    );
    expect(result.usedMl).toBeCloseTo(24.6 * (1 + count), 9);
  });

  test('clamps count nothing and several support fittings once', () => {
    expect(
      fill(ca({ conductors: [conductor('14AWG')], internalClamps: true, supportFittings: 3 })).usedMl,
    ).toBeCloseTo(49.2, 9);
  });
});

test('gb and modular have no count', () => {
  expect(fill(contents({ ...counted('none'), conductors: [conductor('1.5mm2')] }))).toMatchObject({
    usedMl: null,
    verdict: 'no-rule',
    lines: [],
  });
});

/** A second, plain way to the same sum: in in3, one conductor after the other, written from the clauses. */
function plainFill(box: BoxContents): number {
  const inches: Partial<Record<WireSize, number>> = {
    '18AWG': 1.5,
    '16AWG': 1.75,
    '14AWG': 2,
    '12AWG': 2.25,
    '10AWG': 2.5,
    '8AWG': 3,
    '6AWG': 5,
  };
  const of = (size: WireSize) => inches[size] ?? Number.NaN;
  const most = (sizes: WireSize[]) => sizes.map(of).sort((a, b) => b - a)[0] ?? 0;
  const all = most(box.conductors.map((entry) => entry.size));
  let sum = box.internalClamps ? all : 0;
  sum += box.supportFittings * all;
  for (const entry of box.conductors)
    if (entry.fromOutside && !entry.ground && !entry.isolatedGround)
      sum += of(entry.size) * (entry.longLoop ? 2 : 1);
  for (const entry of box.straps) sum += 2 * entry.gangs * (entry.size ? of(entry.size) : all);
  const grounds = box.conductors.filter(
    (entry) => entry.fromOutside && (entry.ground || entry.isolatedGround),
  );
  const method = box.figures.fill?.method;
  const isolated = method === 'nec-2017' ? grounds.filter((entry) => entry.isolatedGround) : [];
  const rest = grounds.filter((entry) => !isolated.includes(entry)).map((entry) => entry.size);
  sum += most(rest) + most(isolated.map((entry) => entry.size));
  if (method !== 'nec-2017') sum += Math.max(0, rest.length - 4) * 0.25 * most(rest);
  if (method === 'nec-2023')
    for (const assembly of new Set(
      box.connectors.filter((entry) => entry.kind === 'terminal-block').map((entry) => entry.assembly),
    ))
      sum += most(
        box.connectors.flatMap((entry) =>
          entry.assembly === assembly && entry.largest ? [entry.largest] : [],
        ),
      );
  return sum * ML_PER_IN3;
}

test.each([11, 12, 13])(
  'agrees with the plain sum on 400 random boxes, some exactly full (seed %i)',
  (seed) => {
    const random = new Random(seed);
    const sizes: WireSize[] = ['18AWG', '16AWG', '14AWG', '12AWG', '10AWG', '8AWG', '6AWG'];
    for (let round = 0; round < 400; round++) {
      const some = (most: number, make: () => ContentConductor) =>
        Array.from({ length: random.int(0, most) }, make);
      const box = contents({
        ...counted(random.pick(['nec-2017', 'nec-2020', 'nec-2023'] as const)),
        conductors: [
          ...some(14, () =>
            conductor(random.pick(sizes), { longLoop: random.chance(0.1), fromOutside: random.chance(0.9) }),
          ),
          ...some(8, () => ground(random.pick(sizes), { isolatedGround: random.chance(0.2) })),
        ],
        internalClamps: random.chance(0.5),
        supportFittings: random.int(0, 2),
        straps: Array.from({ length: random.int(0, 4) }, () =>
          strap(random.chance(0.8) ? random.pick(sizes) : undefined, random.int(1, 3)),
        ),
        connectors: Array.from({ length: random.int(0, 3) }, () => ({
          kind: 'terminal-block' as const,
          ml: 1.5,
          onlyBare: false,
          assembly: random.pick(['a', 'b']),
          largest: random.pick(sizes),
        })),
      });
      if (box.conductors.length === 0) continue;
      const sum = plainFill(box);
      const full = { ...box, capacity: { ml: sum, standing: true } };
      const result = printedFill(fill(full));
      expect({ seed, round, used: result.usedMl }).toEqual({ seed, round, used: expect.closeTo(sum, 2) });
      expect(result.verdict).toBe('ok');
      for (const line of result.lines) expect(line.count * line.eachMl).toBeCloseTo(line.ml, 1);
    }
  },
);

/** The same for CE Code 12-3034, in mL. */
function plainFillCa(box: BoxContents): number {
  const table: Partial<Record<WireSize, number>> = {
    '14AWG': 24.6,
    '12AWG': 28.7,
    '10AWG': 36.9,
    '8AWG': 45.1,
    '6AWG': 73.7,
  };
  const of = (size: WireSize) => table[size] ?? 24.6;
  const largest = Math.max(0, ...box.conductors.map((entry) => of(entry.size)));
  let sum = 0;
  for (const entry of box.conductors) if (entry.fromOutside && !entry.bare) sum += of(entry.size);
  if (box.supportFittings > 0) sum += largest;
  const joining = box.connectors.filter(
    (entry) => entry.kind !== 'terminal-block' && entry.kind !== 'other' && !entry.onlyBare,
  ).length;
  sum += ((joining - (joining % 2)) / 2) * largest;
  for (const entry of box.straps) {
    const deep = Math.max(...entry.bodies.map(({ body }) => body.depth));
    sum += deep > 25.4 ? deep * 3.28 : 2 * largest;
  }
  return sum;
}

test.each([21, 22, 23])(
  'in ca too, on 400 random boxes, each exactly full and then a tenth of a mL short (seed %i)',
  (seed) => {
    const random = new Random(seed);
    const sizes: WireSize[] = ['14AWG', '12AWG', '10AWG', '8AWG', '6AWG'];
    for (let round = 0; round < 400; round++) {
      const some = (most: number, make: () => ContentConductor) =>
        Array.from({ length: random.int(0, most) }, make);
      const box = contents({
        ...counted('cec-12-3034'),
        conductors: [
          ...some(12, () =>
            conductor(random.pick(sizes), { fromOutside: random.chance(0.9), longLoop: random.chance(0.1) }),
          ),
          ...some(6, () => ground(random.pick(sizes), { bare: random.chance(0.7) })),
        ],
        internalClamps: random.chance(0.5),
        supportFittings: random.int(0, 2),
        straps: Array.from({ length: random.int(0, 4) }, () =>
          strap(random.pick(sizes), 1, random.pick([20, 25, 25.4, 26, 33])),
        ),
        connectors: Array.from({ length: random.int(0, 7) }, () => ({
          kind: random.pick(['twist-on', 'lever', 'unknown', 'terminal-block'] as const),
          ml: 1.6,
          onlyBare: random.chance(0.2),
          assembly: 'a',
          largest: random.pick(sizes),
        })),
      });
      if (box.conductors.length === 0) continue;
      const sum = plainFillCa(box);
      const of = (ml: number) => fill({ ...box, capacity: { ml, standing: true } });
      expect({ seed, round, used: of(sum).usedMl }).toEqual({ seed, round, used: expect.closeTo(sum, 6) });
      expect(of(sum).verdict).toBe('ok');
      expect(of(sum - 0.1).verdict).toBe('over');
    }
  },
);

test.each([31, 32])(
  'depth and packing agree with a plain sum on 300 random boxes, some that just fit (seed %i)',
  (seed) => {
    const random = new Random(seed);
    const diameters: Partial<Record<WireSize, [number, number]>> = {
      '14AWG': [2.8, 1.6],
      '12AWG': [3.3, 2.1],
      '1.5mm2': [2.9, 1.4],
      '2.5mm2': [3.5, 1.8],
    };
    const sizes = Object.keys(diameters) as WireSize[];
    for (let round = 0; round < 300; round++) {
      const box = contents({
        conductors: Array.from({ length: random.int(0, 9) }, () =>
          conductor(random.pick(sizes), { bare: random.chance(0.3), length: random.int(60, 250) }),
        ),
        leads: Array.from({ length: random.int(0, 5) }, () => ({
          size: random.pick(sizes),
          length: random.int(100, 200),
        })),
        straps: Array.from({ length: random.int(0, 3) }, () => strap(undefined, 1, random.int(18, 40))),
        connectors: Array.from({ length: random.int(0, 4) }, () => ({
          kind: 'lever' as const,
          ml: random.pick([1.8, 2.6, 4.2]),
          onlyBare: false,
          assembly: 'a',
          largest: undefined,
        })),
      });
      const wire = (size: WireSize, bare: boolean, length: number) =>
        (Math.PI * (diameters[size]?.[bare ? 1 : 0] as number) ** 2 * length) / 4 / 1000;
      let taken = 0;
      for (const entry of box.conductors) taken += wire(entry.size, entry.bare, entry.length) / 0.4;
      for (const entry of box.leads) taken += wire(entry.size, false, entry.length) / 0.4;
      for (const entry of box.connectors) taken += entry.ml;
      for (const entry of box.straps) taken += (33 * 60 * (entry.bodies[0]?.body.depth ?? 0)) / 1000;
      if (taken === 0) continue;
      const packed = (share: number) => packing({ ...box, capacity: { ml: taken / share, standing: true } });
      expect(packed(0.6).occupancy).toBeCloseTo(0.6, 3);
      expect([0.75, 0.751, 1, 1.001].map((share) => packed(share).verdict)).toEqual([
        'comfortable',
        'tight',
        'tight',
        'will-not-close',
      ]);
      const needed = Math.max(0, ...box.straps.map((entry) => (entry.bodies[0]?.body.depth ?? 0) + 6));
      const inDepth = (availableDepth: number) => depth({ ...box, availableDepth });
      expect(inDepth(needed)).toMatchObject({ neededMm: needed, verdict: 'fits' });
      if (needed > 0) expect(inDepth(needed - 0.5).verdict).toBe('too-deep');
    }
  },
);
