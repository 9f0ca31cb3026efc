import type { Remedy, RemedyKind, SideEffect, Trouble } from '../../remedies/remedies.js';
import { plural } from '../../units/plural.js';

export const TROUBLE_WORDS: Record<Trouble, string> = {
  fill: 'box fill exceeded',
  depth: 'too deep',
  packing: 'will not close',
};

const KIND_WORDS: Record<RemedyKind, (name: string) => string> = {
  'deeper-box': (name) => `A larger box: ${name}`,
  ring: (name) => `A ring: ${name}`,
  connectors: (name) => `Every joint on ${name.replace('-', ' ')} connectors`,
  'device-terminals': (name) => `A device with terminals in place of leads: ${name}`,
  'two-wire': (name) => `A device without a neutral: ${name}`,
  'smaller-device': (name) => `Another device: ${name}`,
  'tie-through': (name) => `The line tied through, the box without a device: ${name}`,
  'module-at-fitting': (name) => `A module at the fitting: ${name}`,
};

export function remedyWords(remedy: Remedy): string {
  const at = remedy.place ? ` at position ${remedy.place.position}` : '';
  return `${KIND_WORDS[remedy.kind](remedy.name)}${at}`;
}

export function sideEffectWords(effect: SideEffect): string {
  switch (effect.code) {
    case 'wall-opened':
      return 'the old box comes out of the wall, which is opened and made good';
    case 'stands-proud':
      return `the plate comes ${effect.facts.mm} mm further out`;
    case 'joints-remade':
      return `${plural(effect.facts.joints, 'joint is', 'joints are')} made anew, dead`;
    case 'neutral-not-used':
      return 'the neutral stays capped; lamps have to draw enough';
    case 'no-wired-control':
      return 'no wired control is left here, which the local code may want';
    case 'at-fitting':
      return 'the work moves to the fitting, off a ladder';
    case 'other-family':
      return `another family: ${effect.facts.to}, not ${effect.facts.from}`;
    case 'parts':
      return `with ${effect.facts.parts.join(' and ')}`;
  }
}
