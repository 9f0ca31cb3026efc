import type { WattsVerdict } from '../../commission/live-watts.js';
import type { Advice } from '../../commission/pairing/advice.js';
import type { Cause, Look, Remedy, Seen } from '../../commission/pairing/causes.js';
import { isCause, isSeen } from '../../commission/pairing/evidence.js';
import type { Light } from '../../commission/pairing/manner.js';
import type { UpdateHelp } from '../../commission/pairing/pairing-next.js';
import type { ControlPath, PairingStep } from '../../commission/pairing/stands.js';
import { plural } from '../../units/plural.js';

/** What keeps a device out, in few words and in a sentence. */
export const CAUSE_WORDS: Readonly<Record<Cause, { name: string; says: string }>> = {
  'no-power': {
    name: 'no power',
    says: 'The device has no power: its breaker is off or its cut-out is pulled.',
  },
  broken: {
    name: 'radio broken',
    says: 'Its radio does not work: everything else was put right or ruled out.',
  },
  'hub-missing': { name: 'hub not up', says: 'The hub it works through is not set up or not online.' },
  'hub-closed': { name: 'hub not joining', says: 'The hub is not in its joining mode.' },
  'not-in-mode': { name: 'not in pairing mode', says: 'The device is not in pairing mode.' },
  'mobile-data': {
    name: 'phone on mobile data',
    says: 'The phone has left the network for mobile data while the device waits on it.',
  },
  'needs-alternate': {
    name: 'needs its other mode',
    says: 'It joins only by its alternate pairing mode here.',
  },
  'registered-elsewhere': {
    name: 'registered elsewhere',
    says: 'It still belongs to another account or hub, which has to let it go.',
  },
  'wrong-band': {
    name: 'wrong band',
    says: 'The phone is on the 5 GHz network and the device hears 2.4 GHz only.',
  },
  'wrong-password': {
    name: 'wrong password',
    says: 'The network password is wrong, by a letter or by its case.',
  },
  'weak-signal': { name: 'weak signal', says: 'The signal at the device is too weak to join.' },
  'hub-full': { name: 'hub full', says: 'The hub takes no more devices.' },
  'router-full': { name: 'router full', says: 'The router takes no more clients.' },
};

/** What to do about it: the button, and how. */
export const REMEDY_WORDS: Readonly<Record<Remedy, { does: string; how: string; done: string }>> = {
  'power-on': {
    does: 'Give it power',
    how: 'Breaker on, cut-out pushed in. The panel entry records the breaker.',
    done: 'power is on',
  },
  replace: {
    does: 'Take another unit',
    how: 'Off at the breaker and proved dead first; then a new unit of the model in its place.',
    done: 'unit replaced',
  },
  'set-up-hub': {
    does: 'Set the hub up',
    how: 'Place it, give it power and network, wait until it is online.',
    done: 'hub is online',
  },
  'open-hub': {
    does: 'Open the hub for joining',
    how: 'Start the joining mode in the hub’s app; it closes again after a few minutes.',
    done: 'hub is joining',
  },
  'press-mode': {
    does: 'Put it in pairing mode',
    how: 'Press as its record says, until the light shows the pattern.',
    done: 'light shows pairing mode',
  },
  'data-off': {
    does: 'Turn mobile data off',
    how: 'Flight mode on, Wi-Fi on, until the device has joined.',
    done: 'mobile data is off',
  },
  'alternate-mode': {
    does: 'Use its alternate mode',
    how: 'Press as its record says for the alternate mode, and choose that in the app.',
    done: 'alternate mode is on',
  },
  release: {
    does: 'Have it let go',
    how: 'Remove it from the old account or hub there, then set it back to new.',
    done: 'it was let go',
  },
  'join-24': {
    does: 'Put the phone on 2.4 GHz',
    how: 'Choose the 2.4 GHz network, or turn 5 GHz off at the router for now.',
    done: 'phone is on 2.4 GHz',
  },
  'type-password': {
    does: 'Type the password again',
    how: 'Show the letters, type them from the client’s paper, mind upper and lower case.',
    done: 'password typed again',
  },
  'bring-closer': {
    does: 'Bring the signal to it',
    how: 'Put a repeater between, or the hub or router nearer, or pair it on the bench.',
    done: 'signal is better',
  },
  'free-hub': {
    does: 'Make room on the hub',
    how: 'Remove devices that are gone, or add a second hub.',
    done: 'hub has room',
  },
  'free-router': {
    does: 'Make room on the router',
    how: 'Remove clients that are gone, raise its limit, or add an access point.',
    done: 'router has room',
  },
  again: { does: 'Try again', how: 'Nothing has to be changed for it.', done: 'tried again' },
};

