import { SYMPTOM_WORDS, type SymptomKind, type Symptoms } from '@inventario/core';
import { SymptomPicture } from '../drawings/symptom-picture.js';
import { classes } from '../ui/classes.js';

/** What may be seen of one kind, each a drawing to touch; touched again it is not known. */
export function SymptomGroup({
  kind,
  values,
  seen,
  onSeen,
}: {
  kind: SymptomKind;
  values: readonly string[];
  seen: Symptoms;
  onSeen: (seen: Symptoms) => void;
}) {
  const { question, values: words } = SYMPTOM_WORDS[kind];
  const { [kind]: before, ...others } = seen;
  return (
    <fieldset>
      <legend className="text-sm font-semibold text-soft">{question}</legend>
      <div className="flex flex-wrap gap-1.5">
        {values.map((value) => (
          <button
            key={value}
            type="button"
            aria-pressed={before === value}
            className={classes(
              'flex min-h-20 w-24 flex-col items-center justify-center gap-1 rounded-md border bg-sheet p-1 text-center text-sm leading-tight',
              before === value
                ? 'border-ink bg-well font-bold ring-2 ring-ink'
                : 'border-edge hover:border-ink',
            )}
            onClick={() => onSeen((before === value ? others : { ...others, [kind]: value }) as Symptoms)}
          >
            <SymptomPicture kind={kind} value={value} />
            {(words as Record<string, string>)[value]}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
