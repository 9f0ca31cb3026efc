import type { Asked } from '../diagnose/candidates.js';
import { type PlaceInDoubt, placeInDoubtOf } from '../diagnose/diagnose.js';
import type { Form } from '../diagnose/forms.js';
import { likelihood } from '../diagnose/rank.js';
import type { Symptoms } from '../diagnose/vocabulary.js';
import { type JobLookup, lookup } from '../job/lookup.js';
import type { Reading } from '../job/schema/survey.js';
import { wiringOfHouse } from '../wire/wiring.js';
import { PlainDoubt, type PlainFault } from './plain-faults.js';
import { Random } from './random.js';
import { type TrueHouse, trueHouse } from './true-house.js';

/** A made-up house with a wired place, known to the engine by its file, to the plain copper by its wires. */
export interface DoubtedPlace {
  seed: number;
  house: TrueHouse;
  known: JobLookup;
  place: { boxId: string; position: number };
  plain: PlainDoubt;
  found: PlaceInDoubt;
}

/**
 * The place of a seed; null where nothing is planned in its house, or a conductor is not labelled.
 * @param labelled whether all of its conductors have to be
 */
export function doubtedPlace(seed: number, labelled = true): DoubtedPlace | null {
  const random = new Random(seed);
  const house = trueHouse(random);
  const isLabelled = house.job.boxes.every((box) =>
    box.conductors.every(
      ({ id, cableId, at }) => !cableId || at?.capped || box.labels.some((label) => label.conductorId === id),
    ),
  );
  const known = lookup(house.job);
  const wirings = wiringOfHouse(known, () => []).filter(({ ok }) => ok);
  const places = wirings.flatMap(({ boxId, places }) =>
    places
      .filter(({ device }) => device?.mount === 'box')
      .map(({ position }) => ({ boxId, position: position.index }))
      .filter((place) => !known.groups.get(`${place.boxId}/${place.position}`)),
  );
  if ((labelled && !isLabelled) || places.length === 0) return null;
  const place = random.pick(places);
  const found = placeInDoubtOf(place, known);
  const plans = wirings.map(({ boxId, plan }) => ({ boxId, ...plan }));
  return found
    ? { seed, house, known, place, plain: new PlainDoubt(house, plans, place), found: found.place }
    : null;
}

/** One fault found by following what is proposed. */
export interface Followed {
  cause: string;
  /** The true cause is first; or another is that nothing seen or read tells from it. */
  ends: 'first' | 'alike' | 'wrong';
  /** Tests until it was sure, and the fewest that would have done, told the fault beforehand. */
  tests: number;
  fewest: number;
  proposed: readonly Asked[];
}

/** As sure as it gets: this much on what it truly is, and on what nothing tells from it. */
const SURE = 0.9;
const MOST_TESTS = 10;

/** Follows the proposed tests at a place, answered by the plain copper, until one thing is sure. */
export function followed(doubted: DoubtedPlace, fault: PlainFault, seen: Symptoms): Followed {
  const { found } = doubted;
  const readings: Reading[] = [];
  const proposed: Asked[] = [];
  const alike = alikeWith(doubted, fault, seen);
  for (;;) {
    const { causes, next } = found.diagnosis({ seen, readings });
    const sure = causes
      .filter((cause) => alike.has(`${cause.cause}|${cause.position}`))
      .reduce((sum, { probability }) => sum + probability, 0);
    const asked = next && found.asked.find((one) => isSame(one, next));
    if (sure >= SURE || !asked || proposed.length === MOST_TESTS) {
      const [first] = causes;
      const isTrue = first?.cause === fault.cause;
      const isAlike = first !== undefined && alike.has(`${first.cause}|${first.position}`);
      return {
        cause: fault.cause,
        ends: isTrue ? 'first' : isAlike ? 'alike' : 'wrong',
        tests: proposed.length,
        fewest: fewestTests(doubted, fault, seen, alike),
        proposed,
      };
    }
    proposed.push(asked);
    readings.push(answer(doubted, fault, asked));
  }
}

