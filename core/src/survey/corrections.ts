import type { At, Box, Label, Position } from '../job/schema/survey.js';
import { UNRECOGNISED } from '../job/terminals.js';

/**
 * Corrections of a survey that touch more than one of its lists. Each returns only the fields that change,
 * ready to be set in one edit; nothing is left naming what has gone.
 */
export type BoxChange = Partial<
  Pick<Box, 'cables' | 'conductors' | 'joints' | 'positions' | 'labels' | 'readings' | 'enclosure'>
>;

const CAPPED: At = { capped: true };

/**
 * Takes conductors out with their labels, and the readings that speak of them. Joints left without a member
 * go too.
 */
export function withoutConductors(box: Box, ids: ReadonlySet<string>): BoxChange {
  const conductors = box.conductors.filter((conductor) => !ids.has(conductor.id));
  return {
    conductors,
    labels: box.labels.filter((label) => !ids.has(label.conductorId)),
    readings: box.readings.filter(
      (reading) =>
        !reading.points.some((point) => ids.has(point)) && !reading.lifted?.some((id) => ids.has(id)),
    ),
    joints: usedJoints({ ...box, conductors }),
  };
}

/**
 * A cable with everything in it; a conductor that only passes through from another cable is then one that was
 * cut off here.
 */
export function withoutCable(box: Box, cableId: string): BoxChange {
  const own = new Set(
    box.conductors.filter((conductor) => conductor.cableId === cableId).map((conductor) => conductor.id),
  );
  const change = withoutConductors(box, own);
  return {
    ...change,
    cables: box.cables.filter((cable) => cable.id !== cableId),
    conductors: (change.conductors ?? []).map((conductor) => {
      if (conductor.throughCableId !== cableId) return conductor;
      const { throughCableId, unbroken, looped, ...rest } = conductor;
      return { ...rest, at: CAPPED };
    }),
  };
}

/** Takes a position out: its tails go with it, what else was on its terminals is capped. */
export function withoutPosition(box: Box, index: number): BoxChange {
  const tails = box.conductors.filter((conductor) => conductor.ends?.some((at) => at.position === index));
  const rest: Box = { ...box, ...withoutConductors(box, new Set(tails.map((tail) => tail.id))) };
  const next: Box = {
    ...rest,
    positions: rest.positions.filter((position) => position.index !== index),
    conductors: rest.conductors.map((conductor) =>
      conductor.at?.position === index ? { ...conductor, at: CAPPED } : conductor,
    ),
    readings: rest.readings.filter(
      (reading) => reading.position !== index && !(String(index) in (reading.switches ?? {})),
    ),
  };
  const { positions, conductors, readings, labels } = next;
  return { positions, conductors, readings, labels, joints: usedJoints(next) };
}

/** As many gangs as told. Further positions come empty; those that have no gang left go, last first. */
export function withGangs(box: Box, gangs: number): BoxChange {
  let next: Box = { ...box, enclosure: { ...box.enclosure, gangs } };
  const taken = () => Math.max(0, ...next.positions.map((position) => lastGang(position)));
  while (next.positions.length > 1 && taken() > gangs) {
    const last = next.positions.reduce((a, b) => (lastGang(b) > lastGang(a) ? b : a));
    next = { ...next, ...withoutPosition(next, last.index) };
  }
  const positions = [...next.positions];
  for (let gang = taken() + 1; gang <= gangs; gang++) {
    const index = Math.max(0, ...positions.map((position) => position.index)) + 1;
    positions.push({
      index,
      ...(index === gang ? {} : { gang }),
      existing: 'single-pole',
      loadIds: [],
      need: { smart: true },
    });
  }
  const { enclosure, conductors, readings, labels, joints } = next;
  return { enclosure, positions, conductors, readings, labels, joints };
}

function lastGang(position: Position): number {
  return (position.gang ?? position.index) + (position.width ?? 1) - 1;
}

