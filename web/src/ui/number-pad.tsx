import { Delete } from 'lucide-react';
import { useId, useState } from 'react';
import { Button } from './button.js';

/**
 * Large keys for a gloved thumb; the keyboard works too. `extra` is what a meter can show beside a number.
 */
export function NumberPad({
  unit,
  least = 0,
  most,
  tooMuch,
  extra,
  onEnter,
  label,
}: {
  unit: string;
  least?: number;
  /** The largest number taken, and what is said of a larger one. */
  most: number;
  tooMuch: string;
  extra?: { label: string; onPick: () => void };
  onEnter: (value: number) => void;
  label: string;
}) {
  const [text, setText] = useState('');
  const warning = useId();
  const value = Number(text);
  const over = value > most;
  const under = text !== '' && value < least;
  const usable = text !== '' && Number.isFinite(value) && value >= 0 && !over && !under;
  const type = (key: string) =>
    setText((before) => (key === '.' && before.includes('.') ? before : `${before}${key}`.slice(0, 8)));
  const enter = () => {
    if (!usable) return;
    onEnter(value);
    setText('');
  };
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="text-sm font-semibold text-soft">{label}</legend>
      <input
        aria-label={`${label}, ${unit}`}
        inputMode="none"
        value={text}
        onChange={(event) =>
          /^\d*\.?\d*$/.test(event.target.value) && setText(event.target.value.slice(0, 8))
        }
        onKeyDown={(event) => event.key === 'Enter' && enter()}
        placeholder={unit}
        aria-invalid={over || under}
        aria-describedby={over || under ? warning : undefined}
        className="min-h-12 rounded-md border-2 border-ink bg-ground px-3 text-right font-mono text-2xl"
      />
      {(over || under) && (
        <p id={warning} role={over ? 'alert' : undefined} className="font-semibold text-stop">
          {over ? tooMuch : `At least ${least}.`}
        </p>
      )}
      <div className="grid grid-cols-3 gap-1">
        {['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0'].map((key) => (
          <Button key={key} className="min-h-12 font-mono text-xl" onClick={() => type(key)}>
            {key}
          </Button>
        ))}
        <Button icon={Delete} iconOnly className="min-h-12" onClick={() => setText(text.slice(0, -1))}>
          Take the last digit back
        </Button>
      </div>
      <div className="grid grid-cols-2 gap-1">
        {extra ? (
          <Button className="min-h-12" onClick={extra.onPick}>
            {extra.label}
          </Button>
        ) : (
          <span />
        )}
        <Button kind="main" className="min-h-12" disabled={!usable} onClick={enter}>
          Record {text && usable ? `${text} ${unit}` : ''}
        </Button>
      </div>
    </fieldset>
  );
}
