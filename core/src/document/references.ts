import { ruleFigures } from '../job/figures.js';
import { pointer } from '../job/pointer.js';
import type { Problem } from '../job/problem.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { Box, Reading } from '../job/schema/survey.js';
import { isKnownTerminal } from '../job/terminals.js';
import { profileOf } from '../practice/profiles.js';

type Path = readonly PropertyKey[];

/**
 * What the shapes alone cannot tell: ids used twice, references to nothing, terminals a device does not have.
 * Expects a document the schema has accepted. Problems come in document order of their kind.
 */
export function referenceProblems(job: Job): Problem[] {
  return new ReferenceCheck(job).run();
}

/** What of one box may be named within it. */
interface OwnIds {
  box: Box;
  cables: ReadonlySet<string>;
  joints: ReadonlySet<string>;
  conductors: ReadonlySet<string>;
  positions: ReadonlyMap<number, Box['positions'][number]>;
}

class ReferenceCheck {
  private readonly problems: Problem[] = [];
  private readonly seen = new Map<string, string>();
  private readonly circuits: Set<string>;
  private readonly rooms: Set<string>;
  private readonly loads: Set<string>;
  private readonly groups: Set<string>;
  private readonly hubs: Set<string>;
  private readonly parts: Set<string>;
  private readonly enclosures: Set<string>;
  private readonly platforms: Set<string>;
  private readonly devices: Map<string, Device>;
  private readonly boxes: Map<string, Box>;

