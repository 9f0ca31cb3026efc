import type { NextStep } from '../../bench/vocabulary.js';
import type { JobLookup } from '../../job/lookup.js';
import type { Box } from '../../job/schema/survey.js';
import { profileOf } from '../../practice/profiles.js';
import { conductorTitle, conductorWords } from '../../survey/conductor-names.js';
import { pointWords } from '../../survey/reading-words.js';
import { capital } from '../../units/capital.js';
import { plural } from '../../units/plural.js';
import { blockerText } from './progress.js';
import { listed, STOP_WORDS } from './stops.js';

/** `does`: what is to be done; `how`: what has to be known for it, where something has. */
export interface StepWords {
  does: string;
  how?: string;
}

type Said<Kind extends NextStep['kind']> = (
  step: Extract<NextStep, { kind: Kind }>,
  at: { box: Box; known: JobLookup },
) => StepWords;

const breakerOf = (known: JobLookup, id: string) => known.circuits.get(id)?.breaker ?? id;
/** `the switch`, or `switch 2` where there are several. */
const switchWords = (box: Box, index: number) =>
  box.positions.length > 1 ? `switch ${index}` : 'the switch';
/** ` at Hall, stairs`, or ` 2` in a box of several. */
function switchPlace(key: string, box: Box, known: JobLookup): string {
  const [boxId, position] = key.includes('/') ? key.split('/') : [box.id, key];
  return boxId === box.id
    ? positionWords(box, Number(position))
    : ` at ${known.boxes.get(boxId ?? '')?.name ?? boxId}`;
}

const otherBox = (boxId: string | null, known: JobLookup) =>
  boxId === null ? null : (known.boxes.get(boxId)?.name ?? boxId);

const positionWords = (box: Box, index: number) => (box.positions.length > 1 ? ` ${index}` : '');

const TOOLS = {
  indicator: 'Indicator',
  volts: 'Volts, high impedance',
  'volts-low-z': 'Volts, low impedance',
  ohms: 'Ohms',
  lamp: 'Watch',
  breaker: 'Watch',
} as const;

const STANDS: Record<'in-place' | 'device-out' | 'parted' | 'lifted', (what: string) => StepWords> = {
  'in-place': () => ({ does: 'Put the device back', how: 'as it was found, dead' }),
  'device-out': (what) => ({
    does: `Take the device${what} out`,
    how: 'each of its conductors capped alone; joints stay closed',
  }),
  parted: () => ({
    does: 'Open all joints, cap every conductor',
    how: 'both halves of a shared neutral off first; grounds stay joined',
  }),
  lifted: (what) => ({ does: `Lift and cap ${what}`, how: 'everything else stays as found' }),
};

