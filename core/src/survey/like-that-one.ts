import type { Box } from '../job/schema/survey.js';
import { type BoxChange, withGangs } from './corrections.js';
import { repeatedBox } from './new-box.js';

/** A box that others are made like: of this job, or kept for later ones. */
export type LikeBox = Box;

/**
 * A box made like another: its cables, colours, joints and devices under fresh ids, and its labels as guesses
 * to be taken or not. Enclosure figures come along where this box has none; loads and circuits stay its own.
 */
export function likeThatOne(box: Box, like: LikeBox, newId: () => string): BoxChange & Pick<Box, 'guesses'> {
  const made = repeatedBox(like, box, newId);
  const renamed = new Map(like.conductors.map(({ id }, at) => [id, made.conductors[at]?.id ?? id]));
  const own = new Map(box.positions.map((position) => [position.index, position]));
  const { enclosure } = box;
  const isRead = enclosure.depth > 0;
  const grown: BoxChange =
    like.enclosure.gangs === enclosure.gangs ? {} : withGangs(box, like.enclosure.gangs);
  return {
    ...grown,
    enclosure: isRead ? { ...enclosure, gangs: like.enclosure.gangs } : like.enclosure,
    cables: made.cables,
    conductors: made.conductors,
    joints: made.joints,
    positions: made.positions.map((position) => {
      const before = own.get(position.index);
      return { ...position, loadIds: before?.loadIds ?? [], ...(before?.need ? { need: before.need } : {}) };
    }),
    readings: [],
    labels: [],
    guesses: like.labels.flatMap(({ conductorId, role, traveler }) => {
      const id = renamed.get(conductorId);
      return id === undefined || role === 'unknown'
        ? []
        : [{ conductorId: id, role, ...(traveler ? { traveler } : {}) }];
    }),
  };
}

/** A box as a usual one for later: nothing in it names this job. */
export function keptAsPreset(box: Box): LikeBox {
  const { notes, hazards, signal, condition, ...rest } = box;
  return {
    ...rest,
    circuitIds: [],
    readings: [],
    positions: box.positions.map(({ deviceId, leads, replaces, ...position }) => ({
      ...position,
      existing: position.existing === 'smart' ? 'single-pole' : position.existing,
      loadIds: [],
    })),
    labels: box.labels.map(({ conductorId, role, traveler }) => ({
      conductorId,
      role,
      ...(traveler ? { traveler } : {}),
    })),
  };
}
