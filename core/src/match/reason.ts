/** The rules a device is judged by at a place. */
export const MATCH_RULES = [
  'hazard',
  'practice',
  'voltage',
  'neutral',
  'ground',
  'line-load',
  'load-kind',
  'rating',
  'minimum-load',
  'dimmable',
  'channels',
  'multi-location',
  'gangs',
  'body',
  'depth',
  'fill',
  'packing',
  'plate',
  'shade',
  'flush',
  'radio',
  'signal',
  'hub',
  'platform',
  'router',
  'feel',
  'colour',
  'need',
  'sensor',
  'speeds',
  'socket-rating',
  'bulb-family',
  'battery-only',
] as const;
export type MatchRule = (typeof MATCH_RULES)[number];

type Outcome = 'block' | 'warn' | 'unproved' | 'note';

export type FactValue = string | number | boolean | null | readonly string[];

/**
 * What an engine established: data. Its sentence is made from `code` and `facts` in `sentences.ts`, in one
 * place.
 */
export interface Reason {
  rule: MatchRule;
  outcome: Outcome;
  code: string;
  facts: Readonly<Record<string, FactValue>>;
}

export type Verdict = 'fits' | 'fits-with' | 'unproved' | 'no';

export function verdictOf(reasons: readonly Reason[], parts: readonly string[]): Verdict {
  if (reasons.some((reason) => reason.outcome === 'block')) return 'no';
  if (reasons.some((reason) => reason.outcome === 'unproved')) return 'unproved';
  return parts.length > 0 ? 'fits-with' : 'fits';
}

/** A rule that has nothing to say. Shared: two hundred devices at sixty places ask a dozen rules each. */
export const NO_REASONS: readonly Reason[] = [];
