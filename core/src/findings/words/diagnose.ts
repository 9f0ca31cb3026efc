import type { NextReading } from '../../diagnose/asking.js';
import type { RankedCause } from '../../diagnose/diagnose.js';
import type { FaultCause, SymptomKind, SymptomOf } from '../../diagnose/vocabulary.js';
import type { JobLookup } from '../../job/lookup.js';
import { profileOf } from '../../practice/profiles.js';
import type { Words } from '../../practice/words.js';
import { capital } from '../../units/capital.js';
import { listed } from './stops.js';
import { endWords, type WiringInWords } from './wiring.js';

/** What a cause is called, and what is done about it once the box is off and proved dead. */
interface CauseText {
  name: (words: Words) => string;
  /** @param ends the ends concerned, in words; empty where the cause names none */
  fix: (ends: string, words: Words) => readonly string[];
  /** It is done with the box closed, or not at the box at all: nobody has to prove anything first. */
  outside?: true;
}

const at = (ends: string, before = '') => (ends === '' ? '' : `${before}${ends}`);

const CAUSES: Record<FaultCause, CauseText> = {
  'breaker-off': {
    name: ({ circuitBreaker }) => `The ${circuitBreaker} is off`,
    fix: (_, { circuitBreaker }) => [
      `Look whether the ${circuitBreaker} is off or has tripped; one that trips again is left off, and looked into`,
    ],
    outside: true,
  },
  'cut-out-pulled': {
    name: () => 'The cut-out is pulled',
    fix: () => ['Look at the device’s cut-out tab, and push it home'],
    outside: true,
  },
  'line-load-exchanged': {
    name: ({ roles }) => `${capital(roles.line)} and ${roles.load} are exchanged`,
    fix: (ends, { roles }) => [
      `Look what is on the ${roles.line} and on the ${roles.load} of the device${at(ends, ': ')}`,
      'Put each on its own terminal as the plan draws it',
    ],
  },
  'line-neutral-exchanged': {
    name: ({ roles }) => `${capital(roles.line)} and ${roles.neutral} are exchanged`,
    fix: (ends, { roles }) => [
      `Look what is on the ${roles.line} and on the ${roles.neutral} of the device${at(ends, ': ')}`,
      'Put each on its own terminal as the plan draws it',
    ],
  },
  'neutral-load-exchanged': {
    name: ({ roles }) => `${capital(roles.neutral)} and ${roles.load} are exchanged`,
    fix: (ends, { roles }) => [
      `Leave it off: switched on, this can be a dead short. Look what is on the ${roles.neutral} and on the ${roles.load}${at(ends, ': ')}`,
      'Put each on its own terminal as the plan draws it',
    ],
  },
  'loads-exchanged': {
    name: () => 'Two loads are exchanged',
    fix: (ends) => [`Look which lamp each load wire feeds${at(ends, ': ')}`, 'Exchange the two'],
  },
  'traveler-common-exchanged': {
    name: ({ roles }) => `A ${roles.traveler} and the common are exchanged`,
    fix: (ends, { roles }) => [
      `Look at the common of the far switch and at the ${roles.traveler} here${at(ends, ': ')}`,
      'Put each where the plan draws it, in both boxes',
    ],
  },
  'line-loose': {
    name: ({ roles }) => `The ${roles.line} is loose`,
    fix: (ends, { roles }) => [`Tug every ${roles.line}${at(ends, ', first ')}`, 'Make the joint anew'],
  },
  'load-loose': {
    name: ({ roles }) => `The ${roles.load} is loose`,
    fix: (ends, { roles }) => [`Tug every ${roles.load}${at(ends, ', first ')}`, 'Make the joint anew'],
  },
  'neutral-loose': {
    name: ({ roles }) => `A ${roles.neutral} is loose`,
    fix: (ends, { roles }) => [
      `Every circuit of the joint off: tug every ${roles.neutral}${at(ends, ', first ')}`,
      'Make the joint anew',
    ],
  },
  'traveler-loose': {
    name: ({ roles }) => `A ${roles.traveler} is loose`,
    fix: (ends, { roles }) => [
      `Tug every ${roles.traveler}, in both boxes${at(ends, ', first ')}`,
      'Make the joint anew',
    ],
  },
  'line-on-not-carried': {
    name: ({ roles }) => `The ${roles.line} is not carried on`,
    fix: (ends, { roles }) => [
      `Look for what ran on through the old switch${at(ends, ': ')}`,
      `Put it into the joint of the ${roles.line}`,
    ],
  },
  'neutral-not-carried': {
    name: ({ roles }) => `The ${roles.neutral} is not carried on`,
    fix: (ends, { roles }) => [
      `Every circuit of the joint off: look for the ${roles.neutral} that was left out${at(ends, ': ')}`,
      'Put it into its joint',
    ],
  },
  'neutral-of-other-circuit': {
    name: ({ roles }) => `The ${roles.neutral} is another circuit’s`,
    fix: (ends, { roles }) => [
      `Both circuits off: look in which joint it is${at(ends, ': ')}`,
      `Put it into the joint of its own circuit’s ${roles.neutral}`,
    ],
  },
  'line-load-joined': {
    name: ({ roles }) => `${capital(roles.line)} and ${roles.load} touch, or are joined`,
    fix: (ends, { roles }) => [
      `Look for the ${roles.load} in the joint of the ${roles.line}, and for bare copper that touches${at(ends, ': ')}`,
      'Part them; no copper shows below a connector',
    ],
  },
  'line-fault': {
    name: ({ roles, ground }) => `The ${roles.line} touches ${ground} or ${roles.neutral}`,
    fix: (ends) => [
      `Leave the breaker off. Look for insulation that is nicked, and for copper at the metal${at(ends, ': ')}`,
      'What is not found in this box is an electrician’s work',
    ],
  },
  'load-fault': {
    name: ({ roles, ground }) => `The ${roles.load} touches ${ground} or ${roles.neutral}`,
    fix: (ends) => [
      `Leave it off. Look at the box and at the fitting for copper that touches${at(ends, ': ')}`,
      'What is not found there is an electrician’s work',
    ],
  },
  'lamp-out': {
    name: () => 'The lamp is out',
    fix: () => ['Put in a lamp that is known to work'],
    outside: true,
  },
  'lamp-not-dimmable': {
    name: () => 'The lamp cannot be dimmed',
    fix: () => ['Read the lamp’s marking; put in one marked dimmable'],
    outside: true,
  },
  'bulb-type-wrong': {
    name: () => 'The bulb type is set wrong',
    fix: () => ['Set the bulb type that the lamps are, or run the calibration'],
    outside: true,
  },
  'low-end-too-low': {
    name: () => 'The low end is set too low',
    fix: () => ['Raise the low end until the lamp stays steady'],
    outside: true,
  },
  'below-minimum': {
    name: () => 'The load is too small for the device',
    fix: () => ['Add up the lamps against the least load of the device; a bypass part, or a larger load'],
  },
  'bypass-missing': {
    name: () => 'The bypass part is missing',
    fix: () => ['Look whether the bypass part is at the fitting or in the box; fit it'],
  },
  'power-on-state': {
    name: () => 'It comes on, or stays off, by its setting',
    fix: () => ['Set what the device does when power returns'],
    outside: true,
  },
  'relay-welded': {
    name: () => 'The contact is welded',
    fix: () => ['With the device out the lamp goes dark: put in another device'],
  },
  'device-dead': {
    name: () => 'The device is dead',
    fix: () => ['Look at its cut-out, and at what feeds it; where both are sound, put in another device'],
  },
  'behind-device': {
    name: () => 'Conductors lie behind the device',
    fix: () => ['Take it out, and fold the conductors to the back and the sides'],
  },
  danger: {
    name: () => 'Something is hot, burning or live where it must not be',
    fix: () => ['Leave the breaker off, and call an electrician'],
    outside: true,
  },
};