/** Positions of a box as one sees them, left to right. */
export function positionsInOrder(box: Pick<Box, 'positions'>): Position[] {
  return [...box.positions].sort((a, b) => (a.gang ?? a.index) - (b.gang ?? b.index) || a.index - b.index);
}

/**
 * Positions put in another order, left to right: each takes the next gangs, and keeps its number, which
 * conductors, readings and choices name it by. Those on one gang stay on one.
 */
export function withPositionOrder(box: Box, indexes: readonly number[]): BoxChange {
  const gangs = new Map<number, number>();
  const taken = new Map<number, number>();
  let next = 1;
  for (const index of indexes) {
    const position = box.positions.find((entry) => entry.index === index);
    if (!position) continue;
    const before = position.gang ?? index;
    const at = gangs.get(before) ?? next;
    if (!gangs.has(before)) {
      gangs.set(before, at);
      next += position.width ?? 1;
    }
    taken.set(index, at);
  }
  return {
    positions: box.positions.map(({ gang, ...position }) => {
      const at = taken.get(position.index) ?? gang ?? position.index;
      return at === position.index ? position : { ...position, gang: at };
    }),
  };
}

/** One conductor with fields changed; `undefined` takes a field out. */
export function withConductor(
  box: Box,
  conductorId: string,
  more: Partial<Box['conductors'][number]>,
): BoxChange {
  const changed = (conductor: Box['conductors'][number]) => {
    const next: Record<string, unknown> = { ...conductor, ...more };
    for (const [field, value] of Object.entries(more)) if (value === undefined) delete next[field];
    return next as Box['conductors'][number];
  };
  return {
    conductors: box.conductors.map((conductor) =>
      conductor.id === conductorId ? changed(conductor) : conductor,
    ),
  };
}

/** Moves the end of a conductor. `end` is 0 or 1 for a pigtail. Joints left empty go. */
export function withEnd(box: Box, conductorId: string, end: 0 | 1, at: At): BoxChange {
  const conductors = box.conductors.map((conductor) => {
    if (conductor.id !== conductorId) return conductor;
    if (conductor.ends)
      return { ...conductor, ends: conductor.ends.map((old, which) => (which === end ? at : old)) };
    const { unbroken, throughCableId, looped, ...rest } = conductor;
    return { ...rest, at };
  });
  return { conductors, joints: usedJoints({ ...box, conductors }) };
}

/** Puts a label in place of the one the conductor had; `unknown` takes it off. */
export function withLabel(box: Box, label: Label): BoxChange {
  const rest = box.labels.filter((other) => other.conductorId !== label.conductorId);
  return { labels: label.role === 'unknown' ? rest : [...rest, label] };
}

/**
 * What is on a terminal its new device does not have is capped: the installer says where it went. What nobody
 * recognised stays.
 */
export function withExisting(
  box: Box,
  index: number,
  changed: Position,
  terminals: readonly string[],
): BoxChange {
  const lost = (at: At) =>
    at.position === index &&
    at.terminal !== undefined &&
    ![...terminals, ...UNRECOGNISED].includes(at.terminal);
  return {
    positions: box.positions.map((position) => (position.index === index ? changed : position)),
    conductors: box.conductors.map((conductor) => ({
      ...conductor,
      ...(conductor.at && lost(conductor.at) ? { at: CAPPED } : {}),
      ...(conductor.ends ? { ends: conductor.ends.map((at) => (lost(at) ? CAPPED : at)) } : {}),
    })),
  };
}

function usedJoints(box: Box): Box['joints'] {
  const used = new Set(
    [
      ...box.conductors.flatMap((conductor) => conductor.ends ?? (conductor.at ? [conductor.at] : [])),
      ...box.positions.flatMap((position) => (position.leads ?? []).map((lead) => lead.at)),
    ].map((at) => at.joint),
  );
  return box.joints.filter((joint) => used.has(joint.id));
}
