import { performance } from 'node:perf_hooks';

/**
 * A speed the product promises, beside something measured in the same run that takes out how fast the machine
 * happens to be.
 */
export interface Row {
  what: string;
  median: number;
  /** Milliseconds. */
  bound: number;
  reference: string;
  referenceMs: number;
}

const rounds = Number(process.argv[2] ?? 15);

/** The middle of `rounds` runs, in ms, after three that warm up. */
export async function median(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let round = -3; round < rounds; round++) {
    const begun = performance.now();
    await work();
    if (round >= 0) times.push(performance.now() - begun);
  }
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)] as number;
}

/** A million floating-point steps: what this machine does in about a millisecond or few. */
export function steps(): number {
  let value = 0.5;
  for (let step = 0; step < 1_000_000; step++) value = 3.7 * value * (1 - value);
  return value;
}

export const STEPS = 'a million float steps';
