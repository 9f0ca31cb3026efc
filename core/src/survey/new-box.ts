import type { At, Box, Conductor } from '../job/schema/survey.js';
import { profileOf } from '../practice/profiles.js';
import type { PracticeId } from '../terms/trade.js';

/** Which box it is, and where it stands on the walk. */
type BoxName = Pick<Box, 'id' | 'roomId' | 'name' | 'order'>;

/**
 * What a box is before anything of it was read: one gang, volume and depth open, an empty position that wants
 * a smart device.
 */
export function newBox(
  { id, roomId, name, order }: BoxName,
  practice: PracticeId,
  circuitIds: string[] = [],
): Box {
  const { newBox: usual, volumesIn } = profileOf({ practice });
  return {
    id,
    roomId,
    name,
    order,
    circuitIds,
    enclosure: {
      ...usual,
      capacity: { from: 'marked', [volumesIn]: 0 },
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
export function repeatedBox(like: Box, { id, roomId, name, order }: BoxName, newId: () => string): Box {
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
