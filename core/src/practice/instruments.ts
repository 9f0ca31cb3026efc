import type { LoadKind, Tool } from '../terms/trade.js';
import type { PracticeProfile } from './profile.js';

/**
 * What volts are told apart by: under 3 V, shares of the supply, the supply itself, line to line, anything
 * else.
 */
const VOLT_BANDS = [
  'under-3',
  'to-5%',
  'to-30%',
  'to-60%',
  'to-92%',
  'supply',
  'line-to-line',
  'other',
] as const;
export type VoltBand = (typeof VOLT_BANDS)[number];
const OHM_BANDS = ['to-1', 'to-5', 'to-50', 'to-2000', 'above', 'open'] as const;
export type OhmBand = (typeof OHM_BANDS)[number];

/**
 * The most a meter can show between two points of a house under this practice, V: line to line, generously. A
 * screen refuses more.
 */
export function mostVolts({ supply }: Pick<PracticeProfile, 'supply'>): number {
  return Math.round((supply.lineToLine?.[1] ?? supply.to) * 1.25);
}

/** Within this share of the voltage recorded when the tester was proved counts as supply. */
const PROVED_SHARE = 0.05;
const FLOOR = 0.001;

export type Row<Band extends string> = Readonly<Record<Band, number>>;

/** A row sums to 1: what is not named spreads evenly over the rest, nothing is under the floor. */
function row<Band extends string>(bands: readonly Band[], named: Partial<Record<Band, number>>): Row<Band> {
  const rest = 1 - bands.reduce((sum, band) => sum + (named[band] ?? 0), 0);
  const others = bands.filter((band) => named[band] === undefined).length;
  const raw = bands.map((band) => Math.max(FLOOR, named[band] ?? Math.max(0, rest) / Math.max(1, others)));
  const total = raw.reduce((sum, value) => sum + value, 0);
  return Object.fromEntries(bands.map((band, index) => [band, (raw[index] as number) / total])) as Row<Band>;
}

const volts = (named: Partial<Record<VoltBand, number>>) => row(VOLT_BANDS, named);
const ohms = (named: Partial<Record<OhmBand, number>>) => row(OHM_BANDS, named);

const SAME = volts({ 'under-3': 0.95, 'to-5%': 0.04 });
const SOURCES_ONE_LEG = volts({ 'under-3': 0.97 });
const SOURCES_TWO_LEGS = volts({ 'line-to-line': 0.98 });
const SUPPLIED = volts({ supply: 0.98 });

/**
 * What a voltmeter shows between two points, by what they are, on a high-impedance meter (`high`) or a
 * low-impedance one (`low`).
 */
export const VOLTS = {
  sourceToReference: { high: SUPPLIED, low: SUPPLIED },
  oneLeg: { high: SOURCES_ONE_LEG, low: SOURCES_ONE_LEG },
  twoLegs: { high: SOURCES_TWO_LEGS, low: SOURCES_TWO_LEGS },
  throughFilament: {
    high: volts({ supply: 0.95, 'to-92%': 0.03 }),
    low: volts({ supply: 0.85, 'to-92%': 0.12 }),
  },
  throughDriver: {
    high: volts({ supply: 0.6, 'to-92%': 0.28, 'to-60%': 0.08 }),
    low: volts({
      'under-3': 0.25,
      'to-5%': 0.15,
      'to-30%': 0.2,
      'to-60%': 0.2,
      'to-92%': 0.15,
      supply: 0.04,
    }),
  },
  sourceToFloating: {
    high: volts({ supply: 0.35, 'to-92%': 0.33, 'to-60%': 0.2, 'to-30%': 0.1 }),
    low: volts({ 'under-3': 0.6, 'to-5%': 0.37 }),
  },
  floatingBesideLive: {
    high: volts({ 'to-30%': 0.3, 'to-60%': 0.3, 'to-92%': 0.25, 'to-5%': 0.1 }),
    low: volts({ 'under-3': 0.6, 'to-5%': 0.37 }),
  },
  floatingAlone: {
    high: volts({ 'under-3': 0.6, 'to-5%': 0.25, 'to-30%': 0.12 }),
    low: volts({ 'under-3': 0.6, 'to-5%': 0.37 }),
  },
  same: { high: SAME, low: SAME },
} as const;

const SHARES: readonly [VoltBand, number][] = [
  ['under-3', 0.025],
  ['to-5%', 0.05],
  ['to-30%', 0.3],
  ['to-60%', 0.6],
  ['to-92%', 0.92],
  ['supply', 1.08],
  ['line-to-line', 2.2],
];

/**
 * Where loads share the supply: the band of the modelled voltage, and those beside it, as loads are seldom
 * what their watts say.
 * @param share of the supply, 0 to 2
 */
export function dividedVolts(share: number): Row<VoltBand> {
  const at = SHARES.findIndex(([, to]) => share <= to);
  const named: Partial<Record<VoltBand, number>> = {};
  const [main] = SHARES[at < 0 ? SHARES.length - 1 : at] as (typeof SHARES)[number];
  for (const step of [-1, 1]) {
    const beside = SHARES[at + step];
    if (at >= 0 && beside) named[beside[0]] = 0.22;
  }
  named[main] = 0.5;
  return volts(named);
}

/** Chance that an indicator alerts; on what floats beside a live one it differs by practice. */
export const INDICATOR = {
  source: 0.97,
  /** Inside a bundle, or beside the opposite leg. */
  sourceMuffled: 0.9,
  reference: 0.02,
  referenceBesideLive: 0.08,
} as const;

