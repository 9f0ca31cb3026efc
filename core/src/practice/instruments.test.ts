import { describe, expect, test } from '@jest/globals';
import {
  acrossLoad,
  coldOhms,
  dividedVolts,
  GROUND_BANDS,
  INDICATOR,
  loadOutcomes,
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
