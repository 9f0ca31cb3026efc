import { CAUSE_FACTS, CAUSES, type Cause, CHANCE, type Remedy, SEEN, type Seen, type Way } from './causes.js';

/** Messages that name what is wrong: seldom shown for anything else. */
const TELLING: ReadonlySet<Seen> = new Set(['refused', 'full', 'owned', 'joined']);

/** What is not named shares the rest, a telling message a tenth of what another does. */
function spread(sees: Partial<Record<Seen, number>>, seen: Seen): number {
  const named = sees[seen];
  if (named !== undefined) return named;
  const weight = (one: Seen) => (TELLING.has(one) ? 0.1 : 1);
  const rest = 1 - Object.values(sees).reduce((sum, share) => sum + share, 0);
  const unnamed = SEEN.filter((one) => sees[one] === undefined);
  return (Math.max(0.005, rest) * weight(seen)) / unnamed.reduce((sum, one) => sum + weight(one), 0);
}

const CHANCES = new Map<Cause | null, Record<Seen, number>>(
  [null, ...CAUSES].map((cause) => {
    const sees = cause === null ? CHANCE.sees : CAUSE_FACTS[cause].sees;
    return [
      cause,
      Object.fromEntries(SEEN.map((seen) => [seen, spread(sees, seen)])) as Record<Seen, number>,
    ];
  }),
);

/** The chance that a try comes to this, by its cause; `null` where only chance fails it. */
export function chanceOfSeeing(cause: Cause | null, seen: Seen): number {
  return CHANCES.get(cause)?.[seen] ?? 0;
}

export const causesOf = (way: Way): Cause[] =>
  CAUSES.filter((cause) => CAUSE_FACTS[cause].ways.includes(way));

export const causeOfRemedy = (remedy: Remedy): Cause | null => BY_REMEDY.get(remedy) ?? null;

const BY_REMEDY = new Map(CAUSES.map((cause) => [CAUSE_FACTS[cause].remedy, cause]));
