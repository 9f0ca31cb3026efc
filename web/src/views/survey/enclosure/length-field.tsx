import { MM_PER_INCH, rounded, type UnitSystem } from '@inventario/core';
import { NumberField } from '../../../ui/field.js';

/** A length typed in the units shown and kept in mm. */
export function LengthField({
  label,
  mm,
  onMm,
  units,
  zeroIsEmpty,
  name,
}: {
  label: string;
  mm: number;
  onMm: (mm: number) => void;
  units: UnitSystem;
  zeroIsEmpty?: boolean;
  name?: string;
}) {
  const inch = units === 'inch';
  return (
    <NumberField
      label={label}
      {...(name ? { name } : {})}
      unit={inch ? 'in' : 'mm'}
      max={inch ? 80 : 2000}
      zeroIsEmpty={zeroIsEmpty ?? false}
      value={inch ? rounded(mm / MM_PER_INCH, 3) : rounded(mm, 2)}
      onNumber={(value) => onMm(inch ? rounded(value * MM_PER_INCH, 2) : value)}
    />
  );
}
