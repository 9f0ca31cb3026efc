import { isGround, looksLikeGround } from '../practice/wire.js';
import { labelsOf } from './lookup.js';
import type { Box, Conductor } from './schema/survey.js';

/** Whether it comes from outside by a cable; what does not was made in the box, a pigtail or a jumper. */
export function isFromOutside(conductor: Pick<Conductor, 'cableId'>): boolean {
  return conductor.cableId !== undefined;
}

/** Aluminium, or copper-clad: both creep under a screw, and no connector of the trade takes them. */
export function isAluminium(conductor: Pick<Conductor, 'material'>): boolean {
  return conductor.material === 'aluminium' || conductor.material === 'copper-clad';
}

/**
 * Conductors from outside whose free end is in this box, grounds aside: what a lead or an indicator reaches.
 */
export function reachableCores(box: Box): Conductor[] {
  const labels = labelsOf(box);
  return box.conductors.filter(
    (conductor) =>
      isFromOutside(conductor) &&
      conductor.unbroken !== true &&
      !isGround(conductor, labels.get(conductor.id)),
  );
}

/** Conductors from outside that no label tells; grounds by colour aside. A label `unknown` tells nothing. */
export function untoldCores(box: Box): Conductor[] {
  const labels = labelsOf(box);
  return box.conductors.filter((conductor) => {
    const role = labels.get(conductor.id)?.role ?? 'unknown';
    return isFromOutside(conductor) && !looksLikeGround(conductor) && role === 'unknown';
  });
}
