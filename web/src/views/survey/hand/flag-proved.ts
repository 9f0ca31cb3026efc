import { type Box, type JobLookup, type Label, labelContext, labelFor } from '@inventario/core';
import type { Identified } from '../../../data/engines.worker.js';

/**
 * The labels of a box with those of proved conductors added, each with the load or circuit the readings name.
 * Travelers are numbered in the order of the drawing, after those that have a number.
 */
export function flagProved(
  box: Box,
  known: JobLookup,
  said: Identified['conductors'],
  conductorIds: readonly string[],
): Label[] {
  let traveler = Math.max(0, ...box.labels.map((label) => label.traveler ?? 0));
  const made = said
    .filter(({ id }) => conductorIds.includes(id))
    .map(({ id, role, loadIds, circuitId }): Label => {
      const context = labelContext(box, id, known);
      if (role === 'traveler') traveler += 1;
      return labelFor(id, role, {
        loadIds: loadIds.length > 0 ? loadIds : context.loadIds,
        circuitIds: circuitId ? [circuitId] : context.circuitIds,
        ...(context.groupId ? { groupId: context.groupId } : {}),
        ...(role === 'traveler' ? { traveler } : {}),
      });
    });
  return [...box.labels.filter(({ conductorId }) => !conductorIds.includes(conductorId)), ...made];
}