const isSame = (one: Asked, other: Omit<Asked, 'stage'>) =>
  one.tool === other.tool &&
  one.arrangement === other.arrangement &&
  one.points.join() === other.points.join() &&
  JSON.stringify([one.breakers, one.switches]) === JSON.stringify([other.breakers, other.switches]);

function answer({ plain, seed }: DoubtedPlace, fault: PlainFault, asked: Asked): Reading {
  const { minutes: _, stage, ...reading } = asked;
  return {
    id: `r${seed}`,
    at: '2026-05-04T09:00:00Z',
    ...reading,
    value: plain.reading(fault, { ...reading, dead: stage === 'dead' }),
  };
}

/** Causes that show what was seen and answer every reading alike as the form that fits the fault best. */
function alikeWith(doubted: DoubtedPlace, fault: PlainFault, seen: Symptoms): Set<string> {
  const { found } = doubted;
  const answers = found.asked.map((asked) => answer(doubted, fault, asked));
  const sure = (form: Form) => likelihood(form, seen);
  const of = (form: Form) =>
    answers.reduce(
      (all, reading, at) => {
        const row = found.shown.row(found.asked[at] as Asked, form.slip);
        return all + Math.log(row[outcomeOf(reading)] ?? 0.001);
      },
      Math.log(sure(form)),
    );
  const weights = found.forms.map((form) => ({ key: `${form.cause}|${form.position}`, form, log: of(form) }));
  const best = Math.max(...weights.filter(({ form }) => form.cause === fault.cause).map(({ log }) => log));
  return new Set(
    weights
      .filter(({ log, form }) => log >= best - ALIKE || form.cause === fault.cause)
      .map(({ key }) => key),
  );
}

/** As likely, but for what several values of a symptom or the spread of a meter take. */
const ALIKE = Math.log(20);

function outcomeOf({ tool, value }: Reading): string {
  if (typeof value === 'string') return value;
  if (tool !== 'ohms') return value < 3 ? 'under-3' : 'supply';
  const band = OHM_BOUNDS.find(([most]) => value <= most);
  return band ? band[1] : 'above';
}

const OHM_BOUNDS: readonly [number, string][] = [
  [1, 'to-1'],
  [5, 'to-5'],
  [50, 'to-50'],
  [2000, 'to-2000'],
];

/** The fewest tests, of all there are, after which the fault's causes are sure: none, one, two, or three. */
function fewestTests(
  doubted: DoubtedPlace,
  fault: PlainFault,
  seen: Symptoms,
  alike: ReadonlySet<string>,
): number {
  const { found } = doubted;
  const danger = (seen.breaker ?? 'holds') !== 'holds';
  const answers = found.asked
    .filter(({ stage }) => !danger || stage === 'dead')
    .map((asked) => answer(doubted, fault, asked));
  const sureAfter = (readings: readonly Reading[]) =>
    found
      .diagnosis({ seen, readings }, false)
      .causes.filter((cause) => alike.has(`${cause.cause}|${cause.position}`))
      .reduce((sum, { probability }) => sum + probability, 0);
  if (sureAfter([]) >= SURE) return 0;
  if (answers.some((one) => sureAfter([one]) >= SURE)) return 1;
  for (const [at, one] of answers.entries())
    for (const other of answers.slice(at + 1)) if (sureAfter([one, other]) >= SURE) return 2;
  return 3;
}

/** A fault of a seeded place that shows, and what it shows; null where the seed's house has no such place. */
export function seededFault(
  seed: number,
): { doubted: DoubtedPlace; fault: PlainFault; seen: Symptoms } | null {
  const doubted = doubtedPlace(seed);
  if (!doubted) return null;
  const { plain } = doubted;
  const random = new Random(seed * 7 + 1);
  const sound = JSON.stringify(plain.symptoms({ cause: 'danger' }));
  const faults = plain.faults();
  while (faults.length > 0) {
    const [fault] = faults.splice(random.int(0, faults.length - 1), 1);
    const seen = fault && plain.symptoms(fault);
    if (fault && seen && JSON.stringify(seen) !== sound) return { doubted, fault, seen };
  }
  return null;
}
