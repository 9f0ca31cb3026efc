import type { Costs } from './cost.js';
import type { ApartBecause, DayToPlan } from './vocabulary.js';

/** The arrangement somebody made, as units of each batch in their order; what it does not name comes last. */
export function arrangedUnits(batches: readonly (readonly string[])[], costs: Costs): number[][] {
  const { units } = costs.day;
  const left = new Set(units.keys());
  const arranged: number[][] = [];
  for (const boxIds of batches) {
    const members: number[] = [];
    const apart: number[] = [];
    for (const boxId of boxIds) {
      const unit = unitOfBox(boxId, costs.day);
      if (unit === null || !left.delete(unit)) continue;
      // What has come to be fed by another since is worked by itself.
      if (costs.isAllowed([...members, unit])) members.push(unit);
      else apart.push(unit);
    }
    for (const batch of [members, ...apart.map((unit) => [unit])]) if (batch.length > 0) arranged.push(batch);
  }
  return [...arranged, ...[...left].map((unit) => [unit])];
}

export function unitOfBox(boxId: string, { units }: Pick<DayToPlan, 'units'>): number | null {
  const at = units.findIndex(({ boxIds }) => boxIds.includes(boxId));
  return at < 0 ? null : at;
}

/** A box, and those bound to it, put into another batch: null where nothing moves, else how that is. */
export interface Move {
  batches: number[][];
  /** Why it cannot be; null: it can. */
  because: ApartBecause | null;
}

/** @param to number of the batch; one beyond the last makes a batch of its own */
export function moved(batches: readonly (readonly number[])[], unit: number, to: number, costs: Costs): Move {
  const grown = [...(batches[to] ?? []).filter((other) => other !== unit), unit];
  const next = batches.map((members, at) => (at === to ? grown : members.filter((other) => other !== unit)));
  if (to >= batches.length) next.push(grown);
  return { batches: next.filter((members) => members.length > 0), because: costs.whyApart(grown) };
}
