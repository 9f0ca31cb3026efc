import { type Box, type Conductor, untoldCores } from '@inventario/core';

/** The next conductor in the drawing's order that nobody has told; grounds by colour aside. */
export function nextUntold(order: readonly Conductor[], box: Box, after: string): string | undefined {
  const untold = new Set(untoldCores(box).map(({ id }) => id));
  const at = order.findIndex((conductor) => conductor.id === after);
  const round = [...order.slice(at + 1), ...order.slice(0, at)];
  return round.find(({ id }) => untold.has(id))?.id;
}
