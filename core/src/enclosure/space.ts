import { WIRE } from '../practice/wire.js';
import { rounded } from '../units/volume.js';
import type { BoxContents } from './contents.js';

export interface DepthResult {
  availableMm: number | null;
  neededMm: number;
  verdict: 'fits' | 'too-deep' | 'unknown';
  /** The deepest position and how its need adds up; null in a box without devices. */
  deepest: { position: number; bodyMm: number; clearanceMm: number } | null;
}

/**
 * Depth behind the finished face: an estimate, not a code rule. The deepest position decides.
 *
 *      finished face
 *      |<-setBack->|<-ring->|<--------- depth --------->|   available = setBack + rings + depth
 *      |           +--------+---------------------------+
 *      |############################|/////////|         |
 *      |<---------- body ---------->|clearance|         |   needed = body + clearance
 *      |           +--------+---------------------------+
 */
export function depth(contents: BoxContents): DepthResult {
  let deepest: DepthResult['deepest'] = null;
  for (const strap of contents.straps)
    for (const { position, body, clearance } of strap.bodies)
      if (deepest === null || body.depth + clearance > deepest.bodyMm + deepest.clearanceMm)
        deepest = { position, bodyMm: body.depth, clearanceMm: clearance };
  const neededMm = deepest === null ? 0 : deepest.bodyMm + deepest.clearanceMm;
  const availableMm = contents.availableDepth;
  const verdict = availableMm === null ? 'unknown' : neededMm > availableMm + 1e-9 ? 'too-deep' : 'fits';
  return { availableMm, neededMm, verdict, deepest };
}

export interface PackingResult {
  occupancy: number | null;
  verdict: 'comfortable' | 'tight' | 'will-not-close' | 'unknown';
  /** What the occupied volume is made of, mL. */
  shares: { bodiesMl: number; connectorsMl: number; conductorsMl: number };
}

/** How full the box is with bodies, connectors and folded conductors: an estimate, not a code rule. */
export function packing(contents: BoxContents): PackingResult {
  const { foldedShare, comfortable, closes } = contents.figures.packing;
  const bodiesMl = contents.straps
    .flatMap((strap) => strap.bodies)
    .reduce((sum, { body }) => sum + (body.width * body.height * body.depth) / 1000, 0);
  const connectorsMl = contents.connectors.reduce((sum, connector) => sum + connector.ml, 0);
  const wires = [
    ...contents.conductors.map(({ size, length, bare }) =>
      wireMl(bare ? WIRE[size].bare : WIRE[size].diameter, length),
    ),
    ...contents.leads.map(({ size, length }) => wireMl(WIRE[size].diameter, length)),
  ];
  const conductorsMl = wires.reduce((sum, ml) => sum + ml, 0) / foldedShare;
  const shares = { bodiesMl, connectorsMl, conductorsMl };
  const capacity = contents.capacity.ml;
  if (capacity === null || capacity === 0) return { occupancy: null, verdict: 'unknown', shares };
  const occupancy = (bodiesMl + connectorsMl + conductorsMl) / capacity;
  const verdict =
    occupancy <= comfortable + 1e-9 ? 'comfortable' : occupancy <= closes + 1e-9 ? 'tight' : 'will-not-close';
  return { occupancy: rounded(occupancy, 4), verdict, shares };
}

/** Volume of a piece of wire, mL; diameter and length in mm. */
export function wireMl(diameter: number, length: number): number {
  return ((Math.PI / 4) * diameter ** 2 * length) / 1000;
}
