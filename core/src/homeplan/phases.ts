import { type JobLookup, placeKey, roomsInOrder } from '../job/lookup.js';
import { minutesOf } from './units.js';
import type { HousePlan, PlanChoice } from './vocabulary.js';

/** Rooms done together, with what has to be bought for them. Minor units. */
export interface Phase {
  roomIds: string[];
  places: number;
  devices: number;
  parts: number;
  /** Hubs that this phase is the first to need. */
  hubIds: string[];
  hubs: number;
  labour: number;
  total: number;
  /** With all phases before it. */
  sum: number;
  /** Null without a budget. */
  withinBudget: boolean | null;
}

/**
 * A plan room by room. Every device is the one it will have for good, so that nothing bought early is
 * replaced; rooms that lights worked from several places tie together are done in one; what asks for a
 * further hub waits until all that does not is done.
 */
export function phasesOf(plan: HousePlan, known: JobLookup): Phase[] {
  const { job } = known;
  const rooms = roomsInOrder(job).map((room) => room.id);
  const waiting = tiedRooms(plan.choices, known)
    .map((own) => ({
      rooms: rooms.filter((id) => own.has(id)),
      choices: plan.choices.filter((choice) => own.has(roomOf(choice, known))),
    }))
    .filter((phase) => phase.choices.length > 0)
    .sort((a, b) => rooms.indexOf(a.rooms[0] ?? '') - rooms.indexOf(b.rooms[0] ?? ''));
  const bought = new Set(job.brief?.hubsOwned ?? []);
  const phases: Phase[] = [];
  let [sum, minutes, labourSoFar] = [0, 0, 0];
  while (waiting.length > 0) {
    const next = waiting.reduce((least, phase) =>
      newHubs(phase.choices, bought, known).length < newHubs(least.choices, bought, known).length
        ? phase
        : least,
    );
    waiting.splice(waiting.indexOf(next), 1);
    const hubIds = newHubs(next.choices, bought, known);
    for (const id of hubIds) bought.add(id);
    const chosen = next.choices.flatMap((choice) => known.devices.get(choice.deviceId ?? '') ?? []);
    const devices = chosen.reduce((total, device) => total + device.price, 0);
    const partIds = next.choices.flatMap((choice) => choice.with);
    const parts = partIds.reduce(
      (total, id) => total + (job.catalogue.parts.find((part) => part.id === id)?.price ?? 0),
      0,
    );
    const hubs = hubIds.reduce((total, id) => total + (known.hubs.get(id)?.price ?? 0), 0);
    minutes += chosen.reduce((total, device) => total + minutesOf(device, job), 0);
    // Labour is rounded over the whole plan; a phase takes what the sum grows by.
    const labour = Math.floor((minutes * (job.money?.labourPerHour ?? 0)) / 60 + 0.5) - labourSoFar;
    labourSoFar += labour;
    const total = devices + parts + hubs + labour;
    sum += total;
    const budget = job.brief?.budget;
    phases.push({
      roomIds: next.rooms,
      places: next.choices.length,
      devices,
      parts,
      hubIds,
      hubs,
      labour,
      total,
      sum,
      withinBudget: budget === undefined ? null : sum <= budget,
    });
  }
  return phases;
}

function roomOf(choice: PlanChoice, known: JobLookup): string {
  return known.boxes.get(choice.boxId)?.roomId ?? '';
}

function tiedRooms(choices: readonly PlanChoice[], known: JobLookup): Set<string>[] {
  let tied: Set<string>[] = [];
  for (const choice of choices) {
    const group = known.groups.get(placeKey(choice.boxId, choice.position));
    const own = new Set([
      roomOf(choice, known),
      ...(group?.places ?? []).map((place) => known.boxes.get(place.boxId)?.roomId ?? ''),
    ]);
    const touched = tied.filter((rooms) => [...own].some((id) => rooms.has(id)));
    tied = [
      ...tied.filter((rooms) => !touched.includes(rooms)),
      new Set([...own, ...touched.flatMap((rooms) => [...rooms])]),
    ];
  }
  return tied;
}

function newHubs(choices: readonly PlanChoice[], bought: ReadonlySet<string>, known: JobLookup): string[] {
  const ids = choices.flatMap((choice) => known.devices.get(choice.deviceId ?? '')?.hubId ?? []);
  return [...new Set(ids)].filter((id) => !bought.has(id));
}
