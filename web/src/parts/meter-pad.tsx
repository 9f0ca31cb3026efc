import { mostVolts, profileOf, type Reading } from '@inventario/core';
import { useJob } from '../data/job-context.js';
import { NumberPad } from '../ui/number-pad.js';

/** The pad for what a meter shows; a number no house can show is stopped at the key, not weighed. */
export function MeterPad({
  label,
  tool,
  onValue,
}: {
  label: string;
  tool: Reading['tool'];
  onValue: (value: Reading['value']) => void;
}) {
  const { job } = useJob();
  if (tool === 'ohms')
    return (
      <NumberPad
        label={label}
        unit="ohm"
        most={99_999_999}
        tooMuch="No meter shows that many ohms: enter it as open."
        extra={{ label: 'Open', onPick: () => onValue('open') }}
        onEnter={onValue}
      />
    );
  const most = mostVolts(profileOf(job));
  return (
    <NumberPad
      label={label}
      unit="V"
      most={most}
      tooMuch={`No house of this supply shows more than ${most} V. Look at the meter's range again.`}
      onEnter={onValue}
    />
  );
}