export function causeName(cause: FaultCause, known: JobLookup): string {
  return CAUSES[cause].name(profileOf(known.job).words);
}

/** Whether it is put right with hands at wires: the box is dead and proved before. */
export const isAtWires = (cause: FaultCause): boolean => CAUSES[cause].outside !== true;

/** What is looked at and done, step by step; what is done at wires begins with the proof. */
export function fixSteps(
  { cause, conductorIds }: Pick<RankedCause, 'cause' | 'conductorIds'>,
  wiring: WiringInWords,
  known: JobLookup,
): string[] {
  const { fix, outside } = CAUSES[cause];
  const ends = listed(conductorIds.map((id) => endWords(wiring, id, known)));
  const steps = fix(ends, profileOf(known.job).words).map((text) => `${text}.`);
  return outside ? steps : ['Switch off, take the device out, and prove dead.', ...steps];
}

/** Where the figures beside causes come from. */
export const HOW_LIKELY =
  'By what each fault would show on a model of this box, against what was seen and read; and by how usual it ' +
  'is, an estimate of this program until this job has its own.';

/** At symptoms of danger, in place of every live test. */
export const DANGER_TEXT =
  'Switch the breaker off and leave it off. Nothing is tried again with power on: find the cause dead, ' +
  'or call an electrician.';

/** The kinds of symptoms in the order they are asked for: the question, and what each answer is called. */
export const SYMPTOM_WORDS: {
  readonly [Kind in SymptomKind]: {
    question: string;
    values: Readonly<Record<SymptomOf<Kind>, string>>;
  };
} = {
  indicator: { question: 'Its light', values: { off: 'dark', on: 'lit', blink: 'blinks' } },
  control: {
    question: 'Its key works the load',
    values: { none: 'not at all', partial: 'only partly, or another’s', ok: 'yes' },
  },
  load: {
    question: 'The lamp, worked from the wall',
    values: {
      off: 'never comes on',
      on: 'never goes off',
      dim: 'only dim',
      flicker: 'flickers',
      glow: 'glows when off',
      follows: 'follows',
    },
  },
  neighbour: {
    question: 'What else hangs on this box',
    values: { dead: 'dead', bright: 'too bright', dim: 'dim', ok: 'as before' },
  },
  breaker: {
    question: 'The breaker',
    values: {
      holds: 'holds',
      'trips-at-on': 'trips at once',
      'trips-at-switching': 'trips when it switches',
    },
  },
  far: {
    question: 'The other place of this light',
    values: { works: 'works', dead: 'does nothing', 'one-way': 'works in one position only' },
  },
  feel: {
    question: 'To the hand and ear',
    values: {
      heat: 'hot',
      crackle: 'crackles',
      tingle: 'tingles',
      tilted: 'sits tilted or proud',
      none: 'nothing odd',
    },
  },
  restarts: { question: 'It starts anew when it switches', values: { yes: 'yes', no: 'no' } },
};

/** Why a reading is the next one. */
export function nextReadingWhy({ gain }: Pick<NextReading, 'gain'>, causes: readonly string[]): string {
  const sure = gain >= 0.5 ? 'It tells apart' : 'It says a little about';
  return `${sure} what is most likely: ${listed(
    causes.map((name) => name.charAt(0).toLowerCase() + name.slice(1)),
    'or',
  )}.`;
}
