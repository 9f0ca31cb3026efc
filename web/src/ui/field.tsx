import {
  type InputHTMLAttributes,
  type ReactNode,
  type Ref,
  useEffect,
  useId,
  useRef,
  useState,
} from 'react';
import { classes } from './classes.js';

const INPUT = 'min-h-11 w-full rounded-md border border-edge bg-sheet px-3 text-ink placeholder:text-soft';

/** A label above its control, with a hint or what is wrong below. */
function Field({
  label,
  hint,
  error,
  children,
  className,
}: {
  label: string;
  hint?: ReactNode;
  error?: string | null;
  children: (ids: { id: string; describedBy: string | undefined; invalid: boolean }) => ReactNode;
  className?: string;
}) {
  const id = useId();
  const below = error ?? hint;
  return (
    <div className={classes('flex min-w-0 flex-col gap-1', className)}>
      <label htmlFor={id} className="text-sm font-semibold text-soft">
        {label}
      </label>
      {children({ id, describedBy: below ? `${id}-below` : undefined, invalid: Boolean(error) })}
      {below && (
        <p
          id={`${id}-below`}
          role={error ? 'alert' : undefined}
          className={classes('text-sm', error ? 'text-stop' : 'text-soft')}
        >
          {below}
        </p>
      )}
    </div>
  );
}

interface TextProps extends Omit<InputHTMLAttributes<HTMLInputElement>, 'onChange' | 'value'> {
  ref?: Ref<HTMLInputElement>;
  label: string;
  value: string;
  hint?: ReactNode;
  error?: string | null;
  onText: (text: string) => void;
  boxClass?: string;
}

export function TextField({ label, value, hint, error, onText, boxClass, className, ...rest }: TextProps) {
  return (
    <Field label={label} hint={hint} error={error ?? null} className={boxClass ?? ''}>
      {({ id, describedBy, invalid }) => (
        <input
          {...rest}
          id={id}
          value={value}
          aria-describedby={describedBy}
          aria-invalid={invalid}
          onChange={(event) => onText(event.target.value)}
          className={classes(INPUT, className)}
        />
      )}
    </Field>
  );
}

interface NumberProps {
  label: string;
  value: number | undefined;
  onNumber: (value: number) => void;
  /** Told whether what is typed is a number that is taken; the last one taken stands while it is not. */
  onTaken?: (taken: boolean) => void;
  /** Told when the field is emptied, where that is an answer of its own. */
  onEmptied?: () => void;
  unit?: string;
  min?: number;
  max?: number;
  whole?: boolean;
  hint?: ReactNode;
  /** 0 is shown as an empty field: not read yet. */
  zeroIsEmpty?: boolean;
  boxClass?: string;
  name?: string;
  /** What else is wrong with it, said while what is typed is a number that is taken. */
  error?: string | null;
}

/**
 * A number typed freely; what is no number in the range is said below and not taken. While it is being typed
 * the text stays as typed, so that "2." can become "2.5".
 */
export function NumberField({
  label,
  value,
  onNumber,
  onTaken,
  onEmptied,
  unit,
  min = 0,
  max,
  whole,
  hint,
  zeroIsEmpty,
  boxClass,
  name,
  error,
}: NumberProps) {
  const shown = value === undefined || (zeroIsEmpty && value === 0) ? '' : String(value);
  const [draft, setDraft] = useState(shown);
  const typed = useRef<number | undefined>(value);
  useEffect(() => {
    // Someone else changed it, or undo did.
    if (value !== typed.current) {
      typed.current = value;
      setDraft(shown);
    }
  }, [value, shown]);
  const problem = problemOf(draft, { min, max, whole });
  const take = (text: string) => {
    setDraft(text);
    onTaken?.(text.trim() !== '' && problemOf(text, { min, max, whole }) === null);
    if (text.trim() === '') {
      typed.current = zeroIsEmpty ? 0 : typed.current;
      if (zeroIsEmpty) onNumber(0);
      onEmptied?.();
      return;
    }
    if (problemOf(text, { min, max, whole }) !== null) return;
    const number = Number(text.replace(',', '.'));
    typed.current = number;
    onNumber(number);
  };
  return (
    <Field label={label} hint={hint} error={problem ?? error ?? null} className={boxClass ?? ''}>
      {({ id, describedBy, invalid }) => (
        <div className="relative">
          <input
            id={id}
            name={name}
            inputMode="decimal"
            autoComplete="off"
            value={draft}
            aria-describedby={describedBy}
            aria-invalid={invalid}
            onChange={(event) => take(event.target.value)}
            className={classes(INPUT, unit && 'pr-12')}
          />
          {unit && (
            <span className="pointer-events-none absolute inset-y-0 right-3 flex items-center text-sm text-soft">
              {unit}
            </span>
          )}
        </div>
      )}
    </Field>
  );
}

export function problemOf(
  text: string,
  {
    min = 0,
    max,
    whole,
  }: { min?: number | undefined; max?: number | undefined; whole?: boolean | undefined },
): string | null {
  const trimmed = text.trim();
  if (trimmed === '') return null;
  const number = Number(trimmed.replace(',', '.'));
  if (!Number.isFinite(number)) return 'This is not a number.';
  if (whole && !Number.isInteger(number)) return 'Only whole numbers go here.';
  if (number < min) return `At least ${min}.`;
  if (max !== undefined && number > max) return `At most ${max}.`;
  return null;
}
