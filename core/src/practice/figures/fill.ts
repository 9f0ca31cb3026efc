import { ML_PER_IN3 } from '../../units/volume.js';
import { wireSizeText } from '../../units/wire-size.js';
import type { Gauge } from '../wire.js';
import type { RuleFigure } from './figure.js';

const figure = (id: string, name: string, unit: RuleFigure['unit'], value: number, source: string) =>
  ({ id: `fill.${id}`, group: 'fill', name, unit, value, source, setOn: null }) satisfies RuleFigure;

/** Volume a conductor of each gauge counts, mL. */
function allowances(volumes: Record<Gauge, number>, source: string): RuleFigure[] {
  return Object.entries(volumes).map(([gauge, mL]) =>
    figure(`allowance.${gauge}`, `Volume a conductor of ${wireSizeText(gauge)} counts`, 'mL', mL, source),
  );
}

const in3 = (value: number) => value * ML_PER_IN3;

/** NEC Table 314.16(B) of 2017, 314.16(B)(1) since, given in in3. */
const NEC_VOLUMES: Record<Gauge, number> = {
  '18AWG': in3(1.5),
  '16AWG': in3(1.75),
  '14AWG': in3(2.0),
  '12AWG': in3(2.25),
  '10AWG': in3(2.5),
  '8AWG': in3(3.0),
  '6AWG': in3(5.0),
};

/** CE Code Table 22, mL per insulated conductor. It begins at 14 AWG; smaller conductors count as that. */
const CEC_VOLUMES: Record<Gauge, number> = {
  '18AWG': 24.6,
  '16AWG': 24.6,
  '14AWG': 24.6,
  '12AWG': 28.7,
  '10AWG': 36.9,
  '8AWG': 45.1,
  '6AWG': 73.7,
};

/** @param code such as `NEC 2023` */
export function necFigures(code: string, table: string, groundsTogether: number | null): RuleFigure[] {
  return [
    ...allowances(NEC_VOLUMES, `${code}, ${table}`),
    figure(
      'loop-from',
      'A loop this long or longer counts twice',
      'mm',
      304,
      `${code}, 314.16(B)(1): twice the free length of 300.14`,
    ),
    ...(groundsTogether === null
      ? []
      : [
          figure(
            'grounds-together',
            'Grounds that count once together; each further one a quarter',
            'count',
            groundsTogether,
            `${code}, 314.16(B)(5)`,
          ),
        ]),
  ];
}

export const CEC_FIGURES: readonly RuleFigure[] = [
  ...allowances(CEC_VOLUMES, 'CE Code, Table 22'),
  figure('deep-device', 'A device deeper than this counts by its depth', 'mm', 25.4, 'CE Code, 12-3034'),
  figure('deep-device-volume', 'Volume each mm of a deep device counts', 'mL/mm', 3.28, 'CE Code, 12-3034'),
];
