import type { Edition } from '../../terms/trade.js';
import { millilitres } from '../../units/volume.js';
import { usualBody } from '../bodies.js';
import type { PracticeProfile } from '../profile.js';
import { standardBoxes } from '../standard-boxes.js';
import { ESTIMATE, type RuleFigure } from './figure.js';
import { copperFigures, LOAD_FIGURES, SPACE_FIGURES } from './general.js';

/** Bodies that are shown as figures; the others measure as one of them. */
const BODIES = [
  'single-pole',
  'three-way',
  'four-way',
  'dimmer',
  'fan-control',
  'timer',
  'sensor',
  'receptacle',
] as const;

/** Every figure of a practice and edition, in reading order: what is read, computed with and replaced. */
export function figuresOf(profile: PracticeProfile, edition: Edition | undefined): RuleFigure[] {
  return [
    ...(profile.count?.(edition).figures ?? []),
    ...SPACE_FIGURES,
    ...LOAD_FIGURES,
    ...(profile.breakerBySize === null ? [] : copperFigures(profile.breakerBySize)),
    ...standardBoxes(profile).map(
      (box): RuleFigure => ({
        id: `boxes.${box.id}`,
        group: 'boxes',
        name: `Volume of ${box.name}`,
        unit: 'mL',
        value: millilitres(box) ?? 0,
        source: profile.boxes.source,
        setOn: 'enclosure',
      }),
    ),
    ...BODIES.map(
      (existing): RuleFigure => ({
        id: `bodies.${existing}`,
        group: 'bodies',
        name: `Depth of a ${existing.replace('-', ' ')} that nobody measured`,
        unit: 'mm',
        value: usualBody(existing, 1, profile).depth,
        source: ESTIMATE,
        setOn: 'device',
      }),
    ),
  ];
}
