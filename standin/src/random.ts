/** Seeded numbers (a linear congruential generator): the same seed, the same site. */
export class Seeded {
  private state: number;

  constructor(seed: number) {
    this.state = (seed * 2654435761 + 12345) >>> 0;
    this.next();
  }

  next(): number {
    this.state = (Math.imul(this.state, 1664525) + 1013904223) >>> 0;
    // The low bits of such a generator repeat soon.
    return (this.state >>> 8) / 2 ** 24;
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }

  /** One of some things by their shares. */
  drawn<Item extends string>(shares: Partial<Record<Item, number>>): Item {
    const entries = Object.entries(shares) as [Item, number][];
    let left = this.next() * entries.reduce((sum, [, share]) => sum + share, 0);
    for (const [item, share] of entries) {
      left -= share;
      if (left < 0) return item;
    }
    return entries.at(-1)?.[0] as Item;
  }
}
