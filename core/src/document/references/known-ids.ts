import { pointer } from '../../job/pointer.js';
import type { Problem } from '../../job/problem.js';
import type { Device } from '../../job/schema/catalogue.js';
import type { Job } from '../../job/schema/job.js';
import type { Box } from '../../job/schema/survey.js';

export type Path = readonly PropertyKey[];

/** What a file holds by its ids, and what is wrong with the names by which its records know each other. */
export class KnownIds {
  readonly problems: Problem[] = [];
  readonly circuits: Set<string>;
  readonly rooms: Set<string>;
  readonly loads: Set<string>;
  readonly groups: Set<string>;
  readonly hubs: Set<string>;
  readonly parts: Set<string>;
  readonly enclosures: Set<string>;
  readonly platforms: Set<string>;
  readonly devices: Map<string, Device>;
  readonly boxes: Map<string, Box>;

  constructor(readonly job: Job) {
    const ids = (records: readonly { id: string }[]) => new Set(records.map((record) => record.id));
    this.circuits = ids(job.circuits);
    this.rooms = ids(job.rooms);
    this.loads = ids(job.loads);
    this.groups = ids(job.groups);
    this.hubs = ids(job.catalogue.hubs);
    this.parts = ids(job.catalogue.parts);
    this.enclosures = ids(job.catalogue.enclosures);
    this.platforms = new Set(job.catalogue.platforms.map((platform) => platform.name));
    this.devices = new Map(job.catalogue.devices.map((device) => [device.id, device]));
    this.boxes = new Map(job.boxes.map((box) => [box.id, box]));
  }

  error(path: Path, message: string): void {
    this.problems.push({ path: pointer(path), message, severity: 'error' });
  }

  warning(path: Path, message: string): void {
    this.problems.push({ path: pointer(path), message, severity: 'warning' });
  }

  /** @param what the kind of record that the id is of, as it is called in the problem */
  must(known: { has(id: string): boolean }, id: string | null | undefined, path: Path, what: string): void {
    if (id !== undefined && id !== null && !known.has(id))
      this.error(path, `names the ${what} "${id}", which is not in the file`);
  }

  mustAll(
    known: { has(id: string): boolean },
    ids: readonly string[] | undefined,
    path: Path,
    what: string,
  ): void {
    ids?.forEach((id, index) => {
      this.must(known, id, [...path, index], what);
    });
  }

  /** A box and a position in it. */
  mustPlace(place: { boxId?: string | undefined; position?: number | undefined }, path: Path): void {
    this.must(this.boxes, place.boxId, [...path, 'boxId'], 'box');
    const box = this.boxes.get(place.boxId ?? '');
    if (
      box &&
      place.position !== undefined &&
      !box.positions.some((position) => position.index === place.position)
    )
      this.error(
        [...path, 'position'],
        `names position ${place.position}, which the box "${box.id}" does not have`,
      );
  }
}
