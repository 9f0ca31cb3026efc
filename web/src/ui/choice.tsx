import {
  Field as HeadlessField,
  Label,
  Listbox,
  ListboxButton,
  ListboxOption,
  ListboxOptions,
  Radio,
  RadioGroup,
} from '@headlessui/react';
import { Check, ChevronDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { classes } from './classes.js';

export interface Option<Value> {
  value: Value;
  label: string;
  /** Shown before the label. */
  picture?: ReactNode;
  hint?: string;
}

/** A few options side by side, all in sight. */
export function Segments<Value extends string | number>({
  label,
  value,
  options,
  onChoice,
  hideLabel,
}: {
  label: string;
  value: Value | null;
  options: readonly Option<Value>[];
  onChoice: (value: Value) => void;
  hideLabel?: boolean;
}) {
  return (
    <RadioGroup
      value={value}
      onChange={(next) => next !== null && onChoice(next)}
      className="flex flex-col gap-1"
    >
      <Label className={classes('text-sm font-semibold text-soft', hideLabel && 'sr-only')}>{label}</Label>
      <div className="flex flex-wrap gap-1">
        {options.map((option) => (
          <Radio
            key={String(option.value)}
            value={option.value}
            className="flex min-h-11 cursor-pointer items-center gap-2 rounded-md border border-edge bg-sheet px-3 data-checked:border-ink data-checked:bg-well data-checked:font-bold data-checked:ring-2 data-checked:ring-ink data-focus:outline-3 data-focus:outline-offset-2 data-focus:outline-ink"
          >
            {option.picture}
            {option.label}
          </Radio>
        ))}
      </div>
    </RadioGroup>
  );
}

/** One of many. */
export function PickOne<Value extends string | number | null>({
  label,
  value,
  options,
  onChoice,
  placeholder = 'Choose',
  hideLabel,
  className,
}: {
  label: string;
  value: Value;
  options: readonly Option<Value>[];
  onChoice: (value: Value) => void;
  placeholder?: string;
  hideLabel?: boolean;
  className?: string;
}) {
  const current = options.find((option) => option.value === value);
  return (
    <HeadlessField className={classes('flex min-w-0 flex-col gap-1', className)}>
      <Label className={classes('text-sm font-semibold text-soft', hideLabel && 'sr-only')}>{label}</Label>
      <Listbox value={value} onChange={onChoice}>
        <ListboxButton className="flex min-h-11 w-full items-center gap-2 rounded-md border border-edge bg-sheet px-3 text-left">
          {current?.picture}
          <span className={classes('min-w-0 flex-1 truncate', !current && 'text-soft')}>
            {current?.label ?? placeholder}
          </span>
          <ChevronDown aria-hidden className="size-4 shrink-0 text-soft" />
        </ListboxButton>
        <ListboxOptions
          anchor={{ to: 'bottom start', gap: 4, padding: 8 }}
          className="z-50 max-h-80 min-w-(--button-width) overflow-auto rounded-md border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
        >
          {options.map((option) => (
            <ListboxOption
              key={String(option.value)}
              value={option.value}
              className="flex min-h-11 cursor-pointer items-center gap-2 px-3 data-focus:bg-well"
            >
              <Check
                aria-hidden
                className={classes('size-4 shrink-0', option.value !== value && 'invisible')}
              />
              {option.picture}
              <span>
                {option.label}
                {option.hint && <span className="block text-sm text-soft">{option.hint}</span>}
              </span>
            </ListboxOption>
          ))}
        </ListboxOptions>
      </Listbox>
    </HeadlessField>
  );
}

/** Several of a list, ticked one by one. */
export function PickSeveral({
  label,
  values,
  options,
  onChoice,
  placeholder,
  className,
}: {
  label: string;
  values: readonly string[];
  options: readonly Option<string>[];
  onChoice: (values: string[]) => void;
  placeholder: string;
  className?: string;
}) {
  const names = options.filter((option) => values.includes(option.value)).map((option) => option.label);
  return (
    <HeadlessField className={classes('flex min-w-0 flex-col gap-1', className)}>
      <Label className="text-sm font-semibold text-soft">{label}</Label>
      <Listbox multiple value={[...values]} onChange={onChoice}>
        <ListboxButton className="flex min-h-11 w-full items-center gap-2 rounded-md border border-edge bg-sheet px-3 text-left">
          <span className={classes('min-w-0 flex-1 truncate', names.length === 0 && 'text-soft')}>
            {names.join(', ') || placeholder}
          </span>
          <ChevronDown aria-hidden className="size-4 shrink-0 text-soft" />
        </ListboxButton>
        <ListboxOptions
          anchor={{ to: 'bottom start', gap: 4, padding: 8 }}
          className="z-50 max-h-80 min-w-(--button-width) overflow-auto rounded-md border border-rule bg-sheet py-1 shadow-lg focus:outline-none"
        >
          {options.length === 0 && <p className="px-3 py-2 text-soft">None recorded yet.</p>}
          {options.map((option) => (
            <ListboxOption
              key={option.value}
              value={option.value}
              className="flex min-h-11 cursor-pointer items-center gap-2 px-3 data-focus:bg-well"
            >
              <Check
                aria-hidden
                className={classes('size-4 shrink-0', !values.includes(option.value) && 'invisible')}
              />
              {option.label}
            </ListboxOption>
          ))}
        </ListboxOptions>
      </Listbox>
    </HeadlessField>
  );
}
