import { cubicInches } from './volume.js';

export const MM_PER_INCH = 25.4;

/** The units a person reads: cubic inches and inches, or mL and mm. */
export type UnitSystem = 'inch' | 'metric';

/** `volumeText(245.8, 'inch')` is `15.00 in³`; `volumeText(245.8, 'metric')` is `245.8 mL`. */
export function volumeText(mL: number, units: UnitSystem): string {
  return units === 'inch' ? `${cubicInches(mL).toFixed(2)} in³` : `${mL.toFixed(1)} mL`;
}

/** `lengthText(63.5, 'inch')` is `2.50 in`; `lengthText(63.5, 'metric')` is `63.5 mm`. */
export function lengthText(mm: number, units: UnitSystem): string {
  return units === 'inch' ? `${(mm / MM_PER_INCH).toFixed(2)} in` : `${Number(mm.toFixed(1))} mm`;
}