  constructor(private readonly job: Job) {
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

  run(): Problem[] {
    this.uniqueIds();
    this.records();
    this.job.boxes.forEach((box, index) => {
      this.box(box, ['boxes', index]);
    });
    this.catalogue();
    this.overrides();
    return this.problems;
  }

  private error(path: Path, message: string): void {
    this.problems.push({ path: pointer(path), message, severity: 'error' });
  }

  private warning(path: Path, message: string): void {
    this.problems.push({ path: pointer(path), message, severity: 'warning' });
  }

  private claim(id: string | undefined, path: Path): void {
    if (id === undefined) return;
    const first = this.seen.get(id);
    if (first === undefined) this.seen.set(id, pointer(path));
    else this.error(path, `uses the id "${id}" a second time; it stands at ${first} already`);
  }

  private uniqueIds(): void {
    const { job } = this;
    this.claim(job.id, ['id']);
    const claimAll = (path: Path, records: readonly { id?: string }[] | undefined) =>
      records?.forEach((record, index) => {
        this.claim(record.id, [...path, index, 'id']);
      });
    claimAll(['circuits'], job.circuits);
    claimAll(['rooms'], job.rooms);
    claimAll(['loads'], job.loads);
    job.boxes.forEach((box, index) => {
      this.claim(box.id, ['boxes', index, 'id']);
      for (const part of ['cables', 'conductors', 'joints', 'readings'] as const)
        claimAll(['boxes', index, part], box[part]);
    });
    for (const part of [
      'runs',
      'groups',
      'controlPoints',
      'things',
      'pairings',
      'hubs',
      'accounts',
      'automations',
      'events',
      'photos',
    ] as const)
      claimAll([part], job[part]);
    job.pairings.forEach((pairing, index) => {
      claimAll(['pairings', index, 'attempts'], pairing.attempts);
    });
    for (const part of ['devices', 'hubs', 'parts', 'connectors', 'enclosures'] as const)
      claimAll(['catalogue', part], job.catalogue[part]);
    const names = new Set<string>();
    job.catalogue.platforms.forEach((platform, index) => {
      if (names.has(platform.name))
        this.error(
          ['catalogue', 'platforms', index, 'name'],
          `names the platform "${platform.name}" a second time`,
        );
      names.add(platform.name);
    });
  }

  private must(
    known: { has(id: string): boolean },
    id: string | null | undefined,
    path: Path,
    what: string,
  ): void {
    if (id !== undefined && id !== null && !known.has(id))
      this.error(path, `names the ${what} "${id}", which is not in the file`);
  }

  private mustAll(
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
  private place(place: { boxId?: string | undefined; position?: number | undefined }, path: Path): void {
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

  private records(): void {
    const { job } = this;
    if (job.edition !== undefined && !profileOf(job).editions)
      this.warning(['edition'], `is not used: the practice "${job.practice}" has one edition`);
    this.brief(job.brief);
    job.circuits.forEach((circuit, index) => {
      this.mustAll(
        this.circuits,
        circuit.sharesNeutralWith,
        ['circuits', index, 'sharesNeutralWith'],
        'circuit',
      );
    });
    job.loads.forEach((load, index) => {
      this.must(this.rooms, load.roomId, ['loads', index, 'roomId'], 'room');
      this.mustAll(this.parts, load.fitted, ['loads', index, 'fitted'], 'part');
    });
    this.runs(job);
    this.groupsAndPoints(job);
    this.selections(job);
    job.pairings.forEach((pairing, index) => {
      this.place(pairing, ['pairings', index]);
      this.must(this.devices, pairing.deviceId, ['pairings', index, 'deviceId'], 'device');
    });
    job.events.forEach((event, index) => {
      this.must(this.boxes, event.boxId, ['events', index, 'boxId'], 'box');
      this.must(this.circuits, event.circuitId, ['events', index, 'circuitId'], 'circuit');
    });
  }

  private brief(brief: Job['brief']): void {
    brief?.platforms?.forEach((platform, index) => {
      this.must(this.platforms, platform.name, ['brief', 'platforms', index, 'name'], 'platform');
    });
    this.mustAll(this.hubs, brief?.hubsOwned, ['brief', 'hubsOwned'], 'hub');
    for (const [hub, room] of Object.entries(brief?.hubRooms ?? {})) {
      this.must(this.hubs, hub, ['brief', 'hubRooms', hub], 'hub');
      this.must(this.rooms, room, ['brief', 'hubRooms', hub], 'room');
    }
    this.must(this.rooms, brief?.wifi?.routerRoom, ['brief', 'wifi', 'routerRoom'], 'room');
    for (const list of ['pins', 'bans'] as const)
      brief?.[list]?.forEach((entry, index) => {
        this.place(entry, ['brief', list, index]);
        this.must(this.devices, entry.deviceId, ['brief', list, index, 'deviceId'], 'device');
      });
  }

  private runs(job: Job): void {
    job.runs?.forEach((run, index) => {
      run.ends.forEach((end, which) => {
        const path = ['runs', index, 'ends', which];
        this.must(this.boxes, end.boxId, [...path, 'boxId'], 'box');
        this.must(this.loads, end.loadId, [...path, 'loadId'], 'load');
        this.must(this.circuits, end.circuitId, [...path, 'circuitId'], 'circuit');
        const box = this.boxes.get(end.boxId ?? '');
        if (box)
          this.must(new Set(box.cables.map((cable) => cable.id)), end.cableId, [...path, 'cableId'], 'cable');
      });
      const [from, to] = run.ends.map(
        (end) => new Set(this.boxes.get(end.boxId ?? '')?.conductors.map((conductor) => conductor.id)),
      );
      run.pairs?.forEach((pair, which) => {
        if (from && run.ends[0]?.boxId)
          this.must(from, pair[0], ['runs', index, 'pairs', which, 0], 'conductor');
        if (to && run.ends[1]?.boxId) this.must(to, pair[1], ['runs', index, 'pairs', which, 1], 'conductor');
      });
    });
  }

  private groupsAndPoints(job: Job): void {
    job.groups.forEach((group, index) => {
      this.mustAll(this.loads, group.loadIds, ['groups', index, 'loadIds'], 'load');
      group.places.forEach((place, which) => {
        this.place(place, ['groups', index, 'places', which]);
      });
    });
    job.controlPoints?.forEach((point, index) => {
      this.must(this.rooms, point.roomId, ['controlPoints', index, 'roomId'], 'room');
      this.must(this.devices, point.deviceId, ['controlPoints', index, 'deviceId'], 'device');
      point.targets.forEach((target, which) => {
        this.place(target, ['controlPoints', index, 'targets', which]);
        this.must(this.loads, target.loadId, ['controlPoints', index, 'targets', which, 'loadId'], 'load');
      });
    });
  }

  private selections(job: Job): void {
    const chosen = new Set<string>();
    job.selections.forEach((selection, index) => {
      const path = ['selections', index];
      this.place(selection, path);
      this.must(this.devices, selection.deviceId, [...path, 'deviceId'], 'device');
      this.mustAll(this.parts, selection.with, [...path, 'with'], 'part');
      for (const [channel, load] of Object.entries(selection.channels ?? {}))
        this.must(this.loads, load, [...path, 'channels', channel], 'load');
      const key = `${selection.boxId}/${selection.position}`;
      if (chosen.has(key))
        this.error(
          path,
          `chooses for position ${selection.position} of the box "${selection.boxId}" a second time`,
        );
      chosen.add(key);
    });
  }

  private box(box: Box, path: Path): void {
    this.must(this.rooms, box.roomId, [...path, 'roomId'], 'room');
    this.mustAll(this.circuits, box.circuitIds, [...path, 'circuitIds'], 'circuit');
    if (box.enclosure.capacity.from === 'standard')
      this.must(
        this.enclosures,
        box.enclosure.capacity.enclosureId,
        [...path, 'enclosure', 'capacity', 'enclosureId'],
        'enclosure',
      );
    const own: OwnIds = {
      box,
      cables: new Set(box.cables.map((cable) => cable.id)),
      joints: new Set(box.joints.map((joint) => joint.id)),
      conductors: new Set(box.conductors.map((conductor) => conductor.id)),
      positions: new Map(box.positions.map((position) => [position.index, position])),
    };
    this.boxConductors(own, path);
    this.boxPositions(own, path);
    this.boxLabels(own, path);
    box.readings.forEach((reading, index) => {
      this.reading(reading, [...path, 'readings', index], own);
    });
  }

  /** A place inside a box: its joint, and the terminal of a position. */
  private at(own: OwnIds, place: Box['conductors'][number]['at'], where: Path): void {
    this.must(own.joints, place?.joint, [...where, 'joint'], 'joint');
    if (place?.position === undefined) return;
    const position = own.positions.get(place.position);
    if (!position)
      this.error([...where, 'position'], `names position ${place.position}, which the box does not have`);
    else if (place.terminal !== undefined && !isKnownTerminal(position, place.terminal, this.devices))
      this.warning(
        [...where, 'terminal'],
        `names the terminal "${place.terminal}", which a ${position.existing} does not have`,
      );
  }

  private boxConductors(own: OwnIds, path: Path): void {
    own.box.conductors.forEach((conductor, index) => {
      const where = [...path, 'conductors', index];
      this.must(own.cables, conductor.cableId, [...where, 'cableId'], 'cable');
      this.must(own.cables, conductor.throughCableId, [...where, 'throughCableId'], 'cable');
      this.at(own, conductor.at, [...where, 'at']);
      conductor.ends?.forEach((end, which) => {
        this.at(own, end, [...where, 'ends', which]);
      });
    });
  }

  private boxPositions(own: OwnIds, path: Path): void {
    const { box } = own;
    const indexes = new Set<number>();
    box.positions.forEach((position, index) => {
      const where = [...path, 'positions', index];
      if (indexes.has(position.index))
        this.error([...where, 'index'], `uses the index ${position.index} a second time`);
      indexes.add(position.index);
      this.mustAll(this.loads, position.loadIds, [...where, 'loadIds'], 'load');
      this.must(this.devices, position.deviceId, [...where, 'deviceId'], 'device');
      if (position.existing === 'smart' && position.deviceId === undefined)
        this.error([...where, 'deviceId'], 'is missing: a smart position names its catalogue device');
      position.leads?.forEach((lead, which) => {
        this.at(own, lead.at, [...where, 'leads', which, 'at']);
      });
      const last = (position.gang ?? position.index) + (position.width ?? 1) - 1;
      if (position.gang !== undefined && last > box.enclosure.gangs)
        this.warning([...where, 'gang'], `reaches gang ${last} of a box with ${box.enclosure.gangs}`);
    });
  }

  private boxLabels({ box, conductors }: OwnIds, path: Path): void {
    const labelled = new Set<string>();
    box.labels.forEach((label, index) => {
      const where = [...path, 'labels', index];
      this.must(conductors, label.conductorId, [...where, 'conductorId'], 'conductor');
      this.mustAll(this.loads, label.loadIds, [...where, 'loadIds'], 'load');
      this.must(this.circuits, label.circuitId, [...where, 'circuitId'], 'circuit');
      this.must(this.groups, label.groupId, [...where, 'groupId'], 'group');
      if (labelled.has(label.conductorId))
        this.error([...where, 'conductorId'], `labels the conductor "${label.conductorId}" a second time`);
      labelled.add(label.conductorId);
    });
  }

  private reading(reading: Reading, path: Path, own: OwnIds): void {
    const allowed = VALUES[reading.tool];
    const fits = typeof reading.value === 'number' ? allowed.number : allowed.words.includes(reading.value);
    if (!fits) this.error([...path, 'value'], `must be ${allowed.says} for the tool "${reading.tool}"`);
    else if (typeof reading.value === 'number' && !(reading.value >= 0 && reading.value <= allowed.most))
      this.error(
        [...path, 'value'],
        `must be between 0 and ${allowed.most} ${reading.tool === 'ohms' ? 'ohms' : 'V'}`,
      );
    this.mustAll(own.conductors, reading.lifted, [...path, 'lifted'], 'conductor');
    this.mustAll(own.joints, reading.joined, [...path, 'joined'], 'joint');
    if (
      reading.position !== undefined &&
      !own.box.positions.some((position) => position.index === reading.position)
    )
      this.error([...path, 'position'], `names position ${reading.position}, which the box does not have`);
    for (const id of Object.keys(reading.breakers ?? {}))
      this.must(this.circuits, id, [...path, 'breakers', id], 'circuit');
    for (const id of Object.keys(reading.boxes ?? {}))
      this.must(this.boxes, id, [...path, 'boxes', id], 'box');
    for (const id of Object.keys(reading.loads ?? {}))
      this.must(this.loads, id, [...path, 'loads', id], 'load');
    for (const key of Object.keys(reading.switches ?? {})) {
      const [boxId, index] = key.includes('/') ? key.split('/') : [own.box.id, key];
      const box = this.boxes.get(boxId ?? '');
      if (!box?.positions.some((position) => String(position.index) === index))
        this.error([...path, 'switches', key], `names the switch "${key}", which is not in the file`);
    }
    reading.points.forEach((point, index) => {
      if (!this.pointExists(point, reading, own.conductors))
        this.error([...path, 'points', index], `names "${point}", which is not in the file`);
    });
  }

  private pointExists(point: string, reading: Reading, conductors: ReadonlySet<string>): boolean {
    if (reading.tool === 'lamp') return this.loads.has(point);
    if (reading.tool === 'breaker') return this.circuits.has(point);
    if (point === 'box' || point === 'reference' || conductors.has(point)) return true;
    const slash = point.indexOf('/');
    if (slash < 0) return false;
    const far = this.boxes.get(point.slice(0, slash));
    const id = point.slice(slash + 1);
    return far !== undefined && (id === 'box' || far.conductors.some((conductor) => conductor.id === id));
  }

  private overrides(): void {
    const known = new Set(ruleFigures(this.job).map((figure) => figure.id));
    this.job.overrides?.forEach(({ figure, value }, index) => {
      const path = ['overrides', index];
      if (!known.has(figure))
        this.warning([...path, 'figure'], `names "${figure}", which is no figure of this practice`);
      if (value <= 0) this.error([...path, 'value'], 'must be above 0');
    });
  }

  private catalogue(): void {
    this.job.catalogue.devices.forEach((device, index) => {
      const path = ['catalogue', 'devices', index];
      this.must(this.hubs, device.hubId, [...path, 'hubId'], 'hub');
      this.mustAll(this.platforms, device.platforms, [...path, 'platforms'], 'platform');
      device.multiLocation?.forEach((entry, which) => {
        this.mustAll(
          this.devices,
          entry.partnerIds,
          [...path, 'multiLocation', which, 'partnerIds'],
          'device',
        );
      });
      const terminals = new Set<string>();
      device.terminals.forEach((terminal, which) => {
        if (terminals.has(terminal.id))
          this.error(
            [...path, 'terminals', which, 'id'],
            `uses the terminal id "${terminal.id}" a second time`,
          );
        terminals.add(terminal.id);
      });
      const channels = new Set<number>();
      device.channels.forEach((channel, which) => {
        if (channels.has(channel.id))
          this.error([...path, 'channels', which, 'id'], `uses the channel id ${channel.id} a second time`);
        channels.add(channel.id);
        this.must(this.parts, channel.bypassPartId, [...path, 'channels', which, 'bypassPartId'], 'part');
      });
      device.terminals.forEach((terminal, which) => {
        if (terminal.channel !== undefined && !channels.has(terminal.channel))
          this.error(
            [...path, 'terminals', which, 'channel'],
            `names the channel ${terminal.channel}, which the device does not have`,
          );
      });
      device.includes?.forEach((entry, which) => {
        this.must(this.parts, entry.partId, [...path, 'includes', which, 'partId'], 'part');
      });
    });
    this.job.catalogue.hubs.forEach((hub, index) => {
      this.mustAll(this.platforms, hub.platforms, ['catalogue', 'hubs', index, 'platforms'], 'platform');
    });
  }
}

/**
 * `most`: beyond it a number is a slip of the thumb, not a reading; no tester for house wiring shows more.
 */
const VALUES: Record<Reading['tool'], { number: boolean; words: string[]; says: string; most: number }> = {
  indicator: { number: false, words: ['alert', 'quiet'], says: '"alert" or "quiet"', most: 0 },
  volts: { number: true, words: [], says: 'a number of volts', most: 1000 },
  'volts-low-z': { number: true, words: [], says: 'a number of volts', most: 1000 },
  ohms: { number: true, words: ['open'], says: 'a number of ohms or "open"', most: 1e9 },
  lamp: { number: false, words: ['lit', 'dim', 'dark'], says: '"lit", "dim" or "dark"', most: 0 },
  breaker: { number: false, words: ['held', 'tripped'], says: '"held" or "tripped"', most: 0 },
};
