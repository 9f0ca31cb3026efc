import { mountedBoxes } from '../job/events.js';
import { lookup, placeKey } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';

/**
 * Places whose device is chosen and mounted, and every place of a group with one: a later plan does not
 * replace an earlier one.
 *
 * @returns place keys
 */
export function standingPlaces(job: Job): Set<string> {
  const mounted = mountedBoxes(job);
  const { groups } = lookup(job);
  const standing = new Set<string>();
  for (const { boxId, position } of job.selections) {
    if (!mounted.has(boxId)) continue;
    standing.add(placeKey(boxId, position));
    for (const place of groups.get(placeKey(boxId, position))?.places ?? [])
      standing.add(placeKey(place.boxId, place.position));
  }
  return standing;
}

/**
 * The job with only what is still open to be planned: what stands keeps its choice, draws on the router, and
 * has its hub.
 */
export function stillOpen(job: Job): Job {
  const standing = standingPlaces(job);
  if (standing.size === 0) return job;
  const devices = new Map(job.catalogue.devices.map((device) => [device.id, device]));
  const hubs = job.selections.flatMap((selection) =>
    standing.has(placeKey(selection.boxId, selection.position))
      ? (devices.get(selection.deviceId ?? '')?.hubId ?? [])
      : [],
  );
  return {
    ...job,
    brief: { ...job.brief, hubsOwned: [...new Set([...(job.brief?.hubsOwned ?? []), ...hubs])] },
    boxes: job.boxes.map((box) =>
      box.positions.some((position) => standing.has(placeKey(box.id, position.index)))
        ? {
            ...box,
            positions: box.positions.map((position) =>
              standing.has(placeKey(box.id, position.index))
                ? { ...position, need: { ...position.need, smart: false } }
                : position,
            ),
          }
        : box,
    ),
  };
}
