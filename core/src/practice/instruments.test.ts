import { describe, expect, test } from '@jest/globals';
import {
  acrossLoad,
  BREAKER,
  coldOhms,
  dividedVolts,
  GROUND_BANDS,
  INDICATOR,
  LAMP,
  loadOutcomes,
  missingPrior,
  OHMS,
  ohmBand,
  VOLTS,
  voltBand,
  warmOhms,
} from './instruments.js';
import { PROFILES } from './profiles.js';
import { US } from './us.js';

test('every row of the meters sums to 1 and leaves nothing impossible', () => {
  const rows = [
    ...Object.values(VOLTS).flatMap(({ high, low }) => [high, low]),
    ...Object.values(OHMS),
    ...Object.values(GROUND_BANDS),
    acrossLoad(['to-1']),
    acrossLoad(['to-50', 'to-2000']),
    acrossLoad(['open']),
    ...[0, 0.02, 0.05, 0.2, 0.5, 0.9, 1, 1.5, 2].map(dividedVolts),
  ];
  for (const row of rows) {
    expect(Object.values(row).reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 9);
    for (const value of Object.values(row)) expect(value).toBeGreaterThan(0);
  }
});

describe('bands of volts', () => {
  test.each([
    ['us', 0, 'under-3'],
    ['us', 2.9, 'under-3'],
    ['us', 5, 'to-5%'],
    ['us', 36, 'to-30%'],
    ['us', 72, 'to-60%'],
    ['us', 109.9, 'to-92%'],
    ['us', 110, 'supply'],
    ['us', 130, 'supply'],
    ['us', 170, 'other'],
    ['us', 240, 'line-to-line'],
    ['gb', 230, 'supply'],
    ['gb', 400, 'line-to-line'],
    ['modular', 190, 'supply'],
    ['modular', 120, 'to-60%'],
  ] as const)('%s %d V is %s', (practice, value, band) => {
    expect(voltBand(value, PROFILES[practice], undefined)).toBe(band);
  });

  test('the known source of the day narrows the supply to five in a hundred about it', () => {
    expect(voltBand(114, US, 120)).toBe('supply');
    expect(voltBand(113, US, 120)).not.toBe('supply');
    expect(voltBand(111, US, undefined)).toBe('supply');
  });

  test('every voltage up to 500 falls in a band, in every practice', () => {
    for (const profile of Object.values(PROFILES))
      for (let value = 0; value <= 500; value += 0.5)
        expect(VOLTS.sourceToReference.high[voltBand(value, profile, undefined)]).toBeDefined();
  });
});

describe('ohms', () => {
  test('a 60 W filament of 120 V is 240 ohm hot and 20 ohm cold', () => {
    expect(coldOhms({ kind: 'resistive', count: 1, wattsEach: 60 }, 120)).toBeCloseTo(20, 9);
  });

  test('a dozen 150 W floodlamps are under an ohm cold: near a closed switch', () => {
    const lamps = { kind: 'resistive', count: 12, wattsEach: 150 } as const;
    expect(coldOhms(lamps, 120)).toBeCloseTo(120 ** 2 / 1800 / 12, 9);
    expect(loadOutcomes(lamps, 120)).toEqual(['to-1']);
  });

  test('a 1500 W heater of 240 V is 38.4 ohm, warm or not', () => {
    expect(coldOhms({ kind: 'heater', count: 1, wattsEach: 1500 }, 240)).toBeCloseTo(38.4, 9);
  });

  test('a driver is no resistance: high or open; a winding is somewhere between', () => {
    expect(coldOhms({ kind: 'led', count: 4, wattsEach: 9 }, 120)).toBeNull();
    expect(loadOutcomes({ kind: 'led', count: 4, wattsEach: 9 }, 120)).toEqual(['above', 'open']);
    expect(loadOutcomes({ kind: 'fan-ac', count: 1, wattsEach: 60 }, 120)).toEqual(['to-50', 'to-2000']);
  });

  test('no load of no watts gives a resistance', () => {
    expect(coldOhms({ kind: 'resistive', count: 0, wattsEach: 60 }, 120)).toBeNull();
  });

  test.each([
    [0, 'to-1'],
    [1, 'to-1'],
    [1.1, 'to-5'],
    [50, 'to-50'],
    [50.1, 'to-2000'],
    [2000, 'to-2000'],
    [2001, 'above'],
    ['open', 'open'],
  ] as const)('%s ohm is %s', (value, band) => {
    expect(ohmBand(value)).toBe(band);
  });

  test('across a load what is expected has most, its neighbours 0.08 each', () => {
    const row = acrossLoad(['to-50']);
    expect(row['to-50']).toBeGreaterThan(0.75);
    expect(row['to-5'] / row['to-50']).toBeCloseTo(0.1, 2);
    expect(row['to-2000'] / row['to-50']).toBeCloseTo(0.1, 2);
  });
});

test('a low-impedance meter takes a ghost down, a high-impedance one does not', () => {
  expect(VOLTS.floatingBesideLive.low['under-3'] + VOLTS.floatingBesideLive.low['to-5%']).toBeGreaterThan(
    0.9,
  );
  expect(VOLTS.floatingBesideLive.high['under-3']).toBeLessThan(0.1);
});

test('an indicator muffled by its bundle still alerts more often than on anything dead', () => {
  expect(INDICATOR.sourceMuffled).toBeGreaterThan(
    Math.max(
      INDICATOR.referenceBesideLive,
      ...Object.values(PROFILES).map(({ floatingAlert }) => floatingAlert),
    ),
  );
});

