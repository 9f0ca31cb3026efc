import type { ApartBecause, DayToPlan, WorkUnit } from './vocabulary.js';

/** Trips to the panel a batch takes at each panel that feeds it. */
export function tripsAtPanel(needsCheck: boolean, testBeforeFold: boolean): number {
  return 2 + (needsCheck ? 2 : 0) + (testBeforeFold ? 2 : 0);
}

/**
 * What a plan is judged by, first things first: trips, then circuits dark summed over batches, then changes
 * of room and three times those of floor inside batches. One number, so that plans are compared at once.
 */
function weight(trips: number, dark: number, changes: number): number {
  return trips * A_TRIP + dark * A_CIRCUIT + changes;
}
/** No house has as many changes of room as a circuit weighs, nor as many circuits as a trip. */
const A_CIRCUIT = 2 ** 14;
export const A_TRIP = 2 ** 30;

export const tripsOf = (weighed: number): number => Math.floor(weighed / A_TRIP);

/** A set of units as one batch, before anything is shared with the batch beside it. */
export interface BatchCost {
  weight: number;
  /** Numbers of its panels, ascending. */
  panels: readonly number[];
}

/** Reads the cost of batches off a day, its panels numbered once. */
export class Costs {
  private readonly panelNumber = new Map<string, number>();
  private readonly conflicts: readonly ReadonlySet<number>[];
  private readonly sizes: readonly number[];

  constructor(readonly day: DayToPlan) {
    for (const { panels } of day.units)
      for (const panel of panels)
        if (!this.panelNumber.has(panel)) this.panelNumber.set(panel, this.panelNumber.size);
    this.sizes = day.units.map(({ boxIds }) => boxIds.length);
    const conflicts = day.units.map(() => new Set<number>());
    for (const [a, b] of day.apart) {
      conflicts[a]?.add(b);
      conflicts[b]?.add(a);
    }
    this.conflicts = conflicts;
  }

  /** Whether units may be open together. */
  isAllowed(members: readonly number[]): boolean {
    return this.whyApart(members) === null;
  }

  /** What speaks against it; null: nothing. */
  whyApart(members: readonly number[]): ApartBecause | null {
    if (members.length < 2) return null;
    const boxes = members.reduce((sum, unit) => sum + (this.sizes[unit] as number), 0);
    if (boxes > this.day.openAtOnce) return 'too-many';
    const fed = members.some((unit) => members.some((other) => this.conflicts[unit]?.has(other)));
    return fed ? 'feeds' : null;
  }

  /** The same day with these units alone, numbered anew in this order. */
  within(members: readonly number[]): Costs {
    return new Costs({
      ...this.day,
      units: members.map((unit) => this.day.units[unit] as WorkUnit),
      apart: members.flatMap((unit, at) =>
        members.flatMap((other, beside) =>
          at < beside && this.conflicts[unit]?.has(other) ? [[at, beside] as const] : [],
        ),
      ),
    });
  }

  sizeOf(unit: number): number {
    return this.sizes[unit] as number;
  }

  of(members: readonly number[]): BatchCost {
    const units = members.map((unit) => this.day.units[unit] as WorkUnit);
    const panels = new Set(units.flatMap((unit) => unit.panels.map((name) => this.number(name))));
    const circuits = new Set(units.flatMap(({ circuitIds }) => circuitIds));
    const boxes = units.flatMap(({ boxIds }) => boxIds);
    const trips =
      panels.size *
      tripsAtPanel(
        units.some(({ needsCheck }) => needsCheck),
        this.day.testBeforeFold,
      );
    return {
      weight: weight(trips, circuits.size, changesInside(boxes, this.day)),
      panels: [...panels].sort((a, b) => a - b),
    };
  }

  private number(panel: string): number {
    return this.panelNumber.get(panel) as number;
  }
}

/**
 * Changes of room, and three times those of floor, on the shortest walk: room by room, floor by floor.
 */
function changesInside(boxIds: readonly string[], { room }: Pick<DayToPlan, 'room'>): number {
  const places = boxIds.flatMap((id) => room.get(id) ?? []);
  if (places.length === 0) return 0;
  const rooms = new Set(places.map(({ roomId }) => roomId)).size;
  const floors = new Set(places.map(({ floor }) => floor)).size;
  return rooms - 1 + 3 * (floors - 1);
}

/** How many numbers two ascending lists share. */
export function shared(one: readonly number[], other: readonly number[]): number {
  let [a, b, count] = [0, 0, 0];
  while (a < one.length && b < other.length) {
    const [left, right] = [one[a] as number, other[b] as number];
    if (left === right) count += 1;
    if (left <= right) a += 1;
    if (right <= left) b += 1;
  }
  return count;
}
