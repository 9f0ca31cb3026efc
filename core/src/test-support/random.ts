/** Seeded numbers for tests and benchmarks (mulberry32): the same seed, the same houses. */
export class Random {
  constructor(private state: number) {}

  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }

  chance(probability: number): boolean {
    return this.next() < probability;
  }

  pick<Item>(items: readonly Item[]): Item {
    return items[this.int(0, items.length - 1)] as Item;
  }
}
