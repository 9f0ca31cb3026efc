/**
 * A figure that a rule rests on, with where it is from. The list of them is the one place where it stands.
 */
export interface RuleFigure {
  id: string;
  group: 'fill' | 'depth' | 'packing' | 'loads' | 'conductor' | 'boxes' | 'bodies';
  name: string;
  unit: 'mL' | 'mm' | 'mL/mm' | 'count' | 'share' | 'A';
  value: number;
  source: string;
  /** Where it is set instead, for one box, load or device; null: here, for the whole job. */
  setOn: 'load' | 'enclosure' | 'device' | null;
}

export const ESTIMATE = 'An estimate of this program, not a code rule';
