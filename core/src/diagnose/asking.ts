import type { Asked } from './candidates.js';
import type { Form } from './forms.js';
import type { ShownBy } from './shown-by.js';

/** A reading that tells causes apart. */
export interface NextReading extends Omit<Asked, 'stage'> {
  /** Bits it is expected to tell. */
  gain: number;
}

/** What is known of the causes so far. */
export interface Suspect {
  form: Form;
  /** The chance of it, of all forms together. */
  chance: number;
}

/** Less than this many bits is nothing told. */
const LEAST_GAIN = 0.02;
/** A suspect less likely than this is asked about no more. */
const LEAST_CHANCE = 1e-4;

/** The reading that tells most a minute; null: none tells anything. */
export function nextReading(
  asked: readonly Asked[],
  suspects: readonly Suspect[],
  shown: ShownBy,
): NextReading | null {
  const likely = suspects.filter(({ chance }) => chance > LEAST_CHANCE);
  let best: NextReading | null = null;
  for (const { stage, ...reading } of asked) {
    const gain = gainOf({ stage, ...reading }, likely, shown);
    if (gain < LEAST_GAIN) continue;
    if (!best || gain / reading.minutes > best.gain / best.minutes + 1e-9) best = { ...reading, gain };
  }
  return best;
}

/** Bits a reading tells about which cause it is, whatever its form. */
function gainOf(asked: Asked, suspects: readonly Suspect[], shown: ShownBy): number {
  const byOutcome = new Map<string, Map<string, number>>();
  const before = new Map<string, number>();
  for (const { form, chance } of suspects) {
    const key = `${form.cause}|${form.position}`;
    before.set(key, (before.get(key) ?? 0) + chance);
    for (const [outcome, likely] of Object.entries(shown.row(asked, form.slip))) {
      const after = byOutcome.get(outcome) ?? new Map<string, number>();
      after.set(key, (after.get(key) ?? 0) + chance * likely);
      byOutcome.set(outcome, after);
    }
  }
  let gain = bits([...before.values()]);
  const total = sum([...before.values()]);
  for (const after of byOutcome.values())
    gain -= (sum([...after.values()]) / total) * bits([...after.values()]);
  return gain;
}

const sum = (values: readonly number[]) => values.reduce((all, value) => all + value, 0);

/** Entropy of weights that need not sum to 1. */
function bits(weights: readonly number[]): number {
  const total = sum(weights);
  if (total <= 0) return 0;
  return weights.reduce(
    (all, weight) => (weight > 0 ? all - (weight / total) * Math.log2(weight / total) : all),
    0,
  );
}
