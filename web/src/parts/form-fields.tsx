import { minorOf, moneyAmount } from '@inventario/core';
import { useRef } from 'react';
import {
  type Control,
  type FieldPath,
  type FieldValues,
  get,
  useController,
  useWatch,
} from 'react-hook-form';
import { PickOne, PickSeveral, Segments } from '../ui/choice.js';
import { NumberField, TextField } from '../ui/field.js';
import { Toggle } from '../ui/toggle.js';

/*
 * Our pieces as fields of a form: each is named by its path in the record, and says at its place what is
 * wrong. An untold answer is `undefined` in the record and a choice of its own on the screen.
 */

interface Bound<Values extends FieldValues> {
  control: Control<Values>;
  name: FieldPath<Values>;
}

/**
 * A field with its answer as it stands in the form: one that has become untold would else be given the answer
 * it had first, and shown as if that still held.
 */
function useField<Values extends FieldValues>({ control, name }: Bound<Values>) {
  const { field, fieldState } = useController({ control, name });
  const value: unknown = useWatch({ control, compute: (values) => get(values, name) as unknown });
  return { field: { ...field, value }, fieldState };
}

type Rest<Piece extends (props: never) => unknown, Given extends string> = Omit<Parameters<Piece>[0], Given>;

/** `emptyIsUntold`: an emptied field is absent from the record. */
export function FormText<Values extends FieldValues>({
  control,
  name,
  emptyIsUntold,
  ...rest
}: Bound<Values> & Rest<typeof TextField, 'value' | 'onText' | 'error'> & { emptyIsUntold?: boolean }) {
  const { field, fieldState } = useField({ control, name });
  return (
    <TextField
      {...rest}
      ref={field.ref}
      value={(field.value as string | undefined) ?? ''}
      onText={(text) => field.onChange(emptyIsUntold && text === '' ? undefined : text)}
      error={fieldState.error?.message ?? null}
    />
  );
}

/**
 * What is typed and no number stands in the record as none, so that the form is held up by it; the number
 * before it is not recorded instead. `emptyIsUntold`: an emptied field is absent from the record. `money`:
 * the record has minor units of its currency, the screen whole ones.
 */
export function FormNumber<Values extends FieldValues>({
  control,
  name,
  emptyIsUntold,
  money,
  ...rest
}: Bound<Values> &
  Rest<typeof NumberField, 'value' | 'onNumber' | 'onTaken' | 'onEmptied' | 'error'> & {
    emptyIsUntold?: boolean;
    money?: { currency: string | undefined };
  }) {
  const { field, fieldState } = useField({ control, name });
  const value = field.value as number | undefined;
  const last = useRef(value);
  if (!Number.isNaN(value)) last.current = value;
  const shown = last.current;
  return (
    <NumberField
      {...rest}
      {...(money?.currency ? { unit: money.currency } : {})}
      value={money && shown !== undefined ? moneyAmount(shown, money.currency) : shown}
      onNumber={(number) => field.onChange(money ? minorOf(number, money.currency) : number)}
      onTaken={(taken) => {
        if (!taken) field.onChange(Number.NaN);
      }}
      {...(emptyIsUntold ? { onEmptied: () => field.onChange(undefined) } : {})}
      error={fieldState.error?.message ?? null}
    />
  );
}

const UNTOLD = 'not told';

/** A choice among few; with `untold` one of them is that nobody looked, with `usual` one stands for none. */
export function FormSegments<Values extends FieldValues>({
  control,
  name,
  options,
  untold,
  usual,
  ...rest
}: Bound<Values> & Rest<typeof Segments, 'value' | 'onChoice'> & { untold?: string; usual?: string }) {
  const { field } = useField({ control, name });
  return (
    <Segments<string | number>
      {...rest}
      options={untold === undefined ? options : [...options, { value: UNTOLD, label: untold }]}
      value={(field.value as string | number | undefined) ?? usual ?? (untold === undefined ? null : UNTOLD)}
      onChoice={(value) => field.onChange(value === UNTOLD ? undefined : value)}
    />
  );
}

/** Yes, no, and nobody looked: three different things. */
export function FormYesNo<Values extends FieldValues>({
  control,
  name,
  label,
  words = { yes: 'yes', no: 'no', untold: UNTOLD },
}: Bound<Values> & { label: string; words?: { yes: string; no: string; untold: string } }) {
  const { field } = useField({ control, name });
  const told = { true: 'yes', false: 'no', undefined: 'untold' }[String(field.value)] ?? 'untold';
  return (
    <Segments
      label={label}
      value={told}
      options={(['yes', 'no', 'untold'] as const).map((value) => ({ value, label: words[value] }))}
      onChoice={(answer) => field.onChange(answer === 'untold' ? undefined : answer === 'yes')}
    />
  );
}

export function FormPick<Values extends FieldValues>({
  control,
  name,
  options,
  untold,
  ...rest
}: Bound<Values> & Rest<typeof PickOne<string>, 'value' | 'onChoice'> & { untold?: string }) {
  const { field, fieldState } = useField({ control, name });
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <PickOne<string>
        {...rest}
        options={untold === undefined ? options : [...options, { value: UNTOLD, label: untold }]}
        value={(field.value as string | undefined) ?? (untold === undefined ? '' : UNTOLD)}
        onChoice={(value) => field.onChange(value === UNTOLD ? undefined : value)}
      />
      {fieldState.error && (
        <p role="alert" className="text-sm text-stop">
          {fieldState.error.message}
        </p>
      )}
    </div>
  );
}

export function FormPickSeveral<Values extends FieldValues>({
  control,
  name,
  ...rest
}: Bound<Values> & Rest<typeof PickSeveral, 'values' | 'onChoice'>) {
  const { field } = useField({ control, name });
  return (
    <PickSeveral {...rest} values={(field.value as string[] | undefined) ?? []} onChoice={field.onChange} />
  );
}

export function FormToggle<Values extends FieldValues>({
  control,
  name,
  label,
}: Bound<Values> & { label: string }) {
  const { field } = useField({ control, name });
  return <Toggle label={label} on={field.value === true} onToggle={field.onChange} />;
}
