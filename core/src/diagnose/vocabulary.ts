/** What an installer sees, hears and feels at a place, kind by kind. */
export const SYMPTOMS = {
  indicator: ['off', 'on', 'blink'],
  control: ['none', 'partial', 'ok'],
  load: ['off', 'on', 'dim', 'flicker', 'glow', 'follows'],
  neighbour: ['dead', 'bright', 'dim', 'ok'],
  breaker: ['holds', 'trips-at-on', 'trips-at-switching'],
  far: ['works', 'dead', 'one-way'],
  feel: ['heat', 'crackle', 'tingle', 'tilted', 'none'],
  restarts: ['yes', 'no'],
} as const;
export type SymptomKind = keyof typeof SYMPTOMS;
export type SymptomOf<Kind extends SymptomKind> = (typeof SYMPTOMS)[Kind][number];
export const SYMPTOM_KINDS = Object.keys(SYMPTOMS) as SymptomKind[];

/** What was seen; a kind that is not named is unknown. */
export type Symptoms = { readonly [Kind in SymptomKind]?: SymptomOf<Kind> };

/** What a form of a fault can show of each kind; null: left open. */
export type Shows = { readonly [Kind in SymptomKind]: readonly SymptomOf<Kind>[] | null };

export const FAULT_CAUSES = [
  'breaker-off',
  'cut-out-pulled',
  'line-load-exchanged',
  'line-neutral-exchanged',
  'neutral-load-exchanged',
  'loads-exchanged',
  'traveler-common-exchanged',
  'line-loose',
  'load-loose',
  'neutral-loose',
  'traveler-loose',
  'line-on-not-carried',
  'neutral-not-carried',
  'neutral-of-other-circuit',
  'line-load-joined',
  'line-fault',
  'load-fault',
  'lamp-out',
  'lamp-not-dimmable',
  'bulb-type-wrong',
  'low-end-too-low',
  'below-minimum',
  'bypass-missing',
  'power-on-state',
  'relay-welded',
  'device-dead',
  'behind-device',
  'danger',
] as const;
export type FaultCause = (typeof FAULT_CAUSES)[number];
