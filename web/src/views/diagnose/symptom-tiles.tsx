import { SYMPTOM_KINDS, SYMPTOM_WORDS, SYMPTOMS, type SymptomKind, type Symptoms } from '@inventario/core';
import { SymptomTile } from '../../parts/symptom-tile.js';

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
            {SYMPTOMS[kind].map((value) => (
              <SymptomTile
                key={value}
                kind={kind}
                value={value}
                isSeen={seen[kind] === value}
                onTouch={() => touch(kind, value)}
              />
            ))}
          </div>
        </fieldset>
      ))}
    </div>
  );
}
