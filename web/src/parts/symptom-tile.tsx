import { SYMPTOM_WORDS, type SymptomKind } from '@inventario/core';
import { SymptomPicture } from '../drawings/symptom-picture.js';
import { classes } from '../ui/classes.js';

/** One thing that may be seen, as a drawing to touch. */
export function SymptomTile({
  kind,
  value,
  isSeen,
  onTouch,
}: {
  kind: SymptomKind;
  value: string;
  isSeen: boolean;
  onTouch: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={isSeen}
      className={classes(
        'flex min-h-20 w-24 flex-col items-center justify-center gap-1 rounded-md border bg-sheet p-1 text-center text-sm leading-tight',
        isSeen ? 'border-ink bg-well font-bold ring-2 ring-ink' : 'border-edge hover:border-ink',
      )}
      onClick={onTouch}
    >
      <SymptomPicture kind={kind} value={value} />
      {(SYMPTOM_WORDS[kind].values as Record<string, string>)[value]}
    </button>
  );
}
