import { SYMPTOM_KINDS, SYMPTOMS, type Symptoms } from '@inventario/core';
import { SymptomGroup } from '../../parts/symptom-group.js';

/** What is seen, kind by kind. */
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
  return (
    <div className="grid gap-x-4 gap-y-2 xl:grid-cols-2">
      {SYMPTOM_KINDS.filter((kind) => kind !== 'far' || hasFar).map((kind) => (
        <SymptomGroup key={kind} kind={kind} values={SYMPTOMS[kind]} seen={seen} onSeen={onSeen} />
      ))}
    </div>
  );
}
