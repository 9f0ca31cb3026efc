import { type Job, type JobRecord, LIST_KINDS, type ListKind, listOf, recordKey } from '@inventario/core';

/** The name of a record's row within its job. */
export const rowName = (kind: ListKind, key: string) => `${kind}/${key}`;

/**
 * Where each record of the next job is kept. Places only have to rise along the list, so a record added at
 * the end or taken out moves nothing; one put back in the middle renumbers its list.
 */
export function placesAfter(
  before: { job: Job; places: ReadonlyMap<string, number> },
  next: Job,
): { places: Map<string, number>; moved: { kind: ListKind; key: string; doc: JobRecord }[] } {
  const places = new Map(before.places);
  const moved: { kind: ListKind; key: string; doc: JobRecord }[] = [];
  for (const kind of LIST_KINDS) {
    const list = listOf(next, kind) ?? [];
    if (listOf(before.job, kind) === list) continue;
    const keys = list.map((record, index) => recordKey(kind, record, index));
    const kept = new Set(keys);
    (listOf(before.job, kind) ?? []).forEach((record, index) => {
      const key = recordKey(kind, record, index);
      if (!kept.has(key)) places.delete(rowName(kind, key));
    });
    let last = -1;
    let rising = true;
    for (const key of keys) {
      const place = places.get(rowName(kind, key)) ?? last + 1;
      if (place <= last) rising = false;
      places.set(rowName(kind, key), place);
      last = Math.max(last, place);
    }
    if (rising) continue;
    keys.forEach((key, index) => {
      if (places.get(rowName(kind, key)) === index) return;
      places.set(rowName(kind, key), index);
      moved.push({ kind, key, doc: list[index] as JobRecord });
    });
  }
  return { places, moved };
}
