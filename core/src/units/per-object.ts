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
