import type { Form } from './forms.js';
import { type FaultCause, SYMPTOM_KINDS, SYMPTOMS, type Symptoms } from './vocabulary.js';

/** How often each is what it was, among what goes wrong at all; houses tell more as they are worked on. */
const USUAL: Readonly<Record<FaultCause, number>> = {
  'breaker-off': 6,
  'cut-out-pulled': 5,
  'line-load-exchanged': 7,
  'line-neutral-exchanged': 3,
  'neutral-load-exchanged': 2,
  'loads-exchanged': 4,
  'traveler-common-exchanged': 6,
  'line-loose': 7,
  'load-loose': 6,
  'neutral-loose': 8,
  'traveler-loose': 4,
  'line-on-not-carried': 6,
  'neutral-not-carried': 6,
  'neutral-of-other-circuit': 3,
  'line-load-joined': 3,
  'line-fault': 2,
  'load-fault': 2,
  'lamp-out': 5,
  'lamp-not-dimmable': 5,
  'bulb-type-wrong': 5,
  'low-end-too-low': 4,
  'below-minimum': 3,
  'bypass-missing': 3,
  'power-on-state': 3,
  'relay-welded': 1,
  'device-dead': 2,
  'behind-device': 3,
  danger: 1,
};

/** A cause that was found on this job counts like so many cases elsewhere. */
const FOUND_HERE = 8;

/** How usual a cause is in this house. */
export function usual(cause: FaultCause, found: ReadonlyMap<FaultCause, number>): number {
  return USUAL[cause] + FOUND_HERE * (found.get(cause) ?? 0);
}

/** The chance that something is seen otherwise than the form has it. */
const SEEN_WRONG = 1e-4;

/** The chance of what was seen, under a form. */
export function likelihood({ shows }: Pick<Form, 'shows'>, seen: Symptoms): number {
  let chance = 1;
  for (const kind of SYMPTOM_KINDS) {
    const value = seen[kind];
    if (value === undefined) continue;
    const can: readonly string[] | null = shows[kind];
    if (can === null) chance /= SYMPTOMS[kind].length;
    else chance *= can.includes(value) ? (1 - SEEN_WRONG) / can.length : SEEN_WRONG;
  }
  return chance;
}
