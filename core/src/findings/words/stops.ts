import type { Job } from '../../job/schema/job.js';
import type { Box } from '../../job/schema/survey.js';
import type { Stop, StopCode } from '../../power/vocabulary.js';
import { conductorWords } from '../../survey/conductor-names.js';

/**
 * Findings at which work stops and an electrician is called: what it is, and what to do. Calm, and specific.
 */
export const STOP_WORDS: Record<StopCode, { name: string; says: string }> = {
  aluminium: {
    name: 'Aluminium conductors',
    says: 'Aluminium needs connectors and devices made for it. Judge by the cut end, not the surface.',
  },
  'copper-clad': {
    name: 'Copper-clad aluminium',
    says: 'It carries less than copper and creeps under a screw: it counts as aluminium.',
  },
  cloth: {
    name: 'Cloth insulation',
    says: 'Cloth insulation breaks when it is bent. Do not move the conductors.',
  },
  crumbling: {
    name: 'Crumbling insulation',
    says: 'Insulation that crumbles leaves bare metal behind the plate. Do not fold it back.',
  },
  scorch: { name: 'Scorch marks', says: 'Something overheated here. Leave the breaker off.' },
  water: { name: 'Water', says: 'Water in the box: leave the breaker off until it is found and dried.' },
  'shared-neutral': {
    name: 'A shared neutral without a common trip',
    says: 'Its lines must stand on two legs and trip together; otherwise the neutral can be overloaded or bite.',
  },
  'neutral-ground-joined': {
    name: 'Neutral and ground joined here',
    says: 'They may meet only at the service. The grounds of the circuit can be live.',
  },
  'reverse-polarity': {
    name: 'Reversed polarity',
    says: 'Line and neutral are exchanged somewhere before this box.',
  },
  'reversed-polarity': {
    name: 'Reversed polarity, as read',
    says: 'The core in the neutral’s colour is live and its partner is earth: line and neutral are exchanged somewhere before this box.',
  },
  'unbonded-metal': { name: 'A metal box without bond', says: 'A fault would leave the box live.' },
  'low-voltage-mixed': {
    name: 'Low-voltage cable in the box',
    says: 'It may not share a box with mains conductors.',
  },
  'live-while-off': {
    name: 'Live with its breaker off',
    says: 'Touch nothing. Something else feeds this box: find that breaker before anything is proved, opened or measured dead.',
  },
  'borrowed-neutral': {
    name: 'A borrowed neutral',
    says: 'Neutrals of two circuits that share none are joined here. Each can be live while its own breaker is off.',
  },
  'one-leg': {
    name: 'A shared neutral on one leg',
    says: 'Its lines stand on one leg, so the neutral carries the sum of their currents and can burn.',
  },
  'no-common-trip': {
    name: 'A shared neutral without a common trip',
    says: 'One breaker can be off while the other makes the neutral live when it is opened. They have to go off together.',
  },
  'conductor-too-small': {
    name: 'A conductor too small for its breaker',
    says: 'The breaker lets more through than the conductor may carry. Leave it as it is until the breaker or the cable is changed.',
  },
  'other-source': {
    name: 'A source besides the mains',
    says: 'An inverter or generator can feed this box with the main off. It has to be isolated by somebody who knows it.',
  },
  contradiction: {
    name: 'Findings that contradict each other',
    says: 'What is joined cannot be what its labels say, or one and the same test shows one thing and then another. Settle it before anything is wired.',
  },
};

/** `Live with its breaker off: the red of pump out. Breaker 4 or 6 could feed it. Touch nothing. ...` */
export function stopText(stop: Stop, box: Box, job: Job): string {
  const { name, says } = STOP_WORDS[stop.code];
  const conductors = stop.conductorIds.map((id) => conductorWords(box, id, job));
  const where = conductors.length > 0 ? `: ${listed(conductors)}` : '';
  return [`${name}${where}.`, ...breakersText(stop, job), says].join(' ');
}

function breakersText({ code, circuitIds }: Stop, job: Job): string[] {
  const named = circuitIds.map((id) => job.circuits.find((circuit) => circuit.id === id)?.breaker ?? id);
  if (named.length === 0)
    return code === 'live-while-off' ? ['No breaker of this file is left that could feed it.'] : [];
  const all = listed(named, code === 'live-while-off' ? 'or' : 'and');
  const breakers = named.length > 1 ? `Breakers ${all}` : `Breaker ${all}`;
  return [code === 'live-while-off' ? `${breakers} could feed it.` : `${breakers}.`];
}

/** `a, b and c` */
export function listed(words: readonly string[], last = 'and'): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}

export const CONDITION_WORDS: Record<NonNullable<Box['condition']>[number], string> = {
  loose: 'box loose',
  'set-back': 'set back in the wall',
  'broken-ear': 'ear broken',
  'no-earth-terminal': 'no earth terminal',
  painted: 'painted over',
  awkward: 'awkward to reach',
  'short-conductors': 'short conductors',
};

/** The hands-off energised check, step by step. Probes on live metal are never proposed. */
export const HANDS_OFF_STEPS: readonly string[] = [
  'Breaker off and locked; dead proved at the face and again with the device out',
  'Device off; each of its conductors capped alone; joints stay closed, grounds stay joined',
  'Clips fitted while dead, or only the indicator used on insulation',
  'Box guarded, house told, everyone clear',
];
