import { type Box, boxesOfRoom, type Job, roomsInOrder } from '@inventario/core';

/** The box after this one on the walk; none after the last. */
export function nextBoxOf(job: Job, boxId: string): Box | undefined {
  const walk = roomsInOrder(job).flatMap((room) => boxesOfRoom(job, room.id));
  return walk[walk.findIndex(({ id }) => id === boxId) + 1];
}
