import { findRecord, type JobRecord } from '../records.js';
import type { Job } from '../schema/job.js';
import type { Edit, EditPart } from './edit.js';
import { reduce } from './reduce.js';

/**
 * The parts that undo an edit which was made on `before`. Events stay: what happened is corrected, never
 * undone; those that went with the box or circuit they speak of come back with it.
 * Bases are left at null for the device to fill in when it sends the undo.
 */
export function inverse(before: Job, edit: Pick<Edit, 'parts'>): EditPart[] {
  const undo: EditPart[] = [];
  let job = before;
  for (const part of edit.parts) {
    const found = findRecord(job, part.kind, part.id);
    if (part.kind !== 'event' || part.remove) undo.unshift(...inversePart(part, found));
    const next = reduce(job, { parts: [part] });
    if (next.ok) job = next.job;
  }
  return undo;
}

function inversePart(part: EditPart, found: { record: JobRecord; index: number } | undefined): EditPart[] {
  const same = { kind: part.kind, id: part.id, base: null };
  if (!found) return part.put === undefined ? [] : [{ ...same, remove: true }];
  if (part.put !== undefined) return [{ ...same, put: found.record }];
  if (part.remove) return [{ ...same, put: found.record, index: found.index }];
  const fields = Object.keys(part.set ?? part.append ?? {});
  const set: NonNullable<EditPart['set']> = {};
  for (const field of fields) {
    const was = found.record[field] ?? null;
    const appended = part.append?.[field];
    const now = part.set
      ? (part.set[field]?.now ?? null)
      : [...((was as JobRecord[] | null) ?? []), ...(appended ?? [])];
    set[field] = { was: now, now: was };
  }
  return [{ ...same, set }];
}
