import { findRecord, type RecordKind } from '../records.js';
import { sameJson } from '../same.js';
import type { Job } from '../schema/job.js';
import type { EditPart } from './edit.js';

/** A part that meets a change its device had not seen. `field` is absent when the whole record is in question. */
export interface Conflict {
  part: number;
  kind: RecordKind;
  id: string;
  field?: string;
  theirs?: unknown;
  yours?: unknown;
}

/**
 * What of an edit clashes with changes others made since its base. `changedSince(kind, id, base)` tells whether another device
 * changed the record after that. Different fields of a record merge; the same field asks; a removal that meets a change asks,
 * and so does a change of what was removed. Appending never clashes, unless the record is gone.
 */
export function conflicts(
  job: Job,
  parts: readonly EditPart[],
  changedSince: (kind: RecordKind, id: string, base: number | null) => boolean,
): Conflict[] {
  const found: Conflict[] = [];
  // Records this same edit has put in place are its own.
  const own = new Set<string>();
  parts.forEach((part, number) => {
    const name = `${part.kind}/${part.id}`;
    const current = findRecord(job, part.kind, part.id)?.record;
    const clash = (field?: string, theirs?: unknown, yours?: unknown) =>
      found.push({ part: number, kind: part.kind, id: part.id, ...(field === undefined ? {} : { field, theirs, yours }) });
    if (part.put !== undefined) own.add(name);
    else if (own.has(name)) return;
    if (!changedSince(part.kind, part.id, part.base)) return;
    if (part.put !== undefined) {
      if (current !== undefined && !sameJson(current, part.put)) clash();
    } else if (part.remove) {
      if (current !== undefined) clash();
    } else if (current === undefined) {
      clash();
    } else {
      for (const [field, { was, now }] of Object.entries(part.set ?? {})) {
        const theirs = current[field] ?? null;
        if (!sameJson(theirs, was ?? null) && !sameJson(theirs, now ?? null)) clash(field, theirs, now);
      }
    }
  });
  return found;
}
