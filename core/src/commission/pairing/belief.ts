import {
  CAUSE_FACTS,
  type Cause,
  CHANCE,
  LOOK_FACTS,
  type Look,
  REMEDY_FACTS,
  type Remedy,
  type Seen,
  type Way,
} from './causes.js';
import { causeOfRemedy, causesOf, chanceOfSeeing } from './chances.js';

/** What was recorded on the way of one device, in order. */
export type Evidence =
  | { kind: 'tried'; seen: Seen; listed?: boolean | undefined }
  | { kind: 'looked'; look: Look; bad: boolean }
  | { kind: 'done'; remedy: Remedy }
  | { kind: 'cannot'; remedy: Remedy };

/** What may be wrong at once: none, one or two causes, with its probability. */
interface Explanation {
  causes: readonly Cause[];
  p: number;
}

/** What is thought to be wrong with one device. The explanations sum to 1. */
export interface Belief {
  way: Way;
  explanations: readonly Explanation[];
  /** What the last try came to, for a look at the list of clients. */
  lastSeen: Seen | null;
}

/**
 * Before anything was tried: causes are there or not each by itself, at most two at once.
 * @param known what is known of some causes beforehand, as their probability
 */
export function firstBelief(way: Way, known: Partial<Record<Cause, number>> = {}): Belief {
  const causes = causesOf(way);
  const odds = causes.map((cause) => {
    const p = Math.min(0.98, Math.max(0.001, known[cause] ?? CAUSE_FACTS[cause].prior[way] ?? 0.01));
    return p / (1 - p);
  });
  const explanations: Explanation[] = [{ causes: [], p: 1 }];
  causes.forEach((cause, at) => {
    explanations.push({ causes: [cause], p: odds[at] ?? 0 });
    causes.slice(at + 1).forEach((other, nth) => {
      explanations.push({ causes: [cause, other], p: (odds[at] ?? 0) * (odds[at + 1 + nth] ?? 0) });
    });
  });
  return { way, explanations: normalised(explanations), lastSeen: null };
}

function normalised(explanations: readonly Explanation[]): Explanation[] {
  const sum = explanations.reduce((total, { p }) => total + p, 0);
  return explanations.map(({ causes, p }) => ({ causes, p: p / sum }));
}

/** How likely a try comes to something, when these causes are there: the first of them stops it. */
function seeing(causes: readonly Cause[], seen: Seen): number {
  const [first] = causes;
  if (first) return chanceOfSeeing(first, seen);
  return seen === 'joined' ? 1 - CHANCE.fails : CHANCE.fails * chanceOfSeeing(null, seen);
}

function beingListed(causes: readonly Cause[], seen: Seen | null): number {
  if (seen === 'joined') return 0.98;
  const [first] = causes;
  return first ? CAUSE_FACTS[first].listed : CHANCE.listed;
}

function lookingBad(causes: readonly Cause[], look: Look, seen: Seen | null): number {
  if (look === 'listed') return 1 - beingListed(causes, seen);
  const { cause, hit, falseAlarm } = LOOK_FACTS[look];
  return causes.includes(cause) ? hit : falseAlarm;
}

/** How likely a look turns out bad (for `listed`: that the list does not name it). */
export function chanceOfBad({ explanations, lastSeen }: Belief, look: Look): number {
  return explanations.reduce((sum, { causes, p }) => sum + p * lookingBad(causes, look, lastSeen), 0);
}

/** The belief after one more piece of evidence. */
export function updated(belief: Belief, evidence: Evidence): Belief {
  const { explanations, lastSeen } = belief;
  const weighed = (weight: (causes: readonly Cause[]) => number) =>
    normalised(explanations.map(({ causes, p }) => ({ causes, p: p * weight(causes) })));
  switch (evidence.kind) {
    case 'tried': {
      const { seen, listed } = evidence;
      const witness = (causes: readonly Cause[]) =>
        listed === undefined ? 1 : listed ? beingListed(causes, seen) : 1 - beingListed(causes, seen);
      return {
        ...belief,
        lastSeen: seen,
        explanations: weighed((causes) => seeing(causes, seen) * witness(causes)),
      };
    }
    case 'looked':
      return {
        ...belief,
        explanations: weighed((causes) => {
          const bad = lookingBad(causes, evidence.look, lastSeen);
          return evidence.bad ? bad : 1 - bad;
        }),
      };
    case 'done':
      return { ...belief, explanations: afterRemedy(explanations, evidence.remedy) };
    case 'cannot':
      return belief;
  }
}

/** A remedy takes its cause out of every explanation, as often as it works. */
function afterRemedy(explanations: readonly Explanation[], remedy: Remedy): Explanation[] {
  const moved = new Map<string, Explanation>();
  const add = (causes: readonly Cause[], p: number) => {
    const key = causes.join();
    moved.set(key, { causes, p: (moved.get(key)?.p ?? 0) + p });
  };
  for (const { causes, p } of explanations) {
    const left = causes.filter((cause) => CAUSE_FACTS[cause].remedy !== remedy);
    const works = left.length === causes.length ? 0 : REMEDY_FACTS[remedy].works;
    add(left, p * works);
    if (works < 1) add(causes, p * (1 - works));
  }
  return [...moved.values()];
}

export function beliefFrom(first: Belief, evidence: readonly Evidence[]): Belief {
  return evidence.reduce(updated, first);
}

/** How likely each cause is there, the likeliest first; the rest up to 1 is that nothing is wrong. */
export function causeShares({ way, explanations }: Belief): { cause: Cause; p: number }[] {
  return causesOf(way)
    .map((cause) => ({
      cause,
      p: explanations.reduce((sum, { causes, p }) => (causes.includes(cause) ? sum + p : sum), 0),
    }))
    .sort((one, other) => other.p - one.p);
}

/** How likely the next try joins after a remedy: that of the belief updated by it, without making it. */
export function chanceOfJoining({ explanations }: Belief, remedy: Remedy): number {
  const cause = causeOfRemedy(remedy);
  const { works } = REMEDY_FACTS[remedy];
  let sum = 0;
  for (const { causes, p } of explanations) {
    const asIs = seeing(causes, 'joined');
    const at = cause === null ? -1 : causes.indexOf(cause);
    // At most two at once: the other one is what is left.
    const left = at < 0 ? causes : causes.slice(1 - at, 2 - at);
    sum += p * (at < 0 ? asIs : works * seeing(left, 'joined') + (1 - works) * asIs);
  }
  return sum;
}
