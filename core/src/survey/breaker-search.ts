/** One step of finding the breaker of a box: these off, then look whether it is still alive. */
export interface SearchStep {
  /** Circuits to have off for the look; all other candidates on. */
  off: string[];
  /** Breakers that have to be turned to get there. */
  turns: number;
}

export interface SearchAnswer {
  off: readonly string[];
  alive: boolean;
}

/**
 * Candidates that still can feed the box: alive with some off means it is none of those; dead means it is one
 * of them. Empty when the answers contradict each other, or the box is fed by two.
 */
export function remaining(candidates: readonly string[], answers: readonly SearchAnswer[]): string[] {
  return candidates.filter((id) => answers.every((answer) => answer.off.includes(id) !== answer.alive));
}

/**
 * The look that halves the candidates, turning as few breakers as it can: what is off already and still in
 * question stays off. Null when one or none is left.
 */
export function nextLook(
  candidates: readonly string[],
  answers: readonly SearchAnswer[],
  isOff: (id: string) => boolean,
): SearchStep | null {
  const left = remaining(candidates, answers);
  if (left.length < 2) return null;
  const half = Math.floor(left.length / 2);
  const off = [...left].sort((a, b) => Number(isOff(b)) - Number(isOff(a))).slice(0, half);
  const turns = left.filter((id) => off.includes(id) !== isOff(id)).length;
  return { off, turns };
}

/** Looks the search takes at most from here. */
export function looksLeft(candidates: readonly string[], answers: readonly SearchAnswer[]): number {
  return Math.ceil(Math.log2(Math.max(1, remaining(candidates, answers).length)));
}
