import { isAluminium, isFromOutside } from '../job/conductors.js';
import { figuresInUse } from '../job/figures.js';
import { type JobLookup, labelsOf } from '../job/lookup.js';
import { looseEnds } from '../job/loose-ends.js';
import type { Device } from '../job/schema/catalogue.js';
import type { Job } from '../job/schema/job.js';
import type { WireSize } from '../job/schema/primitives.js';
import type { Box, Conductor, Label, Position } from '../job/schema/survey.js';
import { usualBody } from '../practice/bodies.js';
import type { PracticeProfile } from '../practice/profile.js';
import { profileOf } from '../practice/profiles.js';
import { isGround, largestSize, USUAL_LENGTH } from '../practice/wire.js';
import { KeptWhile, sameEntries } from '../units/kept.js';
import { millilitres } from '../units/volume.js';
import {
  type BundleMember,
  type ConnectorChoice,
  connectorRange,
  foundConnector,
} from '../wire/connectors.js';
import type { BoxContents, ContentConductor, ContentConnector, CountedCapacity, Strap } from './contents.js';

/** The box as it was found. */
export function contentsAsFound(box: Box, known: JobLookup): BoxContents {
  const { job } = known;
  const labels = labelsOf(box);
  const range = connectorRange(job.catalogue.connectors);
  return {
    ...boxItself(box, job),
    conductors: contentConductors(box, known),
    straps: foundStraps(box, known, labels),
    connectors: box.joints.map((joint) => foundJoint(box, joint, profileOf(job), range)),
    leads: box.positions.flatMap((position) => foundLeads(position, known)),
  };
}

/** What the enclosure alone says; the same as found and as planned. */
export function boxItself(
  box: Box,
  job: Job,
): Pick<
  BoxContents,
  'practice' | 'figures' | 'capacity' | 'availableDepth' | 'opening' | 'internalClamps' | 'supportFittings'
> {
  const { enclosure } = box;
  const rings = enclosure.rings ?? [];
  const measured = enclosure.capacity.from === 'measured' ? enclosure.capacity : null;
  return {
    practice: profileOf(job),
    figures: figuresInUse(job),
    capacity: boxCapacity(box, job),
    availableDepth:
      enclosure.depth > 0
        ? enclosure.depth + rings.reduce((sum, ring) => sum + ring.depth, 0) + (enclosure.setBack ?? 0)
        : null,
    opening:
      measured && measured.width > 0 && measured.height > 0
        ? { width: measured.width, height: measured.height }
        : null,
    internalClamps: enclosure.internalClamps,
    supportFittings: enclosure.supportFittings,
  };
}

/** Volume of the box with its rings. Standing: marked, or a standard metal box; a measured one has none. */
export function boxCapacity(box: Box, job: Job): CountedCapacity {
  const { capacity, rings = [], gangs, material } = box.enclosure;
  const ringsMl = rings.reduce((sum, ring) => sum + (millilitres(ring) ?? 0), 0);
  switch (capacity.from) {
    case 'marked': {
      const ml = millilitres(capacity) ?? 0;
      return ml > 0 ? { ml: ml + ringsMl, standing: true } : { ml: null, standing: false };
    }
    case 'standard': {
      const enclosure = job.catalogue.enclosures.find((entry) => entry.id === capacity.enclosureId);
      const ml = enclosure && millilitres(enclosure);
      // A box ganged together from several of the listed kind: their volumes add up.
      return ml
        ? { ml: ml * Math.max(1, gangs / enclosure.gangs) + ringsMl, standing: material === 'metal' }
        : { ml: null, standing: false };
    }
    case 'measured': {
      const ml = (capacity.width * capacity.height * capacity.depth) / 1000;
      return ml > 0 ? { ml: ml + ringsMl, standing: false } : { ml: null, standing: false };
    }
  }
}

const conductorsOf = new KeptWhile<Box, ContentConductor[]>(sameEntries);

/** What of the box's conductors counts; the same for every device that is tried in it. */
export function contentConductors(box: Box, known: JobLookup): ContentConductor[] {
  return conductorsOf.of(box, [known], () => {
    const labels = labelsOf(box);
    return box.conductors.map((conductor) =>
      contentConductor(conductor, labels.get(conductor.id), known.job),
    );
  });
}

function contentConductor(conductor: Conductor, label: Label | undefined, job: Job): ContentConductor {
  const loopFrom = figuresInUse(job).fill?.loopFrom ?? Number.POSITIVE_INFINITY;
  return {
    id: conductor.id,
    size: conductor.size,
    fromOutside: isFromOutside(conductor),
    ground: isGround(conductor, label),
    isolatedGround: conductor.isolatedGround === true,
    bare: conductor.colour === 'bare',
    // A loop nobody measured counts as a long one.
    longLoop:
      conductor.unbroken === true &&
      conductor.looped === true &&
      Number.isFinite(loopFrom) &&
      (conductor.freeLength ?? loopFrom) >= loopFrom,
    length: conductor.freeLength ?? USUAL_LENGTH,
  };
}

