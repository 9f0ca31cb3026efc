import type { JobLookup } from '../job/lookup.js';

/**
 * The circuits the client's router may hang on: its own where the brief names one, else those of the boxes
 * with a socket in its room. None: nothing is known of it.
 */
export function routerCircuits({ job, loads }: JobLookup): string[] {
  const { routerCircuit, routerRoom } = job.brief?.wifi ?? {};
  if (routerCircuit) return [routerCircuit];
  const boxes = job.boxes.filter(
    ({ roomId, positions }) =>
      roomId === routerRoom &&
      positions.some(
        ({ existing, loadIds }) =>
          existing === 'receptacle' || loadIds.some((id) => loads.get(id)?.kind === 'receptacle'),
      ),
  );
  return [...new Set(boxes.flatMap(({ circuitIds }) => circuitIds))];
}
