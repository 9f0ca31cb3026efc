import { conductorsById, labelsOf } from '../job/lookup.js';
import type { Job } from '../job/schema/job.js';
import type { Role } from '../job/schema/primitives.js';
import type { Box } from '../job/schema/survey.js';
import { COLOUR_WORDS } from '../practice/words.js';
import { capital } from '../units/capital.js';
import { perObject } from '../units/kept.js';

/** A cable of a box as everybody calls it. */
export interface CableName {
  cableId: string;
  /** `A` for the first, as it is drawn; empty where there is only one. */
  letter: string;
  /** What somebody called it, else what the labels of its conductors say, else `cable`. */
  word: string;
  /** Where it comes in, where that tells it from the others. */
  entry: string | null;
  /** The circuit its conductors are labelled with, where the box has several. */
  circuitId: string | null;
}

/** What a cable is called by the first of these roles that a label gives one of its conductors. */
const WORDS: readonly (readonly [Role, string])[] = [
  ['line', 'feed'],
  ['traveler', 'far switch'],
  ['load', 'load'],
  ['line-on', 'onward'],
  ['switched-line', 'switched feed'],
];

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Cables in the order they are drawn, told apart: no two have the same letter. */
export function cableNames(box: Box): readonly CableName[] {
  return namesOf(box);
}

const namesOf = perObject((box: Box): readonly CableName[] => {
  const labels = labelsOf(box);
  const entries = new Set(box.cables.map(({ entry }) => entry ?? ''));
  return box.cables.map(({ id, label, entry }, at) => {
    const own = box.conductors.flatMap((conductor) =>
      conductor.cableId === id ? (labels.get(conductor.id) ?? []) : [],
    );
    const circuits = new Set(own.flatMap(({ circuitId }) => circuitId ?? []));
    return {
      cableId: id,
      letter: box.cables.length > 1 ? letterAt(at) : '',
      word: label?.trim() || (WORDS.find(([role]) => own.some((one) => one.role === role))?.[1] ?? 'cable'),
      entry: entries.size > 1 ? entry?.trim() || null : null,
      circuitId: box.circuitIds.length > 1 && circuits.size === 1 ? ([...circuits][0] ?? null) : null,
    };
  });
});

/** `A` to `Z`, then `A2` and on. */
function letterAt(at: number): string {
  const round = Math.floor(at / LETTERS.length);
  return `${LETTERS[at % LETTERS.length]}${round > 0 ? round + 1 : ''}`;
}

/** `feed A`; with what else is known of it where that tells it apart: `feed A (top left, breaker 7)`. */
export function cableWords(box: Box, cableId: string, { circuits }: Pick<Job, 'circuits'>): string {
  const name = cableNames(box).find((entry) => entry.cableId === cableId);
  if (!name) return cableId;
  const breaker = circuits.find(({ id }) => id === name.circuitId)?.breaker;
  const apart = [name.entry, breaker && `breaker ${breaker}`].filter(Boolean).join(', ');
  return [name.word, name.letter, apart && `(${apart})`].filter(Boolean).join(' ');
}

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];
const ordinal = (at: number) => ORDINALS[at] ?? `${at + 1}th`;

/**
 * `the black of feed A`, `the second black of feed A` where it has two: a conductor by what one sees of it. A
 * known earth and the box have names too.
 */
export function conductorWords(box: Box, id: string, job: Pick<Job, 'circuits'>): string {
  const conductor = conductorsById(box).get(id);
  if (!conductor) return id === 'reference' ? 'a known earth' : id === 'box' ? 'the box' : id;
  const alike = box.conductors.filter(
    ({ cableId, colour }) => cableId === conductor.cableId && colour === conductor.colour,
  );
  const which = alike.length > 1 ? `${ordinal(alike.findIndex((entry) => entry.id === id))} ` : '';
  const colour = conductor.colour === 'unknown' ? 'one of unknown colour' : conductor.colour;
  if (conductor.cableId === undefined) return `the ${which}${colour} pigtail`;
  return `the ${which}${colour} of ${cableWords(box, conductor.cableId, job)}`;
}

/** Conductors as they are drawn, left to right: cable by cable, then what was made in the box. */
export function conductorsInOrder(box: Pick<Box, 'cables' | 'conductors'>): Box['conductors'] {
  return [
    ...box.cables.flatMap(({ id }) => box.conductors.filter(({ cableId }) => cableId === id)),
    ...box.conductors.filter(({ cableId }) => cableId === undefined),
  ];
}

/** `Black, feed A, second from left`: the conductor in hand, so that it cannot be taken for another. */
export function conductorTitle(box: Box, id: string, job: Pick<Job, 'circuits'>): string {
  const conductor = conductorsById(box).get(id);
  if (!conductor) return id;
  const colour = COLOUR_WORDS[conductor.colour];
  const where = conductor.cableId === undefined ? 'pigtail' : cableWords(box, conductor.cableId, job);
  const at = conductorsInOrder(box).findIndex((entry) => entry.id === id);
  return `${capital(colour)}, ${where}, ${ordinal(at)} from left`;
}
