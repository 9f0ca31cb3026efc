import { tripsAtLeast } from './bound.js';
import { Costs, shared, tripsAtPanel, tripsOf } from './cost.js';
import { bestPartition } from './exact.js';
import { goodPartition } from './search.js';
import type { Batch, DayPlan, DayToPlan, WorkUnit } from './vocabulary.js';

/** So many units are put together in the best way there is; more in a good one, with the gap said. */
const EXACT_UNITS = 14;

/** Days planned last, by all they are planned from: an edit elsewhere in the job plans nothing anew. */
const planned = new Map<string, DayPlan>();
const MOST_KEPT = 8;

/** The day with the fewest trips to the panels. */
export function planDay(day: DayToPlan): DayPlan {
  const key = JSON.stringify([day, [...day.room]]);
  const kept = planned.get(key);
  if (kept) return kept;
  const plan = planAnew(day);
  planned.set(key, plan);
  for (const old of [...planned.keys()].slice(0, -MOST_KEPT)) planned.delete(old);
  return plan;
}

function planAnew(day: DayToPlan): DayPlan {
  const costs = new Costs(day);
  const isExact = day.units.length <= EXACT_UNITS;
  const partition = isExact ? bestPartition(costs) : goodPartition(costs);
  return planOf(partition, costs, isExact);
}

/** What a partition of the units into batches, in this order, comes to. */
export function planOf(partition: readonly (readonly number[])[], costs: Costs, isBest = false): DayPlan {
  const { day } = costs;
  const batches = partition.map((members) => batchOf(members, costs));
  const before = partition.map((members) => costs.of(members));
  const joined = before.reduce(
    (sum, { panels }, at) =>
      sum + (at === 0 ? 0 : shared((before[at - 1] as (typeof before)[number]).panels, panels)),
    0,
  );
  const panelTrips = batches.reduce((sum, batch) => sum + batch.panelTrips, 0) - joined;
  const boxByBoxTrips = day.units.reduce((sum, _, unit) => sum + tripsOf(costs.of([unit]).weight), 0);
  return {
    batches,
    panelTrips,
    boxByBoxTrips,
    lowerBound: isBest ? panelTrips : Math.min(panelTrips, tripsAtLeast(costs)),
  };
}

function batchOf(members: readonly number[], { day }: Costs): Batch {
  const units = members.map((unit) => day.units[unit] as WorkUnit);
  const panels = [...new Set(units.flatMap((unit) => unit.panels))];
  const needsCheck = units.some((unit) => unit.needsCheck);
  return {
    boxIds: inWalkingOrder(
      units.flatMap(({ boxIds }) => boxIds),
      day,
    ),
    circuitIds: [...new Set(units.flatMap(({ circuitIds }) => circuitIds))],
    panels,
    needsCheck,
    panelTrips: panels.length * tripsAtPanel(needsCheck, day.testBeforeFold),
  };
}

/** Floor by floor, room by room, in the order they first come. */
function inWalkingOrder(boxIds: readonly string[], { room }: DayToPlan): string[] {
  const floors = new Map<number, Map<string, string[]>>();
  for (const id of boxIds) {
    const { roomId, floor } = room.get(id) ?? { roomId: '', floor: 0 };
    const rooms = floors.get(floor) ?? new Map<string, string[]>();
    rooms.set(roomId, [...(rooms.get(roomId) ?? []), id]);
    floors.set(floor, rooms);
  }
  return [...floors.values()].flatMap((rooms) => [...rooms.values()].flat());
}
