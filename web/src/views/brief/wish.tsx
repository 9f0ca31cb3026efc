import { plural } from '@inventario/core';
import { Check } from 'lucide-react';
import { classes } from '../../ui/classes.js';

export interface WishOption {
  label: string;
  on: boolean;
  /** Devices that would be left with this answer. */
  left?: number;
  toggle: () => void;
}

/** A question in the client's words; beside each answer, how many devices it leaves to choose from. */
export function Wish({
  question,
  several,
  options,
}: {
  question: string;
  several?: boolean;
  options: readonly WishOption[];
}) {
  return (
    <fieldset className="mb-3">
      <legend className="mb-1 font-semibold">
        {question} {several && <span className="font-normal text-soft">More than one may be right.</span>}
      </legend>
      <div className="flex flex-wrap gap-1.5">
        {options.map((option) => (
          <button
            key={option.label}
            type="button"
            aria-pressed={option.on}
            onClick={option.toggle}
            className={classes(
              'flex min-h-11 items-center gap-2 rounded-md border px-3',
              option.on
                ? 'border-ink bg-well font-semibold ring-2 ring-ink'
                : 'border-edge bg-sheet hover:border-ink',
            )}
          >
            {option.on && <Check aria-hidden className="size-4" />}
            {option.label}
            {option.left !== undefined && (
              <span className={classes('text-sm tabular-nums', 'text-soft')}>
                {plural(option.left, 'device')}
              </span>
            )}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
