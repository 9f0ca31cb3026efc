import { type Box, type Conductor, looksLikeGround } from '@inventario/core';

/** The next conductor in the drawing's order that nobody has told; grounds by colour aside. */
export function nextUntold(order: readonly Conductor[], box: Box, after: string): string | undefined {
  const told = new Set(box.labels.map((label) => label.conductorId));
  const at = order.findIndex((conductor) => conductor.id === after);
  const round = [...order.slice(at + 1), ...order.slice(0, at)];
  return round.find(
    (conductor) => conductor.cableId !== undefined && !told.has(conductor.id) && !looksLikeGround(conductor),
  )?.id;
}
