import { mostVolts, profileOf, type Reading, usualReadings } from '@inventario/core';
import { useState } from 'react';
import { useJob } from '../data/job-context.js';
import { NumberPad } from '../ui/number-pad.js';
import { PickKeys } from '../ui/pick-keys.js';

interface MeterProps {
  label: string;
  tool: Reading['tool'];
  /** The least that is taken. */
  least?: number;
  onValue: (value: Reading['value']) => void;
}

/** The pad for what a meter shows; a number no house can show is stopped at the key, not weighed. */
export function MeterPad({ label, tool, least = 0, onValue }: MeterProps) {
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
      least={least}
      most={most}
      tooMuch={`No house of this supply shows more than ${most} V. Look at the meter's range again.`}
      onEnter={onValue}
    />
  );
}

/** What a meter usually shows, one touch each, with the whole pad one touch further. */
export function MeterKeys({
  label,
  tool,
  disabled = false,
  onValue,
}: Omit<MeterProps, 'least'> & { disabled?: boolean }) {
  const { job } = useJob();
  const [typing, setTyping] = useState(false);
  if (typing) return <MeterPad label={label} tool={tool} onValue={onValue} />;
  const unit = tool === 'ohms' ? 'ohm' : 'V';
  return (
    <PickKeys
      label={`${label}: usual readings`}
      columns={tool === 'ohms' ? 5 : 4}
      disabled={disabled}
      keys={[
        ...usualReadings(job, tool).map((value) => ({
          key: String(value),
          label: typeof value === 'number' ? String(value) : value,
          hint: typeof value === 'number' ? unit : ' ',
          onPick: () => onValue(value),
        })),
        { key: 'other', label: '123', hint: 'another', onPick: () => setTyping(true) },
      ]}
    />
  );
}
