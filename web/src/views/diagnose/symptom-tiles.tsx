import { SYMPTOM_KINDS, SYMPTOM_WORDS, SYMPTOMS, type SymptomKind, type Symptoms } from '@inventario/core';
import { SymptomPicture } from '../../drawings/symptom-picture.js';
import { classes } from '../../ui/classes.js';

/** What is seen, kind by kind, each a drawing to touch; touched again it is not known. */
export function SymptomTiles({
  seen,
  hasFar,
  onSeen,
}: {
  seen: Symptoms;
  /** Whether the light is worked from another place too. */
  hasFar: boolean;
  onSeen: (seen: Symptoms) => void;
}) {
  const touch = (kind: SymptomKind, value: string) => {
    const { [kind]: before, ...others } = seen;
    onSeen((before === value ? others : { ...others, [kind]: value }) as Symptoms);
  };
  return (
    <div className="grid gap-x-4 gap-y-2 xl:grid-cols-2">
      {SYMPTOM_KINDS.filter((kind) => kind !== 'far' || hasFar).map((kind) => (
        <fieldset key={kind}>
          <legend className="text-sm font-semibold text-soft">{SYMPTOM_WORDS[kind].question}</legend>
          <div className="flex flex-wrap gap-1.5">
            {SYMPTOMS[kind].map((value) => {
              const isSeen = seen[kind] === value;
              return (
                <button
                  key={value}
                  type="button"
                  aria-pressed={isSeen}
                  className={classes(
                    'flex min-h-20 w-24 flex-col items-center justify-center gap-1 rounded-md border bg-sheet p-1 text-center text-sm leading-tight',
                    isSeen ? 'border-ink bg-well font-bold ring-2 ring-ink' : 'border-edge hover:border-ink',
                  )}
                  onClick={() => touch(kind, value)}
                >
                  <SymptomPicture kind={kind} value={value} />
                  {(SYMPTOM_WORDS[kind].values as Record<string, string>)[value]}
                </button>
              );
            })}
          </div>
        </fieldset>
      ))}
    </div>
  );
}