export const OHMS = {
  same: ohms({ 'to-1': 0.95, 'to-5': 0.04 }),
  /** Line side to neutral or ground, with whatever else is left on along the circuit. */
  lineSide: ohms({ 'to-5': 0.05, 'to-50': 0.35, 'to-2000': 0.25, above: 0.15, open: 0.2 }),
  open: ohms({ open: 0.98 }),
} as const;

/** Across a load: its modelled outcome 0.80, each next one 0.08; a modelled range shares the 0.80. */
export function acrossLoad(outcomes: readonly OhmBand[]): Row<OhmBand> {
  const named: Partial<Record<OhmBand, number>> = {};
  for (const outcome of outcomes) named[outcome] = 0.8 / outcomes.length;
  for (const outcome of outcomes)
    for (const step of [-1, 1]) {
      const next = OHM_BANDS[OHM_BANDS.indexOf(outcome) + step];
      if (next !== undefined && !outcomes.includes(next)) named[next] = (named[next] ?? 0) + 0.08;
    }
  return ohms(named);
}

export const LAMP: Record<'lit' | 'dark' | 'divided', Record<'lit' | 'dim' | 'dark', number>> = {
  lit: { lit: 0.95, dim: 0.02, dark: 0.03 },
  dark: { lit: 0.005, dim: 0.005, dark: 0.99 },
  divided: { lit: 0.2, dim: 0.3, dark: 0.5 },
};

export const BREAKER = { trips: 0.98, holds: 0.98 };

/** Chance that a load is not there: lamp missing or chain off; nothing plugged in. */
export function missingPrior(kind: LoadKind): number {
  return kind === 'receptacle' ? 0.6 : 0.08;
}

/**
 * Loads a low-impedance meter pulls through: filaments, windings. Others are drivers that let little through.
 */
const CONDUCTING: ReadonlySet<LoadKind> = new Set([
  'resistive',
  'heater',
  'magnetic',
  'motor',
  'fan-ac',
  'exhaust-fan',
  'fan-remote',
  'shade',
  'receptacle',
]);

export function conducts(kind: LoadKind): boolean {
  return CONDUCTING.has(kind);
}

/**
 * Cold resistance of a load, ohm: filaments cold at a twelfth, heaters warm; null where it is not a
 * resistance.
 */
export function coldOhms(
  load: { kind: LoadKind; count: number; wattsEach: number },
  volts: number,
): number | null {
  const watts = load.count * load.wattsEach;
  if (watts <= 0) return null;
  if (load.kind === 'resistive') return volts ** 2 / watts / 12;
  if (load.kind === 'heater') return volts ** 2 / watts;
  return null;
}

/** Resistance of a load at work, ohm; a few hundred where its watts are not known. */
export function warmOhms(load: { count: number; wattsEach: number } | undefined, volts: number): number {
  const watts = load ? load.count * load.wattsEach : 0;
  return watts > 0 ? volts ** 2 / watts : 300;
}

/** What an ohmmeter would show across a load that is there. */
export function loadOutcomes(
  load: { kind: LoadKind; count: number; wattsEach: number },
  volts: number,
): readonly OhmBand[] {
  const ohm = coldOhms(load, volts);
  if (ohm !== null) return [ohmBand(ohm)];
  return conducts(load.kind) ? ['to-50', 'to-2000'] : ['above', 'open'];
}

export function ohmBand(value: number | 'open'): OhmBand {
  if (value === 'open') return 'open';
  if (value <= 1) return 'to-1';
  if (value <= 5) return 'to-5';
  if (value <= 50) return 'to-50';
  return value <= 2000 ? 'to-2000' : 'above';
}

/** @param proved the voltage recorded when the tester was proved, when there is one */
export function voltBand(
  value: number,
  { supply }: Pick<PracticeProfile, 'supply'>,
  proved: number | undefined,
): VoltBand {
  const nominal = proved ?? supply.nominal;
  const [from, to] = proved
    ? [proved * (1 - PROVED_SHARE), proved * (1 + PROVED_SHARE)]
    : [supply.from, supply.to];
  if (value < 3) return 'under-3';
  if (value >= from && value <= to) return 'supply';
  if (value <= nominal * 0.05) return 'to-5%';
  if (value <= nominal * 0.3) return 'to-30%';
  if (value <= nominal * 0.6) return 'to-60%';
  if (value <= nominal * 0.92) return 'to-92%';
  if (supply.lineToLine && value >= supply.lineToLine[0] && value <= supply.lineToLine[1])
    return 'line-to-line';
  return 'other';
}

/** The outcome a value stands for: a band for meters, the word itself otherwise. Null: it cannot count. */
export function outcomeOfValue(
  tool: Tool,
  value: number | string,
  practice: Pick<PracticeProfile, 'supply'>,
  proved: number | undefined,
): string | null {
  if (tool === 'volts' || tool === 'volts-low-z')
    return typeof value === 'number' ? voltBand(value, practice, proved) : null;
  if (tool === 'ohms') return typeof value === 'number' || value === 'open' ? ohmBand(value) : null;
  return String(value);
}

/** What ohms to a reference show of a ground, and of one that is joined to nothing. */
export const GROUND_BANDS: Record<'ground' | 'loose', Readonly<Record<string, number>>> = {
  ground: OHMS.same,
  loose: OHMS.open,
};

/** Of two rows as likely as each other. */
export function evenly<Band extends string>(one: Row<Band>, other: Row<Band>): Row<Band> {
  const mixed: Record<Band, number> = { ...one };
  for (const band in mixed) mixed[band] = (one[band] + other[band]) / 2;
  return mixed;
}
