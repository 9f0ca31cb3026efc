import { type JobLookup, placeKey } from '../job/lookup.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Room } from '../job/schema/job.js';

/**
 * How far one mesh device hears the next: metres on the plan, and floors apart at which it no longer counts
 * as near.
 */
const REACH = { metres: 12, floors: 2 };

type Spot = { floor: number; x: number; y: number };

export interface MeshReach {
  /** Metres and floors to the nearest hub or repeater that is itself in reach. */
  metres: number;
  floors: number;
  near: boolean;
}

/**
 * Whether a mesh device in a room is near its hub or a mains repeater planned elsewhere that is itself in
 * reach.
 *
 *     hub ──9 m── repeater ──11 m── here      near: one hop at a time
 *     hub ────────20 m───────────── here      far: a warning
 *
 * @param without places whose planned devices do not count, by place key
 * @returns null where the hub's room or the rooms' places on the plan are not known
 */
export function meshReach(
  room: Room,
  device: Device,
  known: JobLookup,
  without: ReadonlySet<string>,
): MeshReach | null {
  const { job } = known;
  const here = spotOf(room);
  const hub = spotOf(known.rooms.get(job.brief?.hubRooms?.[device.hubId ?? ''] ?? ''));
  if (!here || !hub) return null;
  const reached: Spot[] = [hub];
  let waiting = repeaterSpots(device.hubId, known, without);
  for (let grown = true; grown; ) {
    const next = waiting.filter((spot) => reached.some((other) => near(spot, other)));
    reached.push(...next);
    waiting = waiting.filter((spot) => !next.includes(spot));
    grown = next.length > 0;
  }
  const nearest = reached.reduce((best, spot) => (apart(here, spot) < apart(here, best) ? spot : best));
  return {
    metres: metresApart(here, nearest),
    floors: Math.abs(here.floor - nearest.floor),
    near: reached.some((spot) => near(here, spot)),
  };
}

function repeaterSpots(hubId: string | undefined, known: JobLookup, without: ReadonlySet<string>): Spot[] {
  return known.job.selections.flatMap((selection) => {
    const device = known.devices.get(selection.deviceId ?? '');
    const repeats =
      device?.repeater &&
      device.hubId === hubId &&
      !without.has(placeKey(selection.boxId, selection.position));
    return (repeats && spotOf(known.rooms.get(known.boxes.get(selection.boxId)?.roomId ?? ''))) || [];
  });
}

function spotOf(room: Room | undefined): Spot | undefined {
  return room?.plan && { floor: room.floor, x: room.plan.x, y: room.plan.y };
}

const metresApart = (a: Spot, b: Spot) => Math.hypot(a.x - b.x, a.y - b.y);
/** Floors weigh as a reach's share, so that the nearest is the one most likely to be heard. */
const apart = (a: Spot, b: Spot) =>
  metresApart(a, b) / REACH.metres + Math.abs(a.floor - b.floor) / REACH.floors;
const near = (a: Spot, b: Spot) =>
  metresApart(a, b) <= REACH.metres && Math.abs(a.floor - b.floor) < REACH.floors;