const STEPS: { [Kind in NextStep['kind']]: Said<Kind> } = {
  stop: ({ code }) => ({ does: `Stop: ${STOP_WORDS[code].name.toLowerCase()}`, how: STOP_WORDS[code].says }),
  clash: ({ conductorId }, { box, known }) => ({
    does: 'Settle the labels that exclude each other',
    how: `the last one is ${conductorWords(box, conductorId, known.job)}`,
  }),
  circuit: () => ({ does: 'Which breaker feeds it?' }),
  controls: ({ position }, { box }) => ({ does: `What does ${switchWords(box, position)} control?` }),
  signal: () => ({ does: 'Signal here, before the power goes off', how: 'bars of the phone, or dBm' }),
  lamp: ({ position, loadId, far }, { box, known }) => ({
    does: `Work ${switchWords(box, position)}, watch ${known.loads.get(loadId)?.name ?? 'its lamp'}`,
    how:
      far === null
        ? 'nothing is opened for it'
        : `up here and${switchPlace(far, box, known)} first, then each in turn; nothing is opened for it`,
  }),
  breaker: ({ circuitId, to, clips, handsOff }, { box, known }) => {
    const points = clips.map((point) => pointWords(box, known, point));
    const breaker = `breaker ${breakerOf(known, circuitId)}`;
    if (to === 'off') return { does: `Switch ${breaker} off`, how: 'and lock it' };
    if (points.length > 0)
      return {
        does: `Clip ${points.join(' to ')}; then ${breaker} on`,
        how: 'clips go on now, while it is dead',
      };
    return { does: `Switch ${breaker} on`, ...(handsOff ? { how: 'hands off from here:' } : {}) };
  },
  prove: ({ stage, boxId }, { known }) => ({
    does: `Prove ${otherBox(boxId, known) ?? 'it'} dead${stage === 'face' ? ' at the face' : ', device out'}`,
  }),
  stands: ({ to, lifted, boxId }, { box, known }) => {
    const other = otherBox(boxId, known);
    if (other)
      return {
        does: `Put the device at ${other} back`,
        how: 'as it was found, dead; its switch is worked next',
      };
    if (to.arrangement === 'lifted')
      return STANDS.lifted(listed(lifted.map((id) => conductorWords(box, id, known.job))));
    return STANDS[to.arrangement](to.position === null ? '' : positionWords(box, to.position));
  },
  load: ({ loadId, out }, { known }) => {
    const name = known.loads.get(loadId)?.name ?? 'the lamp';
    return out
      ? { does: `Take the lamps of ${name} out`, how: 'or pull its chain' }
      : { does: `Put the lamps of ${name} back` };
  },
  switch: ({ key, to }, { box, known }) => ({ does: `Put the switch${switchPlace(key, box, known)} ${to}` }),
  contents: () => ({ does: 'Which of these does it look like?', how: 'what differs is corrected after' }),
  enclosure: ({ volume, depth }) => ({
    does: volume ? (depth ? 'Volume and depth of the box' : 'Volume marked in the box') : 'Depth of the box',
  }),
  sweep: ({ points }) => ({
    does: 'Indicator over every conductor: touch what alerts',
    how: `the other${points.length > 2 ? `s of ${points.length}` : ''} are recorded quiet`,
  }),
  read: ({ test }, { box, known }) => {
    const points = test.points.map((point) => pointWords(box, known, point));
    return { does: `${TOOLS[test.tool]}: ${points.join(' to ')}` };
  },
  flag: ({ conductorIds }) => ({
    does: `${capital(plural(conductorIds.length, 'conductor'))} proved`,
    how: 'flag the wires and label them',
  }),
  marks: ({ marks }) => ({
    does: `${capital(plural(marks.length, 'mark'))} by looks`,
    how: 'nothing recorded speaks against them; each stays marked as taken by eye',
  }),
  label: ({ conductorId }, { box, known }) => ({
    does: `Label ${conductorTitle(box, conductorId, known.job)}`,
  }),
  set: ({ role, conductorIds }, { box, known }) => {
    const { roles } = profileOf(known.job).words;
    const names = listed(conductorIds.map((id) => conductorWords(box, id, known.job)));
    return { does: `Label as ${roles[role]}: ${names}` };
  },
  onward: ({ blocker }) => ({ does: ONWARD[blocker.code], how: blockerText(blocker) }),
  done: () => ({ does: 'This box is done' }),
};

/** What is done about what a box waits for. */
const ONWARD: Record<Extract<NextStep, { kind: 'onward' }>['blocker']['code'], string> = {
  stopped: 'Have what stops the work put right',
  'labels-clash': 'Settle the labels that exclude each other',
  'no-conductors': 'Record the cables and conductors',
  'no-positions': 'Record the positions',
  'volume-not-read': 'Read the volume marked in the box',
  'depth-not-read': 'Measure the depth inside',
  'loads-not-named': 'Name what each switch controls',
  'no-circuit': 'Name the circuit that feeds the box',
  'not-identified': 'Label the conductors',
  'not-chosen': 'Choose a device',
  'over-full': 'See the ways out of a box too small',
  'too-deep': 'See the ways out of a box too shallow',
  'not-mounted': 'Wire and mount it',
  'wiring-begun': 'Go on with its wiring',
  'not-paired': 'Pair it',
  'pairing-failed': 'Pair it again',
};

/** What a step asks for, in words. */
export function stepWords<Kind extends NextStep['kind']>(
  step: Extract<NextStep, { kind: Kind }>,
  box: Box,
  known: JobLookup,
): StepWords {
  const said = STEPS[step.kind] as Said<Kind>;
  return said(step, { box, known });
}
