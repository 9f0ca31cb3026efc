import type { Box } from '../job/schema/survey.js';

type Hazard = NonNullable<Box['hazards']>[number];

/** Findings at which work stops and an electrician is called; calm, and specific. */
export const HAZARD_WORDS: Record<Hazard, { name: string; says: string }> = {
  aluminium: {
    name: 'aluminium conductors',
    says: 'Aluminium needs connectors and devices made for it. Judge by the cut end, not the surface.',
  },
  cloth: { name: 'cloth insulation', says: 'Cloth insulation breaks when it is bent. Do not move the conductors.' },
  crumbling: { name: 'crumbling insulation', says: 'Insulation that crumbles leaves bare metal behind the plate. Do not fold it back.' },
  scorch: { name: 'scorch marks', says: 'Something overheated here. Leave the breaker off.' },
  water: { name: 'water', says: 'Water in the box: leave the breaker off until it is found and dried.' },
  'shared-neutral': {
    name: 'a shared neutral without a common trip',
    says: 'Its lines must stand on two legs and trip together; otherwise the neutral can be overloaded or bite.',
  },
  'neutral-ground-joined': {
    name: 'neutral and ground joined here',
    says: 'They may meet only at the service. The grounds of the circuit can be live.',
  },
  'reverse-polarity': { name: 'reversed polarity', says: 'Line and neutral are exchanged somewhere before this box.' },
  'unbonded-metal': { name: 'a metal box without bond', says: 'A fault would leave the box live.' },
  'low-voltage-mixed': { name: 'low-voltage cable in the box', says: 'It may not share a box with mains conductors.' },
};

/** The stop findings of a box: those ticked, and those its conductors show. */
export function stopFindings(box: Box): Hazard[] {
  const found = new Set<Hazard>(box.hazards ?? []);
  if (box.conductors.some((conductor) => conductor.material === 'aluminium' || conductor.material === 'copper-clad'))
    found.add('aluminium');
  if (box.conductors.some((conductor) => conductor.insulation === 'cloth')) found.add('cloth');
  if (box.enclosure.material === 'metal' && !box.enclosure.grounded) found.add('unbonded-metal');
  return [...found];
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
