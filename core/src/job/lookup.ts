import { perObject } from '../units/kept.js';
import type { Device, Hub } from './schema/catalogue.js';
import type { Circuit, Group, Job, Load, Room, Selection } from './schema/job.js';
import type { Box, Label, Position } from './schema/survey.js';

/** A job with its records findable by id. Made once per job; every engine's adapter takes it. */
export interface JobLookup {
  job: Job;
  devices: ReadonlyMap<string, Device>;
  hubs: ReadonlyMap<string, Hub>;
  loads: ReadonlyMap<string, Load>;
  circuits: ReadonlyMap<string, Circuit>;
  rooms: ReadonlyMap<string, Room>;
  boxes: ReadonlyMap<string, Box>;
  /** By {@link placeKey}. */
  selections: ReadonlyMap<string, Selection>;
  /** The group a place belongs to, by {@link placeKey}. */
  groups: ReadonlyMap<string, Group>;
}

export function placeKey(boxId: string, position: number): string {
  return `${boxId}/${position}`;
}

export function lookup(job: Job): JobLookup {
  const byId = <Entry extends { id: string }>(records: readonly Entry[]) =>
    new Map(records.map((record) => [record.id, record]));
  return {
    job,
    devices: byId(job.catalogue.devices),
    hubs: byId(job.catalogue.hubs),
    loads: byId(job.loads),
    circuits: byId(job.circuits),
    rooms: byId(job.rooms),
    boxes: byId(job.boxes),
    selections: new Map(
      job.selections.map((selection) => [placeKey(selection.boxId, selection.position), selection]),
    ),
    groups: new Map(
      job.groups.flatMap((group) =>
        group.places.map((place) => [placeKey(place.boxId, place.position), group] as const),
      ),
    ),
  };
}

const byId = perObject(
  (conductors: Box['conductors']): ReadonlyMap<string, Box['conductors'][number]> =>
    new Map(conductors.map((conductor) => [conductor.id, conductor])),
);

export const conductorsById = (box: Box) => byId(box.conductors);

const byConductor = perObject(
  (labels: readonly Label[]): ReadonlyMap<string, Label> =>
    new Map(labels.map((label) => [label.conductorId, label])),
);

/** Labels by conductor. */
export const labelsOf = (box: Box) => byConductor(box.labels);

export function boxesOfRoom(job: Job, roomId: string): Box[] {
  return job.boxes.filter((box) => box.roomId === roomId).sort((a, b) => a.order - b.order);
}

/** Rooms in walking order: by floor, then by their order, then by name. */
export function roomsInOrder(job: Job): Room[] {
  return [...job.rooms].sort(
    (a, b) => a.floor - b.floor || a.order - b.order || a.name.localeCompare(b.name),
  );
}

/** Positions that want a smart device. */
export function wantsSmart(position: Position): boolean {
  return position.need?.smart === true;
}
