const NAMES = [
  'boxId',
  'position',
  'id',
  'deviceId',
  'strategy',
  'rule',
  'school',
  'code',
  'circuitId',
  'readingId',
];
const FOR_PEOPLE = new Set(['about', 'working']);

/**
 * What of `expected` is not part of `printed`, as lines; none means it is. Objects: every field named must be
 * there and equal. Lists of objects: each entry must match one printed entry, found by what names it. Numbers
 * within 0.01, occupancy within 0.005.
 */
export function missingParts(expected: unknown, printed: unknown, path = ''): string[] {
  if (Array.isArray(expected)) {
    if (!Array.isArray(printed)) return [`${path} is no list`];
    if (expected.length === 0) return printed.length === 0 ? [] : [`${path} should be empty`];
    return expected.flatMap((entry, index) => {
      if (typeof entry !== 'object') return missingParts(entry, printed[index], `${path}/${index}`);
      const keys = NAMES.filter((name) => name in (entry as object));
      const same = printed.filter((other) =>
        keys.every((key) => other?.[key] === (entry as Record<string, unknown>)[key]),
      );
      if (same.length === 0)
        return [
          `${path} has no entry ` +
            `${keys.map((key) => `${key} ${(entry as Record<string, unknown>)[key]}`).join(', ')}`,
        ];
      const merged =
        'rule' in (entry as object) && 'ml' in (entry as object)
          ? { ...same[0], ml: same.reduce((sum, line) => sum + line.ml, 0) }
          : same[0];
      return missingParts(
        entry,
        merged,
        `${path}/${keys.map((key) => (entry as Record<string, unknown>)[key]).join(' ')}`,
      );
    });
  }
  if (typeof expected === 'object' && expected !== null) {
    return Object.entries(expected)
      .filter(([field]) => !FOR_PEOPLE.has(field))
      .flatMap(([field, value]) => {
        const other = (printed as Record<string, unknown> | undefined)?.[field];
        if (field === 'occupancy')
          return Math.abs(Number(other) - Number(value)) <= 0.005
            ? []
            : [`${path}/occupancy is ${other}, not ${value}`];
        return missingParts(value, other, `${path}/${field}`);
      });
  }
  if (typeof expected === 'number')
    return Math.abs(Number(printed) - expected) <= 0.01 ? [] : [`${path} is ${printed}, not ${expected}`];
  return Object.is(expected, printed)
    ? []
    : [`${path} is ${JSON.stringify(printed)}, not ${JSON.stringify(expected)}`];
}