/** A question whose answer tells causes apart, with the words of both answers. */
export const LOOK_WORDS: Readonly<Record<Look, { asks: string; good: string; bad: string }>> = {
  listed: { asks: 'Does the list of clients name it?', good: 'named there', bad: 'not named' },
  power: { asks: 'Does it show any light, or work from the wall?', good: 'it has power', bad: 'dead' },
  'hub-there': { asks: 'Is the hub online in its app?', good: 'online', bad: 'not online' },
  'hub-open': { asks: 'Is the hub in its joining mode now?', good: 'joining', bad: 'not joining' },
  light: { asks: 'Does its light show pairing mode?', good: 'this pattern', bad: 'another or none' },
  'mobile-data': { asks: 'Is the phone off mobile data?', good: 'off', bad: 'on' },
  band: { asks: 'Is the phone on a band the device hears?', good: 'yes', bad: 'no, on 5 GHz' },
  password: { asks: 'Is the password right, letter by letter?', good: 'right', bad: 'wrong' },
  owner: { asks: 'Is it free of every other account and hub?', good: 'free', bad: 'still listed there' },
  signal: { asks: 'Is the signal at the device two bars or more?', good: 'two or more', bad: 'less' },
  'hub-count': { asks: 'Has the hub room for one more?', good: 'room', bad: 'full' },
  'router-count': { asks: 'Has the router room for one more?', good: 'room', bad: 'full' },
};

/** What a try came to, as the app says it. */
export const SEEN_WORDS: Readonly<Record<Seen, string>> = {
  'not-found': 'nothing found',
  'no-network': 'found, did not get onto the network',
  refused: 'password refused',
  full: 'no room',
  owned: 'belongs to somebody else',
  lost: 'lost at the last step',
  joined: 'joined',
};

/** Why an attempt failed, in words, by the reason it was recorded with. */
export function failureText(reason: string | undefined): string {
  if (reason === undefined) return 'Nobody wrote down why.';
  if (isSeen(reason)) return `The app: ${SEEN_WORDS[reason]}.`;
  if (isCause(reason)) return CAUSE_WORDS[reason].says;
  if (reason === 'unreachable') return 'The house did not answer. Check that it is reached and try again.';
  return reason;
}

/** Why this is the next thing to do. */
export function adviceWhy({ causes, ...advice }: Advice): string {
  const likely = causes
    .filter(({ p }) => p >= 0.1)
    .slice(0, 3)
    .map(({ cause, p }) => `${CAUSE_WORDS[cause].name} ${Math.round(p * 100)} %`);
  const thought = likely.length > 0 ? `Thought likely: ${likely.join(', ')}.` : 'Nothing speaks against it.';
  if (advice.kind === 'look') return `${thought} This tells most for the time it takes.`;
  if (advice.kind === 'park') return `${thought} Nothing else that can be done here is worth a try.`;
  return `${thought} With this it joins ${Math.round(advice.joins * 100)} times in a hundred.`;
}

const RHYTHM_WORDS: Readonly<Record<Light['rhythm'], string>> = {
  steady: 'steady',
  slow: 'slow',
  quick: 'quick',
  breathing: 'breathing',
  twice: 'twice and a pause',
};

/** What a light shows: `amber and green, slow`. */
export function lightWords({ colours, rhythm }: Light): string {
  return `${colours.join(' and ')}, ${RHYTHM_WORDS[rhythm]}`;
}

/** The steps of a device’s way, as what is done. */
export const PAIRING_STEP_WORDS: Readonly<Record<PairingStep | 'done', string>> = {
  wired: 'wired',
  powered: 'powered',
  ready: 'in pairing mode',
  joined: 'joined',
  updated: 'updated',
  named: 'named',
  reached: 'found by the apps',
  tried: 'every control tried',
  done: 'done',
};

export const PATH_WORDS: Readonly<Record<ControlPath, string>> = {
  wall: 'from the wall',
  app: 'in the app',
  voice: 'by voice',
  remote: 'by its remote',
  automation: 'by a rule',
};

/** What a channel's watts say; empty where nothing is to be said. */
export function wattsText(verdict: WattsVerdict): string {
  switch (verdict.verdict) {
    case 'unknown':
      return '';
    case 'as-expected':
      return 'As it should be.';
    case 'none':
      return `It should draw about ${verdict.expected} W: lamps out, not there, or on another wire.`;
    case 'more':
      return `It should draw about ${verdict.expected} W: more hangs on it, or another load.`;
    case 'less':
      return verdict.lamps === null
        ? `It should draw about ${verdict.expected} W: something is dark or of another kind.`
        : `It should draw about ${verdict.expected} W: ${plural(verdict.lamps, 'lamp')} dark or missing.`;
  }
}

/** What to try when an update stops. */
export const UPDATE_HELP_WORDS: Readonly<Record<UpdateHelp, string>> = {
  restart: 'Take its power away at the cut-out for ten seconds, then start the update again.',
  'bring-closer': 'Bring the signal nearer, then start the update again.',
  overnight: 'Leave it on power overnight and look again.',
};
