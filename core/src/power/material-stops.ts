import type { Conductor } from '../job/schema/survey.js';
import type { StopCode } from './vocabulary.js';

type MaterialStop = Extract<StopCode, 'aluminium' | 'copper-clad' | 'cloth'>;

/** What of a conductor stops work at its box by what it is made of. */
export function materialStops({
  material,
  insulation,
}: Pick<Conductor, 'material' | 'insulation'>): MaterialStop[] {
  const codes: MaterialStop[] = [];
  if (material === 'aluminium' || material === 'copper-clad') codes.push(material);
  if (insulation === 'cloth') codes.push('cloth');
  return codes;
}
