import type { Box, Reading } from '../../job/schema/survey.js';
import { isKnownTerminal } from '../../job/terminals.js';
import type { KnownIds, Path } from './known-ids.js';

/** What of one box may be named within it. */
interface OwnIds {
  box: Box;
  cables: ReadonlySet<string>;
  joints: ReadonlySet<string>;
  conductors: ReadonlySet<string>;
  positions: ReadonlyMap<number, Box['positions'][number]>;
}

/** What a box names: of the job, and within itself. */
export function checkBox(known: KnownIds, box: Box, path: Path): void {
  known.must(known.rooms, box.roomId, [...path, 'roomId'], 'room');
  known.mustAll(known.circuits, box.circuitIds, [...path, 'circuitIds'], 'circuit');
  if (box.enclosure.capacity.from === 'standard')
    known.must(
      known.enclosures,
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
  checkConductors(known, own, path);
  checkPositions(known, own, path);
  checkLabels(known, own, path);
  box.readings.forEach((reading, index) => {
    checkReading(known, reading, [...path, 'readings', index], own);
  });
}

/** A place inside a box: its joint, and the terminal of a position. */
function checkAt(known: KnownIds, own: OwnIds, place: Box['conductors'][number]['at'], where: Path): void {
  known.must(own.joints, place?.joint, [...where, 'joint'], 'joint');
  if (place?.position === undefined) return;
  const position = own.positions.get(place.position);
  if (!position)
    known.error([...where, 'position'], `names position ${place.position}, which the box does not have`);
  else if (place.terminal !== undefined && !isKnownTerminal(position, place.terminal, known.devices))
    known.warning(
      [...where, 'terminal'],
      `names the terminal "${place.terminal}", which a ${position.existing} does not have`,
    );
}

function checkConductors(known: KnownIds, own: OwnIds, path: Path): void {
  own.box.conductors.forEach((conductor, index) => {
    const where = [...path, 'conductors', index];
    known.must(own.cables, conductor.cableId, [...where, 'cableId'], 'cable');
    known.must(own.cables, conductor.throughCableId, [...where, 'throughCableId'], 'cable');
    checkAt(known, own, conductor.at, [...where, 'at']);
    conductor.ends?.forEach((end, which) => {
      checkAt(known, own, end, [...where, 'ends', which]);
    });
  });
}

function checkPositions(known: KnownIds, own: OwnIds, path: Path): void {
  const { box } = own;
  const indexes = new Set<number>();
  box.positions.forEach((position, index) => {
    const where = [...path, 'positions', index];
    if (indexes.has(position.index))
      known.error([...where, 'index'], `uses the index ${position.index} a second time`);
    indexes.add(position.index);
    known.mustAll(known.loads, position.loadIds, [...where, 'loadIds'], 'load');
    known.must(known.devices, position.deviceId, [...where, 'deviceId'], 'device');
    if (position.existing === 'smart' && position.deviceId === undefined)
      known.error([...where, 'deviceId'], 'is missing: a smart position names its catalogue device');
    position.leads?.forEach((lead, which) => {
      checkAt(known, own, lead.at, [...where, 'leads', which, 'at']);
    });
    const last = (position.gang ?? position.index) + (position.width ?? 1) - 1;
    if (position.gang !== undefined && last > box.enclosure.gangs)
      known.warning([...where, 'gang'], `reaches gang ${last} of a box with ${box.enclosure.gangs}`);
  });
}

function checkLabels(known: KnownIds, { box, conductors }: OwnIds, path: Path): void {
  const labelled = new Set<string>();
  box.labels.forEach((label, index) => {
    const where = [...path, 'labels', index];
    known.must(conductors, label.conductorId, [...where, 'conductorId'], 'conductor');
    known.mustAll(known.loads, label.loadIds, [...where, 'loadIds'], 'load');
    known.must(known.circuits, label.circuitId, [...where, 'circuitId'], 'circuit');
    known.must(known.groups, label.groupId, [...where, 'groupId'], 'group');
    if (labelled.has(label.conductorId))
      known.error([...where, 'conductorId'], `labels the conductor "${label.conductorId}" a second time`);
    labelled.add(label.conductorId);
  });
}

function checkReading(known: KnownIds, reading: Reading, path: Path, own: OwnIds): void {
  const allowed = VALUES[reading.tool];
  const fits = typeof reading.value === 'number' ? allowed.number : allowed.words.includes(reading.value);
  if (!fits) known.error([...path, 'value'], `must be ${allowed.says} for the tool "${reading.tool}"`);
  else if (typeof reading.value === 'number' && !(reading.value >= 0 && reading.value <= allowed.most))
    known.error(
      [...path, 'value'],
      `must be between 0 and ${allowed.most} ${reading.tool === 'ohms' ? 'ohms' : 'V'}`,
    );
  known.mustAll(own.conductors, reading.lifted, [...path, 'lifted'], 'conductor');
  known.mustAll(own.joints, reading.joined, [...path, 'joined'], 'joint');
  if (
    reading.position !== undefined &&
    !own.box.positions.some((position) => position.index === reading.position)
  )
    known.error([...path, 'position'], `names position ${reading.position}, which the box does not have`);
  for (const id of Object.keys(reading.breakers ?? {}))
    known.must(known.circuits, id, [...path, 'breakers', id], 'circuit');
  for (const id of Object.keys(reading.boxes ?? {}))
    known.must(known.boxes, id, [...path, 'boxes', id], 'box');
  for (const id of Object.keys(reading.loads ?? {}))
    known.must(known.loads, id, [...path, 'loads', id], 'load');
  for (const key of Object.keys(reading.switches ?? {})) {
    const [boxId, index] = key.includes('/') ? key.split('/') : [own.box.id, key];
    const box = known.boxes.get(boxId ?? '');
    if (!box?.positions.some((position) => String(position.index) === index))
      known.error([...path, 'switches', key], `names the switch "${key}", which is not in the file`);
  }
  reading.points.forEach((point, index) => {
    if (!pointExists(known, point, reading, own.conductors))
      known.error([...path, 'points', index], `names "${point}", which is not in the file`);
  });
}

function pointExists(
  known: KnownIds,
  point: string,
  reading: Reading,
  conductors: ReadonlySet<string>,
): boolean {
  if (reading.tool === 'lamp') return known.loads.has(point);
  if (reading.tool === 'breaker') return known.circuits.has(point);
  if (point === 'box' || point === 'reference' || conductors.has(point)) return true;
  const slash = point.indexOf('/');
  if (slash < 0) return false;
  const far = known.boxes.get(point.slice(0, slash));
  const id = point.slice(slash + 1);
  return far !== undefined && (id === 'box' || far.conductors.some((conductor) => conductor.id === id));
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
