import { cubicInches, type RuleFigure, type UnitSystem } from '@inventario/core';

/** A figure as it is read and typed: volumes in the units of the trade, shares as per cent. */
export function shownAs(
  unit: RuleFigure['unit'],
  value: number,
  units: UnitSystem,
): { shown: number; unit: string } {
  const round = (number: number) => Math.round(number * 1000) / 1000;
  if (unit === 'mL' && units === 'inch') return { shown: round(cubicInches(value)), unit: 'in³' };
  if (unit === 'share') return { shown: round(value * 100), unit: '%' };
  return { shown: round(value), unit: unit === 'count' ? '' : unit };
}
