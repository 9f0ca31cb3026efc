import type { ReactNode } from 'react';
import { Button } from './button.js';

export interface PickKey {
  key: string;
  label: string;
  /** Under the label. */
  hint?: string | undefined;
  picture?: ReactNode;
  onPick: () => void;
}

/** Large keys, one touch each, as many a row as they are told; longer lists scroll inside their row. */
export function PickKeys({
  label,
  keys,
  columns,
  disabled = false,
}: {
  label: string;
  keys: readonly PickKey[];
  /** So many side by side; none: a row that scrolls. */
  columns?: number;
  disabled?: boolean;
}) {
  return (
    <fieldset
      className={columns ? 'grid gap-1.5' : 'flex gap-1.5 overflow-x-auto pb-1'}
      style={columns ? { gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` } : undefined}
    >
      <legend className="sr-only">{label}</legend>
      {keys.map(({ key, label: name, hint, picture, onPick }) => (
        <Button
          key={key}
          disabled={disabled}
          className="min-h-13 shrink-0 flex-col gap-0 px-2.5 leading-tight font-semibold"
          onClick={onPick}
        >
          {picture}
          <span>{name}</span>
          {hint && <span className="text-sm font-normal text-soft">{hint}</span>}
        </Button>
      ))}
    </fieldset>
  );
}
