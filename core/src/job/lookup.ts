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

const conductorMaps = new WeakMap<Box['conductors'], ReadonlyMap<string, Box['conductors'][number]>>();

export function conductorsById(box: Box): ReadonlyMap<string, Box['conductors'][number]> {
  let conductors = conductorMaps.get(box.conductors);
  if (!conductors) {
    conductors = new Map(box.conductors.map((conductor) => [conductor.id, conductor]));
    conductorMaps.set(box.conductors, conductors);
  }
  return conductors;
}

const labelMaps = new WeakMap<readonly Label[], ReadonlyMap<string, Label>>();

/** Labels by conductor. */
export function labelsOf(box: Box): ReadonlyMap<string, Label> {
  let labels = labelMaps.get(box.labels);
  if (!labels) {
    labels = new Map(box.labels.map((label) => [label.conductorId, label]));
    labelMaps.set(box.labels, labels);
  }
  return labels;
}

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
