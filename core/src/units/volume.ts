/** Millilitres in a cubic inch, exactly. */
export const ML_PER_IN3 = 16.387064;

/** A volume as it was typed, in mL. `undefined` when neither unit is given. */
export function millilitres(volume: {
  mL?: number | undefined;
  in3?: number | undefined;
}): number | undefined {
  return volume.mL ?? (volume.in3 === undefined ? undefined : volume.in3 * ML_PER_IN3);
}

export function cubicInches(mL: number): number {
  return mL / ML_PER_IN3;
}

/** Rounded for printing to `digits` places; never `-0`. */
export function rounded(value: number, digits: number): number {
  const factor = 10 ** digits;
  return Math.round(value * factor + Number.EPSILON) / factor || 0;
}
