import {
  type Belief,
  beliefFrom,
  causeShares,
  chanceOfBad,
  chanceOfJoining,
  type Evidence,
  firstBelief,
  updated,
} from './belief.js';
import {
  CAUSE_FACTS,
  type Cause,
  LISTED_MINUTES,
  LOOK_FACTS,
  LOOKS,
  type Look,
  REMEDY_FACTS,
  type Remedy,
  TRY_MINUTES,
  type Way,
} from './causes.js';
import { causeOfRemedy, causesOf } from './chances.js';

/** What to do next about one device, and why. */
export type Advice = {
  /** What may be wrong, the likeliest first. */
  causes: { cause: Cause; p: number }[];
} & (
  | { kind: 'try'; joins: number }
  | { kind: 'do'; remedy: Remedy; cause: Cause; joins: number }
  /** `bad`: how likely it turns out bad; `splits`: the cause it is about, null for the list of clients. */
  | { kind: 'look'; look: Look; splits: Cause | null; bad: number }
  | { kind: 'park'; reason: Cause }
);

/** Below this nothing that can be done is worth another try. */
const WORTH_A_TRY = 0.06;
/** From this certainty on, what cannot be put right here ends it. */
const HOPELESS = 0.86;
/** After so many tries only what was never done is still done, each once. */
const MOST_TRIES = 16;
/** A look has to save this much, minutes, or it is only a delay. */
const WORTH_A_LOOK = 0.2;
/** Nobody looks for what is hardly there. */
const LIKELY_ENOUGH = 0.08;

/**
 * The next best action: the one with the least expected time until the device is in, of those that are not a
 * repetition. A look or a remedy comes again only after something else was changed; a second try without a
 * change only once.
 * @param known what is known of some causes beforehand, as their probability
 */
export function nextAction(
  way: Way,
  evidence: readonly Evidence[],
  known: Partial<Record<Cause, number>> = {},
): Advice {
  const belief = beliefFrom(firstBelief(way, known), evidence);
  const causes = causeShares(belief);
  const open = openActions(way, evidence);
  const best = bestRemedy(belief, open.remedies);
  const hopeless = isHopeless(causes, evidence);
  const exhausted = !best || hopeless || (best.joins < WORTH_A_TRY && open.untried === 0);
  const look = bestLook(belief, open, best?.minutes ?? PARKED_MINUTES);
  if (look && !hopeless && (!exhausted || look.saves > 1)) return { kind: 'look', causes, ...look.advice };
  if (exhausted) return { kind: 'park', causes, reason: parkingReason(belief, evidence) };
  const { remedy, joins } = best;
  const cause = causeOfRemedy(remedy);
  return cause === null ? { kind: 'try', causes, joins } : { kind: 'do', causes, remedy, cause, joins };
}

/** What an unfinished device costs to come back to, minutes: the bound of every expectation. */
const PARKED_MINUTES = 60;

/** Whether what cannot be put right is almost surely there. */
function isHopeless(causes: readonly { cause: Cause; p: number }[], evidence: readonly Evidence[]): boolean {
  const refused = refusedIn(evidence);
  return causes.some(({ cause, p }) => p > HOPELESS && refused.has(CAUSE_FACTS[cause].remedy));
}

function refusedIn(evidence: readonly Evidence[]): ReadonlySet<Remedy> {
  return new Set(evidence.flatMap((entry) => (entry.kind === 'cannot' ? [entry.remedy] : [])));
}

interface OpenActions {
  /** Remedies that were neither done nor refused so far. */
  untried: number;
  remedies: Remedy[];
  looks: Look[];
}

