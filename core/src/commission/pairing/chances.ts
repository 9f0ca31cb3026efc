import { CAUSE_FACTS, CAUSES, type Cause, CHANCE, type Remedy, SEEN, type Seen, type Way } from './causes.js';

/** Messages that name what is wrong, and joining itself: hardly ever come of anything else. */
const TELLING: ReadonlySet<Seen> = new Set(['refused', 'full', 'owned', 'joined']);
const MISTOLD = 0.002;

/** What is not named shares the rest; a telling message is none of that. */
function sharesOf(sees: Partial<Record<Seen, number>>): Record<Seen, number> {
  const unnamed = SEEN.filter((seen) => sees[seen] === undefined && !TELLING.has(seen));
  const rest = Math.max(0.005, 1 - sum(Object.values(sees)));
  const shares = SEEN.map((seen) => sees[seen] ?? (TELLING.has(seen) ? MISTOLD : rest / unnamed.length));
  const all = sum(shares);
  return Object.fromEntries(SEEN.map((seen, at) => [seen, (shares[at] ?? 0) / all])) as Record<Seen, number>;
}

const sum = (shares: readonly number[]) => shares.reduce((total, share) => total + share, 0);

const CHANCES = new Map<Cause | null, Record<Seen, number>>(
  [null, ...CAUSES].map((cause) => [cause, sharesOf(cause === null ? CHANCE.sees : CAUSE_FACTS[cause].sees)]),
);

/** The chance that a try comes to this, by its cause; `null` where only chance fails it. */
export function chanceOfSeeing(cause: Cause | null, seen: Seen): number {
  return CHANCES.get(cause)?.[seen] ?? 0;
}

export const causesOf = (way: Way): Cause[] =>
  CAUSES.filter((cause) => CAUSE_FACTS[cause].ways.includes(way));

export const causeOfRemedy = (remedy: Remedy): Cause | null => BY_REMEDY.get(remedy) ?? null;

const BY_REMEDY = new Map(CAUSES.map((cause) => [CAUSE_FACTS[cause].remedy, cause]));
