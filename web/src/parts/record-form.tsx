import { zodResolver } from '@hookform/resolvers/zod';
import { issueWords, type Problem } from '@inventario/core';
import { type ReactNode, useEffect, useRef } from 'react';
import {
  type DefaultValues,
  type FieldErrors,
  type FieldPath,
  type FieldValues,
  get,
  set,
  type UseFormReturn,
  useForm,
} from 'react-hook-form';
import type { z } from 'zod';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';

/** A form over a record, held to a schema of the core; what is wrong stands at its field, in words. */
export function useRecordForm<Values extends FieldValues>(
  schema: z.ZodType<Values, Values>,
  defaultValues: NoInfer<Values>,
): UseFormReturn<Values> {
  return useForm<Values>({
    // The form keeps what was typed as it is; only a record without a problem goes on.
    defaultValues: defaultValues as DefaultValues<Values>,
    resolver: schemaResolver(schema),
    reValidateMode: 'onChange',
  });
}

const schemaResolver = <Values extends FieldValues>(schema: z.ZodType<Values, Values>) =>
  zodResolver(schema, { error: (issue) => issueWords(issue as z.core.$ZodIssue) });

/**
 * A form over a record that is asked as a whole, with what it names in the job; problems stand at their
 * fields.
 */
export function useCheckedForm<Values extends FieldValues>(
  defaultValues: Values,
  check: (values: Values) => readonly Pick<Problem, 'path' | 'message'>[],
): UseFormReturn<Values> {
  return useForm<Values>({
    defaultValues: defaultValues as DefaultValues<Values>,
    resolver: (values) => {
      const errors: FieldErrors<Values> = {};
      for (const { path, message } of check(values))
        set(errors, path.slice(1).replaceAll('/', '.') || 'root', { type: 'check', message });
      return Object.keys(errors).length === 0 ? { values, errors: {} } : { values: {}, errors };
    },
  });
}

/**
 * A sheet of answers over a record of the job, with nothing to submit: an answer that the schema takes is
 * told at once, one that it does not take stays in its field and no other waits for it. What else changes
 * the record comes in.
 * @param onAnswer the record with the answer, and the path of its field
 */
export function useAnswers<Values extends FieldValues>(
  schema: z.ZodType<Values, Values>,
  record: NoInfer<Values>,
  onAnswer: (record: Values, field: FieldPath<Values>) => void,
): UseFormReturn<Values> {
  const form = useForm<Values>({
    // The form writes into what it is given; a job is never changed in place.
    values: structuredClone(record),
    resolver: schemaResolver(schema),
    mode: 'onChange',
  });
  const latest = useRef({ record, onAnswer });
  latest.current = { record, onAnswer };
  useEffect(
    () =>
      form.subscribe({
        formState: { values: true },
        callback: ({ values, name }) => {
          const { record, onAnswer } = latest.current;
          // Also told where a field comes up, or follows the record.
          if (name === undefined || get(values, name) === get(record, name)) return;
          const answered = structuredClone(record);
          set(answered, name, get(values, name));
          const told = schema.safeParse(withoutUntold(answered));
          if (told.success) onAnswer(told.data, name as FieldPath<Values>);
        },
      }),
    [form, schema],
  );
  return form;
}

/** As it will stand in the file, where what is untold is absent. */
const withoutUntold = (record: object): unknown => JSON.parse(JSON.stringify(record));

/** A short form over the view; what hinders the edit is said in it and nothing typed is lost. */
export function RecordForm<Values extends FieldValues>({
  title,
  save,
  form,
  onSave,
  onClose,
  children,
}: {
  title: string;
  save: string;
  form: UseFormReturn<Values>;
  /** @returns what hinders it, in words; null: it was recorded */
  onSave: (values: Values) => string | null | Promise<string | null>;
  onClose: () => void;
  children: ReactNode;
}) {
  const submit = form.handleSubmit(async (values) => {
    const hindered = await onSave(values);
    if (hindered) form.setError('root', { message: hindered });
    else onClose();
  });
  const hindered = form.formState.errors.root?.message;
  return (
    <Dialog title={title} open onClose={onClose}>
      <form noValidate onSubmit={(event) => void submit(event)} className="flex flex-col gap-4">
        {children}
        {hindered && (
          <p role="alert" className="text-stop">
            {hindered}
          </p>
        )}
        <Button kind="main" type="submit">
          {save}
        </Button>
      </form>
    </Dialog>
  );
}

/** What is wrong and has no field of its own in sight, each with the field it is about. */
export function FormProblems({ problems }: { problems: readonly (readonly [string, unknown])[] }) {
  if (problems.length === 0) return null;
  return (
    <ul role="alert" className="rounded-md border border-stop p-2 text-stop">
      {problems.flatMap(([field, error]) =>
        messagesOf(error).map(([path, message]) => (
          <li key={`${field}${path}${message}`}>
            <strong>
              /{field}
              {path}
            </strong>{' '}
            {message}
          </li>
        )),
      )}
    </ul>
  );
}

/** Every message of an error and what is below it, each with its path. */
function messagesOf(error: unknown, path = ''): [string, string][] {
  if (typeof error !== 'object' || error === null) return [];
  const own: [string, string][] =
    'message' in error && typeof error.message === 'string' ? [[path, error.message]] : [];
  const below = Object.entries(error).filter(([key]) => !['message', 'type', 'ref', 'types'].includes(key));
  return [...own, ...below.flatMap(([key, value]) => messagesOf(value, `${path}/${key}`))];
}
