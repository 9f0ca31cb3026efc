import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import type { ConfirmedRole } from '../power/instant.js';
import { KeptWhile } from '../units/kept.js';
import type { IdentifiedConductor } from './answer.js';
import { rolesOfBox } from './identify.js';
import { identificationRestsOn, isSameBasis, type RestsOn } from './rests-on.js';

/** What an identification confirms, by conductor. */
export function confirmedIn(identified: {
  conductors: readonly IdentifiedConductor[];
}): ReadonlyMap<string, ConfirmedRole> {
  return new Map(
    identified.conductors.flatMap(({ id, role, grade, circuitId, loadIds, because }) =>
      grade === 'confirmed' ? [[id, { role, circuitId, loadIds, because }] as const] : [],
    ),
  );
}

const kept = new KeptWhile<Box['readings'], ReadonlyMap<string, ConfirmedRole>, RestsOn>((before, now) =>
  isSameBasis(before, now, 'roles'),
);

/**
 * What the readings of a box confirm, worked out anew only where something it rests on is another. A box
 * without readings confirms nothing.
 */
export function confirmedRoles(box: Box, known: JobLookup): ReadonlyMap<string, ConfirmedRole> {
  if (box.readings.length === 0) return NOTHING;
  return kept.of(box.readings, identificationRestsOn(box, known), () =>
    confirmedIn({ conductors: rolesOfBox(box, known) }),
  );
}

const NOTHING: ReadonlyMap<string, ConfirmedRole> = new Map();
