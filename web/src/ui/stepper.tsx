import { Minus, Plus } from 'lucide-react';
import { Button } from './button.js';

/** A small whole number, one more or less at a touch. */
export function Stepper({
  label,
  value,
  min,
  max,
  onValue,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  onValue: (value: number) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="text-sm font-semibold text-soft">{label}</legend>
      <div className="flex items-center gap-1">
        <Button icon={Minus} iconOnly disabled={value <= min} onClick={() => onValue(value - 1)}>
          One less
        </Button>
        <output className="w-9 text-center text-lg font-bold">{value}</output>
        <Button icon={Plus} iconOnly disabled={value >= max} onClick={() => onValue(value + 1)}>
          One more
        </Button>
      </div>
    </fieldset>
  );
}
