import type { Load } from '../job/schema/job.js';
import { POWER_FACTORS } from '../practice/figures/general.js';

export interface Demand {
  watts: number;
  voltAmperes: number;
  amps: number;
  powerFactor: number;
}

/** What a load draws: count times watts each, VA by its power factor, A by the circuit's volts. */
export function demand(load: Load, volts: number): Demand {
  const watts = load.count * load.wattsEach;
  const powerFactor = load.powerFactor ?? POWER_FACTORS[load.kind];
  const voltAmperes = watts / powerFactor;
  return { watts, voltAmperes, amps: volts > 0 ? voltAmperes / volts : 0, powerFactor };
}
