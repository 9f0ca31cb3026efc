import { LOAD_KINDS, type LoadKind, type WireSize } from '../../terms/trade.js';
import { wireSizeText } from '../../units/wire-size.js';
import { LOAD_WORDS } from '../words.js';
import { ESTIMATE, type RuleFigure } from './figure.js';

/** Room behind a body, and how full a space closes: the same in every practice. */
export const SPACE_FIGURES: readonly RuleFigure[] = [
  {
    id: 'depth.terminals',
    group: 'depth',
    name: 'Room behind a device with terminals only',
    unit: 'mm',
    value: 6,
    source: ESTIMATE,
    setOn: null,
  },
  {
    id: 'depth.leads',
    group: 'depth',
    name: 'Room behind a device with leads',
    unit: 'mm',
    value: 12,
    source: ESTIMATE,
    setOn: null,
  },
  {
    id: 'packing.folded-share',
    group: 'packing',
    name: 'Share of a space that folded conductors fill',
    unit: 'share',
    value: 0.4,
    source: ESTIMATE,
    setOn: null,
  },
  {
    id: 'packing.comfortable',
    group: 'packing',
    name: 'Up to this occupancy a box closes with ease',
    unit: 'share',
    value: 0.75,
    source: ESTIMATE,
    setOn: null,
  },
  {
    id: 'packing.closes',
    group: 'packing',
    name: 'Up to this occupancy a box closes',
    unit: 'share',
    value: 1,
    source: ESTIMATE,
    setOn: null,
  },
];

/** Power factors where nobody gave one. */
export const POWER_FACTORS: Record<LoadKind, number> = {
  led: 0.7,
  resistive: 1,
  heater: 1,
  fluorescent: 0.6,
  magnetic: 0.8,
  electronic: 0.95,
  'fan-ac': 0.6,
  'fan-dc': 0.6,
  'fan-remote': 0.6,
  'exhaust-fan': 0.6,
  receptacle: 1,
  'smart-bulb': 0.7,
  shade: 0.6,
  motor: 0.6,
};

export const LOAD_FIGURES: readonly RuleFigure[] = [
  {
    id: 'loads.margin',
    group: 'loads',
    name: 'Share of a rating to keep to; the limit of motors on a relay',
    unit: 'share',
    value: 0.8,
    source: 'A design margin of this program',
    setOn: null,
  },
  ...LOAD_KINDS.map(
    (kind): RuleFigure => ({
      id: `loads.power-factor.${kind}`,
      group: 'loads',
      name: `Power factor of ${LOAD_WORDS[kind]}, unless it is known`,
      unit: 'count',
      value: POWER_FACTORS[kind],
      source: 'Usual for the kind, an estimate',
      setOn: 'load',
    }),
  ),
];

/** What a two-wire conductor of copper may be protected at, A. */
const COPPER_AMPS: Partial<Record<WireSize, number>> = { '14AWG': 15, '12AWG': 20, '10AWG': 30 };

/** @param source the rule that limits a breaker by its conductor's size */
export function copperFigures(source: string): RuleFigure[] {
  return Object.entries(COPPER_AMPS).map(([size, amps]) => ({
    id: `conductor.amps.${size}`,
    group: 'conductor',
    name: `The breaker that goes with ${wireSizeText(size)} copper`,
    unit: 'A',
    value: amps,
    source,
    setOn: null,
  }));
}