export function foundJoint(
  box: Box,
  joint: Box['joints'][number],
  practice: PracticeProfile,
  range: readonly ConnectorChoice[],
): ContentConnector {
  const wires = looseEnds(box).filter(({ at }) => at.joint === joint.id);
  const leads = box.positions.flatMap((position) =>
    (position.leads ?? []).filter((lead) => lead.at.joint === joint.id),
  );
  const members: BundleMember[] = [
    ...wires.map(({ conductor }) => ({
      size: conductor.size,
      aluminium: isAluminium(conductor),
    })),
    ...leads.map((lead) => ({ size: lead.size ?? practice.sizes.lead })),
  ];
  return {
    kind: joint.connector,
    ml: foundConnector(joint.connector, members, practice, range)?.ml ?? 0,
    onlyBare:
      leads.length === 0 && wires.length > 0 && wires.every(({ conductor }) => conductor.colour === 'bare'),
    assembly: joint.assembly ?? joint.id,
    largest: largestSize(wires.map(({ conductor }) => conductor.size)),
  };
}

/** Tails of the device at a position: those recorded, else those its record lists. */
export function foundLeads(position: Position, known: JobLookup): { size: WireSize; length: number }[] {
  const unknown = profileOf(known.job).sizes.lead;
  if (position.leads)
    return position.leads.map((lead) => ({
      size: lead.size ?? unknown,
      length: lead.length ?? USUAL_LENGTH,
    }));
  return position.existing === 'smart'
    ? deviceLeads(known.devices.get(position.deviceId ?? ''), unknown)
    : [];
}

export function deviceLeads(
  device: Device | undefined,
  unknownSize: WireSize,
): { size: WireSize; length: number }[] {
  return (device?.terminals ?? [])
    .filter((terminal) => terminal.form === 'lead')
    .map((terminal) => ({ size: terminal.size ?? unknownSize, length: terminal.length ?? USUAL_LENGTH }));
}

/** Figures of the enclosure that nobody read yet: without them nothing is reckoned of it. */
export function unreadFigures(box: Box, job: Job): { volume: boolean; depth: boolean } {
  return {
    volume: profileOf(job).count !== null && boxCapacity(box, job).ml === null,
    depth: box.enclosure.depth === 0,
  };
}

export function holdsDevice(position: Position): boolean {
  return position.existing !== 'blank' && position.existing !== 'none';
}

function foundStraps(box: Box, known: JobLookup, labels: ReadonlyMap<string, Label>): Strap[] {
  const straps = new Map<number, Strap>();
  for (const position of box.positions)
    if (holdsDevice(position)) addToStrap(straps, foundStrap(box, position, known, labels), position);
  return [...straps.values()];
}

/** Devices on one yoke are one strap: as wide as the widest, joined to all their conductors. */
export function addToStrap(
  straps: Map<number, Strap>,
  strap: Strap & { sharedBody?: boolean },
  position: Position,
): void {
  const yoke = position.yoke ?? position.index;
  const other = straps.get(yoke);
  if (!other) {
    straps.set(yoke, strap);
    return;
  }
  straps.set(yoke, {
    positions: [...other.positions, ...strap.positions],
    gangs: Math.max(other.gangs, strap.gangs),
    size: largestSize([other.size, strap.size].filter((size) => size !== undefined)),
    bodies: strap.sharedBody ? other.bodies : [...other.bodies, ...strap.bodies],
  });
}

export function foundStrap(
  box: Box,
  position: Position,
  known: JobLookup,
  labels: ReadonlyMap<string, Label>,
): Strap & { sharedBody: boolean } {
  const device = position.existing === 'smart' ? known.devices.get(position.deviceId ?? '') : undefined;
  const usual = usualBody(position.existing, position.width ?? 1, profileOf(known.job));
  const leads = foundLeads(position, known);
  const { clearance } = figuresInUse(known.job);
  return {
    positions: [position.index],
    gangs: Math.max(position.width ?? 1, device?.gangs ?? 1),
    size: largestSize(joinedConductors(box, position, labels)),
    bodies: [
      {
        position: position.index,
        body: device?.body ?? usual,
        clearance: leads.length > 0 ? clearance.leads : clearance.terminals,
      },
    ],
    sharedBody: device === undefined && usual.sharedByYoke,
  };
}

/** Sizes of the building conductors on the position's terminals or in its leads' joints, grounds left out. */
function joinedConductors(box: Box, position: Position, labels: ReadonlyMap<string, Label>): WireSize[] {
  const joints = new Set((position.leads ?? []).flatMap((lead) => lead.at.joint ?? []));
  return looseEnds(box)
    .filter(
      ({ conductor, at }) =>
        (at.position === position.index || joints.has(at.joint ?? '')) &&
        !isGround(conductor, labels.get(conductor.id)),
    )
    .map(({ conductor }) => conductor.size);
}
