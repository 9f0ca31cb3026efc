import type { JobLookup } from '../job/lookup.js';
import { type BoxWiring, wiringOfUnit } from '../wire/wiring.js';
import { type NextReading, nextReading } from './asking.js';
import { withEitherWayAssumed } from './assumed.js';
import { type Asked, askedKey, candidates, stageOf } from './candidates.js';
import { keyOf, type SeenAndRead, type Weighed, weighed } from './evidence.js';
import { type Form, formsOf } from './forms.js';
import { type Scene, sceneAt } from './scene.js';
import { ShownBy } from './shown-by.js';
import type { FaultCause, SymptomKind, Symptoms } from './vocabulary.js';

/** A cause at a place, in the form that fits best. */
export interface RankedCause {
  cause: FaultCause;
  position: number | null;
  conductorIds: readonly string[];
  probability: number;
  /** It shows everything that was seen, leaves some of it open, or contradicts it. */
  fits: 'shows' | 'open' | 'contradicts';
  /** It is left to an electrician, or at least stopped at once. */
  stop: boolean;
  /** Of each kind that was seen, what it shows; null: left open. */
  predicts: { readonly [Kind in SymptomKind]?: string | null };
}

export interface Diagnosis {
  /** The most likely first; their probabilities sum to 1. */
  causes: readonly RankedCause[];
  /** Null: no reading tells them apart, and each is looked at. */
  next: NextReading | null;
  /** What was seen is a danger in itself. */
  stop: boolean;
}

/** Symptoms that are a danger in themselves, whatever the cause. */
function isDanger({ feel, breaker }: Symptoms): boolean {
  return feel === 'heat' || feel === 'crackle' || feel === 'tingle' || (breaker ?? 'holds') !== 'holds';
}

/** One place that does not work: its faults are made on the electrics model once, whatever is asked then. */
export class PlaceInDoubt {
  readonly forms: readonly Form[];
  readonly asked: readonly Asked[];
  readonly shown: ShownBy;

  constructor(readonly scene: Scene) {
    this.forms = formsOf(scene);
    this.asked = candidates(scene);
    this.shown = new ShownBy(scene);
  }

  /**
   * Causes by what was seen and read, and the reading that tells most about them.
   * @param asks whether a reading is looked for
   */
  diagnosis(evidence: SeenAndRead, asks = true): Diagnosis {
    const forms = weighed(this.forms, evidence, this.scene, this.shown);
    const stop = isDanger(evidence.seen);
    const total = forms.reduce((sum, { weight, prior }) => sum + weight * prior, 0);
    const suspects = forms.map(({ form, weight, prior }) => ({ form, chance: (weight * prior) / total }));
    // Made again, a reading says no more.
    const made = new Set(
      evidence.readings.map((one) => askedKey({ ...one, stage: stageOf(one, this.scene) })),
    );
    const asked = this.asked.filter((one) => (!stop || one.stage === 'dead') && !made.has(askedKey(one)));
    return {
      causes: ranked(forms, evidence.seen),
      next: asks && total > 0 ? nextReading(asked, suspects, this.shown) : null,
      stop,
    };
  }
}

/**
 * The place with everything that hangs on it, ready to be asked; and how its box is wired.
 * @returns undefined where no device is planned there that hangs on wires
 */
export function placeInDoubtOf(
  { boxId, position }: { boxId: string; position: number },
  known: JobLookup,
): { place: PlaceInDoubt; wiring: BoxWiring } | undefined {
  const assumed = withEitherWayAssumed({ boxId, position }, known);
  const unitOf = (by: JobLookup) => {
    const box = by.boxes.get(boxId);
    return box && wiringOfUnit(box, by, NOTHING_AGAINST);
  };
  const unit = unitOf(assumed);
  const scene = unit && sceneAt(unit, { boxId, position }, assumed);
  const wiring = (assumed === known ? unit : unitOf(known))?.find((entry) => entry.boxId === boxId);
  return wiring && scene && { place: new PlaceInDoubt(scene), wiring };
}

/** What match has against a device is no matter once it is in the wall. */
const NOTHING_AGAINST = () => [];

function ranked(forms: readonly Weighed[], seen: Symptoms): RankedCause[] {
  const byCause = new Map<string, Weighed[]>();
  for (const one of forms) byCause.set(keyOf(one.form), [...(byCause.get(keyOf(one.form)) ?? []), one]);
  const entries = [...byCause.values()].map((list) => {
    const best = list.reduce((most, one) => (one.weight > most.weight ? one : most));
    const sum = list.reduce((all, { weight, prior }) => all + weight * prior, 0);
    return { best: best.form, weight: sum, fits: fitOf(best.form, seen) };
  });
  keepContradictionsDown(entries);
  const total = entries.reduce((sum, { weight }) => sum + weight, 0);
  return entries
    .sort((a, b) => b.weight - a.weight)
    .map(({ best, weight, fits }) => ({
      cause: best.cause,
      position: best.position,
      conductorIds: best.conductorIds,
      probability: total > 0 ? weight / total : 1 / entries.length,
      fits,
      stop: callsForStop(best),
      predicts: predictsOf(best, seen),
    }));
}

/** However rare, what shows all that was seen comes before what contradicts it. */
function keepContradictionsDown(entries: { weight: number; fits: RankedCause['fits'] }[]): void {
  const weights = (fits: RankedCause['fits']) =>
    entries.filter((entry) => entry.fits === fits).map(({ weight }) => weight);
  const least = Math.min(...weights('shows'));
  const most = Math.max(...weights('contradicts'));
  if (!Number.isFinite(least) || most < least) return;
  for (const entry of entries) if (entry.fits === 'contradicts') entry.weight *= (0.5 * least) / most;
}

function fitOf({ shows }: Form, seen: Symptoms): RankedCause['fits'] {
  let fits: RankedCause['fits'] = 'shows';
  for (const [kind, value] of Object.entries(seen)) {
    const can: readonly string[] | null = shows[kind as SymptomKind];
    if (can === null) fits = 'open';
    else if (!can.includes(value)) return 'contradicts';
  }
  return fits;
}

/** A short, danger, or a shared neutral adrift. */
function callsForStop({ cause, shows }: Form): boolean {
  return (
    cause === 'danger' ||
    shows.breaker?.some((value) => value !== 'holds') === true ||
    shows.neighbour?.includes('bright') === true
  );
}

function predictsOf({ shows }: Form, seen: Symptoms): RankedCause['predicts'] {
  return Object.fromEntries(
    Object.entries(seen).map(([kind, value]) => {
      const can: readonly string[] | null = shows[kind as SymptomKind];
      return [kind, can === null ? null : can.includes(value) ? value : (can[0] ?? null)];
    }),
  );
}
