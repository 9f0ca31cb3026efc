import type { Load } from '../job/schema/job.js';
import type { LoadKind } from '../job/schema/primitives.js';

/** Power factors where nobody gave one. */
export const POWER_FACTOR: Record<LoadKind, number> = {
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

export interface Demand {
  watts: number;
  voltAmperes: number;
  amps: number;
  powerFactor: number;
}

/** What a load draws: count times watts each, VA by its power factor, A by the circuit's volts. */
export function demand(load: Load, volts: number): Demand {
  const watts = load.count * load.wattsEach;
  const powerFactor = load.powerFactor ?? POWER_FACTOR[load.kind];
  const voltAmperes = watts / powerFactor;
  return { watts, voltAmperes, amps: volts > 0 ? voltAmperes / volts : 0, powerFactor };
}
