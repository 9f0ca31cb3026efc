import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box, Label, Position } from '../job/schema/survey.js';

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

/** A label as the installer sets it by hand, with what the role asks for beside it. */
export function labelFor(
  conductorId: string,
  role: Role,
  context: { loadIds: string[]; circuitIds: string[]; groupId?: string; traveler?: number },
): Label {
  const circuit = context.circuitIds.length === 1 ? context.circuitIds[0] : undefined;
  switch (role) {
    case 'load':
      return { conductorId, role, ...(context.loadIds.length > 0 ? { loadIds: context.loadIds } : {}) };
    case 'line':
    case 'line-on':
    case 'neutral':
      return { conductorId, role, ...(circuit ? { circuitId: circuit } : {}) };
    case 'traveler':
      return {
        conductorId,
        role,
        ...(context.groupId ? { groupId: context.groupId } : {}),
        ...(context.traveler ? { traveler: context.traveler } : {}),
      };
    default:
      return { conductorId, role };
  }
}
