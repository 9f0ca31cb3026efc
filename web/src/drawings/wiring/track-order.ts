import type { Colour } from '@inventario/core';

/** A wire to or from a bar or across, before rows are given. */
export interface Track {
  key: string;
  jointId: string | null;
  /** Ends from above and from below. */
  above: { x: number; name: string; colour: Colour; stays: boolean }[];
  below: { x: number; name: string; colour: Colour; stays: boolean; terminal: string }[];
  /** Columns of jumpers to other bars. */
  across: number[];
  words: number;
}

/** From where to where a track reaches, its words included. */
export function spanOf({ above, below, across, words, jointId }: Track): [number, number] {
  const xs = [...above.map(({ x }) => x), ...below.map(({ x }) => x), ...across];
  const [from, to] = [Math.min(...xs), Math.max(...xs)];
  return jointId === null ? [from, to] : [from - 15, Math.max(to + 15, from - 12 + words)];
}

/** How often wires pass a bar they are not in, were the tracks one below the other in this order. */
function crossings(order: readonly Track[]): number {
  let count = 0;
  order.forEach((track, at) => {
    const [from, to] = [Math.min(...xsOf(track)) - 4, Math.max(...xsOf(track)) + 4];
    order.forEach((other, where) => {
      if (other === track) return;
      const passing = where > at ? other.above : other.below;
      for (const { x } of passing) if (x > from && x < to) count += 1;
    });
  });
  return count;
}

const xsOf = ({ above, below, across }: Track): number[] => [
  ...above.map(({ x }) => x),
  ...below.map(({ x }) => x),
  ...across,
];

/** Bars in the order with the fewest crossings that exchanging any two of them finds. */
export function orderOf(tracks: readonly Track[]): Track[] {
  // What only comes from above stands above, what only goes down below.
  const lean = ({ above, below }: Track) => above.length / Math.max(1, above.length + below.length);
  const order = [...tracks].sort((a, b) => lean(b) - lean(a));
  let best = crossings(order);
  for (let better = true; better; ) {
    better = false;
    for (let one = 0; one < order.length; one++)
      for (let other = one + 1; other < order.length; other++) {
        exchange(order, one, other);
        const now = crossings(order);
        if (now < best) {
          best = now;
          better = true;
        } else exchange(order, one, other);
      }
  }
  return order;
}

function exchange(order: Track[], one: number, other: number): void {
  const [a, b] = [order[one] as Track, order[other] as Track];
  order[one] = b;
  order[other] = a;
}

/** Rows from above: what is not over each other stands in one. */
export function rowsOf(order: readonly Track[]): Map<Track, number> {
  const rows = new Map<Track, number>();
  order.forEach((track, at) => {
    const [from, to] = spanOf(track);
    let row = 0;
    for (const before of order.slice(0, at)) {
      const [start, end] = spanOf(before);
      const apart = end + 8 < from || to + 8 < start;
      // A wire that comes down through a row must not land in a bar above the one it passed.
      if (!apart || passes(before, track)) row = Math.max(row, (rows.get(before) ?? 0) + 1);
    }
    rows.set(track, row);
  });
  return rows;
}

/** Whether a wire of the one would pass through the other's row at its bar. */
function passes(one: Track, other: Track): boolean {
  const [from, to] = spanOf(one);
  const [start, end] = spanOf(other);
  return other.above.some(({ x }) => x > from && x < to) || one.below.some(({ x }) => x > start && x < end);
}
