import { type JobFigure, ML_PER_IN3 } from '@inventario/core';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { Button } from '../../ui/button.js';
import { Dialog } from '../../ui/dialog.js';
import { NumberField, TextField } from '../../ui/field.js';
import { shownAs } from './shown-as.js';

/** A job's own figure: it needs a note, which stands wherever the figure matters. */
export function FigureDialog({
  figure,
  onKeep,
  onClose,
}: {
  figure: JobFigure;
  onKeep: (value: number, note: string) => void;
  onClose: () => void;
}) {
  const { job } = useJob();
  const units = useUnits(job);
  const before = shownAs(figure.unit, figure.own?.value ?? figure.value, units);
  const [shown, setShown] = useState(before.shown);
  const [note, setNote] = useState(figure.own?.note ?? '');
  const scale = before.unit === 'in³' ? ML_PER_IN3 : before.unit === '%' ? 0.01 : 1;
  const [taken, setTaken] = useState(true);
  const usable = taken && shown > 0 && note.trim() !== '';
  return (
    <Dialog title="A figure of this job’s own" open onClose={onClose}>
      <div className="flex flex-col gap-4">
        <p>
          {figure.name}. Usual: {shownAs(figure.unit, figure.value, units).shown} {before.unit} (
          {figure.source}).
        </p>
        <NumberField
          label="In this job"
          unit={before.unit}
          max={10_000}
          value={shown}
          onNumber={setShown}
          onTaken={setTaken}
        />
        <TextField label="Why, with its source" value={note} maxLength={300} onText={setNote} />
        {!usable && <p className="text-sm text-soft">A figure above 0 and a note are needed.</p>}
        <Button kind="main" disabled={!usable} onClick={() => onKeep(shown * scale, note.trim())}>
          Use it in this job
        </Button>
      </div>
    </Dialog>
  );
}
