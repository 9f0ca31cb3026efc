import { instantOf } from '../job/events.js';
import type { Pairing } from '../job/schema/commissioning.js';

type Look = NonNullable<Pairing['trim']>[number];

/** Where the search for the lowest steady level is. */
export type TrimSearch =
  /** `lowest`, `highest`: the answer lies above the one and up to the other; null where that is open. */
  | { state: 'look'; level: number; unsteady: number; steady: number | null; looksLeft: number }
  /** `level`: to be set, the lowest steady level with the margin on it. */
  | { state: 'done'; level: number; lowest: number }
  /** It flickers at full level too: the low end is not the cause. */
  | { state: 'never-steady' };

/** Where it begins, %: most lamps are steady there. */
const FIRST = 20;
/** What is put on the lowest steady level, %: lamps and voltage drift. */
const MARGIN = 2;
const FULL = 100;

/**
 * The next level to look at, from what was seen: up by doubling until it is steady, then by halves between
 * the highest unsteady and the lowest steady level, to one per cent. A look at a level replaces an earlier
 * one there; what was steady below an unsteady level counts for nothing.
 */
export function trimSearch(looks: readonly Look[]): TrimSearch {
  const seen = new Map<number, boolean>();
  for (const look of inOrder(looks)) seen.set(look.level, look.steady);
  const unsteady = Math.max(0, ...[...seen].filter(([, steady]) => !steady).map(([level]) => level));
  const steadyLevels = [...seen].filter(([level, steady]) => steady && level > unsteady);
  const steady = steadyLevels.length > 0 ? Math.min(...steadyLevels.map(([level]) => level)) : null;
  if (unsteady >= FULL) return { state: 'never-steady' };
  if (steady === null) {
    const level = unsteady < FIRST ? FIRST : Math.min(FULL, unsteady * 2);
    return { state: 'look', level, unsteady, steady, looksLeft: Math.ceil(Math.log2(level - unsteady)) + 1 };
  }
  if (steady - unsteady <= 1)
    return { state: 'done', lowest: steady, level: Math.min(FULL, steady + MARGIN) };
  const level = unsteady + Math.floor((steady - unsteady) / 2);
  return { state: 'look', level, unsteady, steady, looksLeft: Math.ceil(Math.log2(steady - unsteady)) };
}

/** By the clock where they have one; as they stand where they have none. */
function inOrder(looks: readonly Look[]): Look[] {
  return looks
    .map((look, index) => ({ look, index }))
    .sort((one, other) => instantOf(one.look) - instantOf(other.look) || 0 || one.index - other.index)
    .map(({ look }) => look);
}
