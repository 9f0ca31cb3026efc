import { FigureEntry, type JobFigure, ML_PER_IN3 } from '@inventario/core';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { FormNumber, FormText } from '../../parts/form-fields.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';
import { shownAs } from './shown-as.js';

/** A job's own figure: it needs a note, which stands wherever the figure matters. */
export function FigureDialog({
  figure,
  onKeep,
  onClose,
}: {
  figure: JobFigure;
  /** @returns what hinders it, in words */
  onKeep: (value: number, note: string) => string | null;
  onClose: () => void;
}) {
  const { job } = useJob();
  const units = useUnits(job);
  const before = shownAs(figure.unit, figure.own?.value ?? figure.value, units);
  const scale = { 'in³': ML_PER_IN3, '%': 0.01 }[before.unit] ?? 1;
  const form = useRecordForm(FigureEntry, { value: before.shown, note: figure.own?.note ?? '' });
  return (
    <RecordForm
      title="A figure of this job’s own"
      save="Use it in this job"
      form={form}
      onSave={({ value, note }) => onKeep(value * scale, note.trim())}
      onClose={onClose}
    >
      <p>
        {figure.name}. Usual: {shownAs(figure.unit, figure.value, units).shown} {before.unit} ({figure.source}
        ).
      </p>
      <FormNumber control={form.control} name="value" label="In this job" unit={before.unit} max={10_000} />
      <FormText control={form.control} name="note" label="Why, with its source" maxLength={300} />
    </RecordForm>
  );
}
