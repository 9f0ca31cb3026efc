/** A resistance between two nodes. */
interface Branch {
  a: number;
  b: number;
  ohms: number;
}

/**
 * Voltages by nodal analysis: at every free node the currents of its branches sum to nothing.
 *
 * @param fixed voltage of each tied node, in any unit
 * @returns the same unit, for every node that a chain of branches joins to a tied one; what hangs on nothing
 * is absent
 */
export function nodeVoltages(
  fixed: ReadonlyMap<number, number>,
  branches: readonly Branch[],
): Map<number, number> {
  const anchored = new Set(fixed.keys());
  for (let grown = true; grown; ) {
    grown = false;
    for (const { a, b } of branches) {
      if (anchored.has(a) === anchored.has(b)) continue;
      anchored.add(a).add(b);
      grown = true;
    }
  }
  const free = [...anchored].filter((node) => !fixed.has(node));
  const row = new Map(free.map((node, at) => [node, at]));
  const size = free.length;
  // One row a free node: conductances, and on the right the currents that tied neighbours drive in.
  const matrix = free.map(() => new Float64Array(size + 1));
  for (const { a, b, ohms } of branches) {
    if (a === b) continue;
    for (const [own, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const at = row.get(own);
      if (at === undefined) continue;
      const line = matrix[at] as Float64Array;
      line[at] = (line[at] as number) + 1 / ohms;
      const beside = row.get(other);
      if (beside === undefined) line[size] = (line[size] as number) + (fixed.get(other) as number) / ohms;
      else line[beside] = (line[beside] as number) - 1 / ohms;
    }
  }
  // The matrix is diagonally dominant, so elimination needs no exchange of rows.
  for (let pivot = 0; pivot < size; pivot++) {
    const own = matrix[pivot] as Float64Array;
    for (let at = pivot + 1; at < size; at++) {
      const line = matrix[at] as Float64Array;
      const share = (line[pivot] as number) / (own[pivot] as number);
      if (share !== 0)
        for (let column = pivot; column <= size; column++)
          line[column] = (line[column] as number) - share * (own[column] as number);
    }
  }
  const voltages = new Map(fixed);
  for (let at = size - 1; at >= 0; at--) {
    const line = matrix[at] as Float64Array;
    let sum = line[size] as number;
    for (let column = at + 1; column < size; column++)
      sum -= (line[column] as number) * (voltages.get(free[column] as number) as number);
    voltages.set(free[at] as number, sum / (line[at] as number));
  }
  return voltages;
}
