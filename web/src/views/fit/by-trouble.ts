import { type Box, troublesOf } from '@inventario/core';
import type { BoxReckoning } from '../../data/engines.worker.js';
import type { House } from '../../data/job-context.js';

/** One box of the chart. */
export interface FitRow {
  box: Box;
  reckoning: BoxReckoning;
  troubles: ReturnType<typeof troublesOf>;
  /** Shares of what there is; null where it was not read. */
  fill: number | null;
  depth: number | null;
  packing: number | null;
}

/** Every box by its trouble: what does not close first, then the fullest. */
export function rowsByTrouble(boxes: readonly Box[], house: House): FitRow[] {
  return boxes
    .flatMap((box): FitRow[] => {
      const reckoning = house.get(box.id);
      if (!reckoning) return [];
      const { usedMl, capacityMl, depth, packing } = reckoning.planned;
      return [
        {
          box,
          reckoning,
          troubles: troublesOf(reckoning.planned),
          fill: usedMl !== null && capacityMl ? usedMl / capacityMl : null,
          depth: depth.availableMm ? depth.neededMm / depth.availableMm : null,
          packing: packing.occupancy,
        },
      ];
    })
    .sort((a, b) => b.troubles.length - a.troubles.length || worst(b) - worst(a));
}

const worst = ({ fill, depth, packing }: FitRow) => Math.max(fill ?? 0, depth ?? 0, packing ?? 0);
