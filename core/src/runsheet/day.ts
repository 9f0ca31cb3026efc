import { settledBox } from '../identify/settled.js';
import { untoldCores } from '../job/conductors.js';
import { mountedBoxes } from '../job/events.js';
import type { JobLookup } from '../job/lookup.js';
import type { Box } from '../job/schema/survey.js';
import { boxesFed } from './feeds.js';
import type { DayToPlan, WorkUnit } from './vocabulary.js';

export const USUAL_OPEN_AT_ONCE = 4;
const NONE: ReadonlySet<string> = new Set();

/** What is still to be worked on, as the job has it. @param without boxes that are in hand already */
export function dayOf(known: JobLookup, without: ReadonlySet<string> = NONE): DayToPlan {
  const { job } = known;
  const units = unitsToDo(known, without);
  const fed = boxesFed(known);
  const feeds = (one: WorkUnit, other: WorkUnit) =>
    one.boxIds.some((id) => other.boxIds.some((next) => fed.get(id)?.has(next)));
  const apart: [number, number][] = [];
  units.forEach((one, at) => {
    for (let next = at + 1; next < units.length; next++) {
      const other = units[next] as WorkUnit;
      if (feeds(one, other) || feeds(other, one)) apart.push([at, next]);
    }
  });
  return {
    units,
    apart,
    openAtOnce: job.run?.openAtOnce ?? USUAL_OPEN_AT_ONCE,
    testBeforeFold: job.run?.testBeforeFold ?? true,
    room: new Map(
      job.boxes.map(({ id, roomId }) => [id, { roomId, floor: known.rooms.get(roomId)?.floor ?? 0 }]),
    ),
  };
}

/** Boxes with a chosen device that are not closed yet, those that groups bind together as one. */
function unitsToDo(known: JobLookup, without: ReadonlySet<string>): WorkUnit[] {
  const { job } = known;
  const mounted = mountedBoxes(job);
  const chosen = new Set(job.selections.flatMap(({ boxId, deviceId }) => (deviceId === null ? [] : [boxId])));
  const open = job.boxes.filter(({ id }) => chosen.has(id) && !mounted.has(id) && !without.has(id));
  // Groups that share a box are one, though that box may be done.
  const bundle = new Map<string, string>();
  const find = (id: string): string => {
    const up = bundle.get(id);
    return up === undefined ? id : find(up);
  };
  for (const { places } of job.groups)
    for (const { boxId } of places.slice(1)) {
      const [a, b] = [find(places[0]?.boxId ?? boxId), find(boxId)];
      if (a !== b) bundle.set(b, a);
    }
  const byUnit = new Map<string, Box[]>();
  for (const box of open) byUnit.set(find(box.id), [...(byUnit.get(find(box.id)) ?? []), box]);
  return [...byUnit.values()].map((boxes) => unitOf(boxes, known));
}

function unitOf(boxes: readonly Box[], known: JobLookup): WorkUnit {
  const circuitIds = [...new Set(boxes.flatMap((box) => box.circuitIds))];
  return {
    boxIds: boxes.map(({ id }) => id),
    circuitIds,
    panels: [...new Set(circuitIds.flatMap((id) => known.circuits.get(id)?.panel ?? []))],
    needsCheck: boxes.some((box) => untoldCores(settledBox(box, known).box).length > 0),
  };
}