test.each([
  [0, 'under-3'],
  [0.04, 'to-5%'],
  [0.25, 'to-30%'],
  [0.5, 'to-60%'],
  [0.75, 'to-92%'],
  [1, 'supply'],
  [1.9, 'line-to-line'],
] as const)('loads that share the supply: %d of it is read most as %s, and beside it next', (share, band) => {
  const row = dividedVolts(share);
  expect(row[band]).toBe(Math.max(...Object.values(row)));
  expect(Object.values(row).filter((value) => value > 0.2 && value < 0.5).length).toBeGreaterThanOrEqual(1);
});

test('a load at work: 60 W at 120 V are 240 ohm; what is not known is a few hundred', () => {
  expect(warmOhms({ count: 1, wattsEach: 60 }, 120)).toBeCloseTo(240, 9);
  expect(warmOhms({ count: 4, wattsEach: 25 }, 230)).toBeCloseTo(529, 9);
  expect(warmOhms(undefined, 120)).toBe(300);
  expect(warmOhms({ count: 0, wattsEach: 60 }, 120)).toBe(300);
});

describe('what instruments show, as measured by others', () => {
  /** Rows leave a little for everything that is not named: a figure holds to within two in a hundred. */
  const shows = (row: Readonly<Record<string, number>>, named: Readonly<Record<string, number>>) => {
    for (const [outcome, share] of Object.entries(named)) {
      expect(row[outcome]).toBeGreaterThan(share - 0.02);
      expect(row[outcome]).toBeLessThan(share + 0.02);
    }
    for (const [outcome, share] of Object.entries(row))
      if (!(outcome in named)) expect(share).toBeLessThan(0.03);
  };

  test.each<[string, keyof typeof VOLTS, 'high' | 'low', Record<string, number>]>([
    ['source and reference', 'sourceToReference', 'high', { supply: 0.98 }],
    ['source and reference', 'sourceToReference', 'low', { supply: 0.98 }],
    ['two sources of one leg', 'oneLeg', 'high', { 'under-3': 0.97 }],
    ['two sources of two legs', 'twoLegs', 'low', { 'line-to-line': 0.98 }],
    ['through a filament', 'throughFilament', 'high', { supply: 0.95, 'to-92%': 0.03 }],
    ['through a filament', 'throughFilament', 'low', { supply: 0.85, 'to-92%': 0.12 }],
    ['through a driver', 'throughDriver', 'high', { supply: 0.6, 'to-92%': 0.28, 'to-60%': 0.08 }],
    [
      'through a driver',
      'throughDriver',
      'low',
      { 'under-3': 0.25, 'to-5%': 0.15, 'to-30%': 0.2, 'to-60%': 0.2, 'to-92%': 0.15, supply: 0.04 },
    ],
    [
      'source and floating',
      'sourceToFloating',
      'high',
      { supply: 0.35, 'to-92%': 0.33, 'to-60%': 0.2, 'to-30%': 0.1 },
    ],
    ['source and floating', 'sourceToFloating', 'low', { 'under-3': 0.6, 'to-5%': 0.37 }],
    [
      'floating beside a live one',
      'floatingBesideLive',
      'high',
      { 'to-30%': 0.3, 'to-60%': 0.3, 'to-92%': 0.25, 'to-5%': 0.1 },
    ],
    ['floating alone', 'floatingAlone', 'high', { 'under-3': 0.6, 'to-5%': 0.25, 'to-30%': 0.12 }],
    ['reference and reference', 'same', 'low', { 'under-3': 0.95, 'to-5%': 0.04 }],
  ])('volts, %s (%s, %s impedance)', (_, state, impedance, named) => {
    shows(VOLTS[state][impedance], named);
  });

  test.each<[string, Readonly<Record<string, number>>, Record<string, number>]>([
    ['reference to reference', OHMS.same, { 'to-1': 0.95, 'to-5': 0.04 }],
    [
      'line side to neutral or ground',
      OHMS.lineSide,
      { 'to-5': 0.05, 'to-50': 0.35, 'to-2000': 0.25, above: 0.15, open: 0.2 },
    ],
    ['floating to anything', OHMS.open, { open: 0.98 }],
    ['across 20 ohm', acrossLoad(['to-50']), { 'to-50': 0.8, 'to-5': 0.08, 'to-2000': 0.08 }],
    [
      'across a winding',
      acrossLoad(['to-50', 'to-2000']),
      { 'to-50': 0.4, 'to-2000': 0.4, 'to-5': 0.08, above: 0.08 },
    ],
    ['across what is not there', acrossLoad(['open']), { open: 0.8, above: 0.08 }],
  ])('ohms, %s', (_, row, named) => {
    const left = 1 - Object.values(named).reduce((sum, share) => sum + share, 0);
    for (const [outcome, share] of Object.entries(named)) {
      expect(row[outcome]).toBeGreaterThan(share - 0.02);
      expect(row[outcome]).toBeLessThan(share + Math.max(0.02, left));
    }
  });

  test('the indicator, a lamp, a breaker, and a lamp that is not there', () => {
    expect(INDICATOR).toEqual({
      source: 0.97,
      sourceMuffled: 0.9,
      reference: 0.02,
      referenceBesideLive: 0.08,
    });
    expect(US.floatingAlert).toBe(0.4);
    for (const practice of [PROFILES.gb, PROFILES.modular]) expect(practice.floatingAlert).toBe(0.65);
    expect(LAMP.lit).toEqual({ lit: 0.95, dim: 0.02, dark: 0.03 });
    expect(LAMP.dark.dark).toBe(0.99);
    expect(LAMP.divided).toEqual({ lit: 0.2, dim: 0.3, dark: 0.5 });
    expect(BREAKER).toEqual({ trips: 0.98, holds: 0.98 });
    expect([missingPrior('led'), missingPrior('receptacle')]).toEqual([0.08, 0.6]);
  });
});
