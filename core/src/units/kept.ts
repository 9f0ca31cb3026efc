/**
 * Computed once for each object, and kept as long as that lives: what a job holds is never changed in place,
 * so that another state of it is another object.
 */
export function perObject<Key extends object, Value extends object | string>(
  compute: (key: Key) => Value,
): (key: Key) => Value {
  const known = new WeakMap<Key, Value>();
  return (key) => {
    const kept = known.get(key);
    if (kept !== undefined) return kept;
    const value = compute(key);
    known.set(key, value);
    return value;
  };
}

/**
 * The last answer for each object, kept while what else it rests on is the same: a job has one state at a
 * time, so that one answer for each is enough.
 */
export class KeptWhile<Key extends object, Value, RestsOn = readonly unknown[]> {
  private readonly last = new WeakMap<Key, { restsOn: RestsOn; value: Value }>();

  /** @param isSame whether what an answer rested on still holds */
  constructor(private readonly isSame: (before: RestsOn, now: RestsOn) => boolean) {}

  of(key: Key, restsOn: RestsOn, compute: () => Value): Value {
    const before = this.last.get(key);
    if (before && this.isSame(before.restsOn, restsOn)) return before.value;
    const value = compute();
    this.last.set(key, { restsOn, value });
    return value;
  }
}

/** The same objects in the same order. */
export function sameEntries(before: readonly unknown[], now: readonly unknown[]): boolean {
  return before.length === now.length && before.every((entry, at) => entry === now[at]);
}
