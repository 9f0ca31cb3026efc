import { findRecord, type JobRecord, type RecordKind } from '../records.js';
import { sameJson } from '../same.js';
import type { Job } from '../schema/job.js';
import type { EditPart } from './edit.js';

/**
 * The part that puts a record in place, new or whole; a field that is `undefined` is absent from it. Bases
 * are filled in by the session that sends it.
 */
export function putPart(kind: RecordKind, id: string, record: object): EditPart {
  const told = Object.entries(record).filter(([, value]) => value !== undefined);
  return { kind, id, base: null, put: Object.fromEntries(told) as JobRecord };
}

export function removePart(kind: RecordKind, id: string): EditPart {
  return { kind, id, base: null, remove: true };
}

/**
 * The part that sets the fields in which `change` differs from the record; none when nothing differs.
 * `undefined` takes a field out.
 */
export function setParts<Subject extends object>(
  kind: RecordKind,
  id: string,
  record: Subject,
  change: Partial<Subject>,
): EditPart[] {
  const set: NonNullable<EditPart['set']> = {};
  for (const [field, now] of Object.entries(change)) {
    const was = (record as JobRecord)[field];
    if (!sameJson(was, now)) set[field] = { was: was ?? null, now: now ?? null };
  }
  return Object.keys(set).length === 0 ? [] : [{ kind, id, base: null, set }];
}

/**
 * The same edit with every record it puts over an existing one told field by field, so that what others
 * change in it meanwhile can be merged. A part that changes nothing falls away.
 */
export function fieldByField(job: Job, parts: readonly EditPart[]): EditPart[] {
  return parts.flatMap((part): EditPart[] => {
    const current = part.put && findRecord(job, part.kind, part.id)?.record;
    // A field set to null is taken out; one that is null is told with its record.
    if (!part.put || !current || part.kind === 'event' || Object.values(part.put).includes(null))
      return [part];
    const dropped = Object.fromEntries(Object.keys(current).map((field) => [field, undefined]));
    return setParts(part.kind, part.id, current, { ...dropped, ...part.put });
  });
}
