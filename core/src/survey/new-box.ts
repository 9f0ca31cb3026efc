import type { PracticeId } from '../job/schema/primitives.js';
import type { At, Box, Conductor } from '../job/schema/survey.js';

/**
 * What a box is before anything of it was read: one gang, volume and depth open, an empty position that wants
 * a smart device.
 */
export function newBox(
  id: string,
  roomId: string,
  name: string,
  order: number,
  practice: PracticeId,
  circuitIds: string[],
): Box {
  const modular = practice === 'modular';
  return {
    id,
    roomId,
    name,
    order,
    circuitIds,
    enclosure: {
      gangs: modular ? 2 : 1,
      material: practice === 'gb' ? 'metal' : 'plastic',
      grounded: practice === 'gb',
      capacity: practice === 'us' ? { from: 'marked', in3: 0 } : { from: 'marked', mL: 0 },
      depth: 0,
      internalClamps: false,
      supportFittings: 0,
    },
    cables: [],
    conductors: [],
    joints: [],
    positions: [{ index: 1, existing: 'single-pole', loadIds: [], need: { smart: true } }],
    readings: [],
    labels: [],
  };
}

/**
 * A further box made like an earlier one: same enclosure, cables, colours and joints under fresh ids. What
 * was found out in the other box stays there: labels, readings, signal, loads, hazards.
 */
export function repeatedBox(
  like: Box,
  id: string,
  roomId: string,
  name: string,
  order: number,
  newId: () => string,
): Box {
  const fresh = new Map([...like.cables, ...like.joints].map((record) => [record.id, newId()]));
  const renamed = (old: string) => fresh.get(old) ?? old;
  const at = (place: At): At =>
    place.joint === undefined ? place : { ...place, joint: renamed(place.joint) };
  const conductor = (old: Conductor): Conductor => ({
    ...old,
    id: newId(),
    ...(old.cableId === undefined ? {} : { cableId: renamed(old.cableId) }),
    ...(old.throughCableId === undefined ? {} : { throughCableId: renamed(old.throughCableId) }),
    ...(old.at === undefined ? {} : { at: at(old.at) }),
    ...(old.ends === undefined ? {} : { ends: old.ends.map(at) }),
  });
  return {
    id,
    roomId,
    name,
    order,
    circuitIds: [...like.circuitIds],
    enclosure: like.enclosure,
    cables: like.cables.map((cable) => ({ ...cable, id: renamed(cable.id) })),
    conductors: like.conductors.map(conductor),
    joints: like.joints.map((joint) => ({ ...joint, id: renamed(joint.id) })),
    positions: like.positions.map(({ leads, replaces, loadIds, ...position }) => ({
      ...position,
      loadIds: [],
      ...(leads ? { leads: leads.map((lead) => ({ ...lead, at: at(lead.at) })) } : {}),
    })),
    readings: [],
    labels: [],
  };
}