/** What is no repetition of what was done already. */
function openActions(way: Way, evidence: readonly Evidence[]): OpenActions {
  const since = (kind: Evidence['kind'], isIt: (entry: Evidence) => boolean) =>
    evidence.findLastIndex((entry) => entry.kind === kind && isIt(entry));
  const isChange = (entry: Evidence, index: number, remedy: Remedy) =>
    entry.kind === 'done' && entry.remedy !== remedy && index >= 0;
  const remedies = causesOf(way)
    .map((cause) => CAUSE_FACTS[cause].remedy)
    .filter((remedy) => {
      const last = since('done', (entry) => entry.kind === 'done' && entry.remedy === remedy);
      const refused = since('cannot', (entry) => entry.kind === 'cannot' && entry.remedy === remedy);
      if (refused > last) return false;
      // Done once: again only when it was tried in vain, and something else was changed or looks bad since.
      return (
        last < 0 ||
        evidence.slice(last + 1).some((entry, at) => isChange(entry, at, remedy) || badAbout(entry, remedy))
      );
    });
  const lastChange = since('done', () => true);
  const triesSince = evidence.slice(lastChange + 1).filter(({ kind }) => kind === 'tried').length;
  const looks = LOOKS.filter((look) => {
    if (look === 'listed')
      return (
        triesSince > 0 &&
        !evidence.slice(since('tried', () => true)).some(isLook(look)) &&
        !witnessed(evidence)
      );
    const { cause } = LOOK_FACTS[look];
    if (!causesOf(way).includes(cause)) return false;
    const { remedy } = CAUSE_FACTS[cause];
    const changed = since('done', (entry) => entry.kind === 'done' && entry.remedy === remedy);
    return !evidence.slice(changed + 1).some(isLook(look));
  });
  const untried = remedies.filter(
    (remedy) => since('done', (entry) => entry.kind === 'done' && entry.remedy === remedy) < 0,
  );
  const isPatient = evidence.filter(({ kind }) => kind === 'tried').length < MOST_TRIES;
  const again: Remedy[] = triesSince < (isPatient ? 2 : 1) ? ['again'] : [];
  return { remedies: [...again, ...(isPatient ? remedies : untried)], looks, untried: untried.length };
}

const isLook = (look: Look) => (entry: Evidence) => entry.kind === 'looked' && entry.look === look;

const badAbout = (entry: Evidence, remedy: Remedy) =>
  entry.kind === 'looked' &&
  entry.bad &&
  entry.look !== 'listed' &&
  CAUSE_FACTS[LOOK_FACTS[entry.look].cause].remedy === remedy;

/** Whether the last try came with what the list of clients said. */
function witnessed(evidence: readonly Evidence[]): boolean {
  const last = evidence.findLast(({ kind }) => kind === 'tried');
  return last?.kind === 'tried' && last.listed !== undefined;
}

/** The remedy after which the device is in soonest, as if the same chance came again at every further try. */
function bestRemedy(belief: Belief, remedies: readonly Remedy[]) {
  let best: { remedy: Remedy; joins: number; minutes: number } | null = null;
  for (const remedy of remedies) {
    const joins = chanceOfJoining(belief, remedy);
    const minutes = Math.min(
      PARKED_MINUTES,
      (REMEDY_FACTS[remedy].minutes + TRY_MINUTES[belief.way]) / Math.max(joins, 0.001),
    );
    if (!best || minutes < best.minutes) best = { remedy, joins, minutes };
  }
  return best;
}

/** The look that saves most, if any saves more than it takes. */
function bestLook(belief: Belief, open: OpenActions, minutesNow: number) {
  let best: { saves: number; advice: { look: Look; splits: Cause | null; bad: number } } | null = null;
  const shares = new Map(causeShares(belief).map(({ cause, p }) => [cause, p]));
  for (const look of open.looks) {
    if (look !== 'listed' && (shares.get(LOOK_FACTS[look].cause) ?? 0) < LIKELY_ENOUGH) continue;
    const bad = chanceOfBad(belief, look);
    const after = [true, false].reduce((sum, isBad) => {
      const then = updated(belief, { kind: 'looked', look, bad: isBad });
      const minutes = bestRemedy(then, open.remedies)?.minutes ?? PARKED_MINUTES;
      return sum + (isBad ? bad : 1 - bad) * minutes;
    }, 0);
    const own = look === 'listed' ? LISTED_MINUTES : LOOK_FACTS[look].minutes;
    const saves = minutesNow - after - own;
    if (saves > (best?.saves ?? WORTH_A_LOOK))
      best = { saves, advice: { look, splits: look === 'listed' ? null : LOOK_FACTS[look].cause, bad } };
  }
  return best;
}

/** What keeps it out, as far as one can tell: what could not be put right before what was. */
function parkingReason(belief: Belief, evidence: readonly Evidence[]): Cause {
  const refused = refusedIn(evidence);
  const shares = causeShares(belief);
  const weight = ({ cause, p }: { cause: Cause; p: number }) =>
    refused.has(CAUSE_FACTS[cause].remedy) || cause === 'broken' ? p * 2 : p;
  return shares.reduce((best, share) => (weight(share) > weight(best) ? share : best)).cause;
}
