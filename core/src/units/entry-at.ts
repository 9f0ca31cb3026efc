/**
 * The entry of a list at an index that was made for it: a number of a core in the list of cores, of a test in
 * the list of tests. What is not there is a broken invariant and no case to be handled.
 * @throws when the list has no such entry
 */
export function entryAt<Value>(list: readonly Value[], index: number): Value {
  const value = list[index];
  if (value === undefined) throw new Error(`No entry ${index} in a list of ${list.length}`);
  return value;
}
