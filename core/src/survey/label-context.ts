import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Box, Position } from '../job/schema/survey.js';

/** What a label of a conductor can name beside its role. The first of each is the likely one. */
export interface LabelContext {
  loadIds: string[];
  circuitIds: string[];
  groupId: string | undefined;
}

/**
 * What belongs to a conductor by where it ends: the loads and the group of the position whose terminal it is
 * on, directly or by a tail from its joint; of a box with one position, that one's. Circuits are the box's.
 */
export function labelContext(box: Box, conductorId: string, known: JobLookup): LabelContext {
  const position =
    positionOf(box, conductorId) ?? (box.positions.length === 1 ? box.positions[0] : undefined);
  const group = position && known.groups.get(placeKey(box.id, position.index));
  const groups = new Set(
    box.positions.flatMap((other) => known.groups.get(placeKey(box.id, other.index))?.id ?? []),
  );
  return {
    loadIds: position ? position.loadIds : [...new Set(box.positions.flatMap((other) => other.loadIds))],
    circuitIds: box.circuitIds,
    groupId: group?.id ?? (groups.size === 1 ? [...groups][0] : undefined),
  };
}

function positionOf(box: Box, conductorId: string): Position | undefined {
  const conductor = box.conductors.find((entry) => entry.id === conductorId);
  const at = conductor?.at;
  if (!at) return undefined;
  const tails =
    at.joint === undefined
      ? []
      : box.conductors.filter((entry) => entry.ends?.some((end) => end.joint === at.joint));
  const indexes = new Set(
    [at, ...tails.flatMap((tail) => tail.ends ?? [])].flatMap((end) => end.position ?? []),
  );
  for (const position of box.positions)
    if (at.joint !== undefined && position.leads?.some((lead) => lead.at.joint === at.joint))
      indexes.add(position.index);
  return indexes.size === 1 ? box.positions.find((position) => indexes.has(position.index)) : undefined;
}
