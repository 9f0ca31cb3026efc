import { isFromOutside } from '../job/conductors.js';
import { figuresInUse } from '../job/figures.js';
import { labelsOf } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Box } from '../job/schema/survey.js';
import { copperAmpsOf, isGround } from '../practice/wire.js';
import type { WireSize } from '../terms/trade.js';

/** A core that its breaker would let be overloaded. */
export interface SmallConductor {
  conductorId: string;
  circuitId: string;
  size: WireSize;
  /** What it may be protected at. */
  amps: number;
}

/**
 * Cores smaller than the breaker of their circuit asks for: by the label's circuit, else by the box's only
 * one. Grounds and pieces made in the box are left out; none where the practice has no such rule.
 */
export function smallConductors(box: Box, job: Job): SmallConductor[] {
  const { copperAmps } = figuresInUse(job);
  if (Object.keys(copperAmps).length === 0) return [];
  const labels = labelsOf(box);
  const lent = box.circuitIds.length === 1 ? box.circuitIds[0] : undefined;
  return box.conductors.flatMap((conductor) => {
    const label = labels.get(conductor.id);
    if (!isFromOutside(conductor) || isGround(conductor, label)) return [];
    const circuit = job.circuits.find(({ id }) => id === (label?.circuitId ?? lent));
    const amps = copperAmpsOf(conductor.size, copperAmps);
    return circuit && amps < circuit.amps
      ? [{ conductorId: conductor.id, circuitId: circuit.id, size: conductor.size, amps }]
      : [];
  });
}
