import {
  findRecord,
  headerOf,
  type JobRecord,
  type ListKind,
  listOf,
  recordKey,
  withList,
} from '../records.js';
import type { Job } from '../schema/job.js';
import type { Edit, EditPart } from './edit.js';

/** Why an edit cannot be carried out on a document. `part` is its number in the edit. */
interface Refusal {
  code: 'no-such-record' | 'key-differs' | 'fixed-field' | 'append-only' | 'not-a-list';
  part: number;
  field?: string;
}

export type Reduced = { ok: true; job: Job } | { ok: false; refusal: Refusal };

/** Fields of the header that no edit may touch: they are what the document is. */
const FIXED = new Set(['format', 'version', 'id', 'catalogue']);

/**
 * The job after the edit; everything untouched is shared with the job before it. All parts or none.
 * Runs in the web application, the worker and the server alike.
 */
export function reduce(job: Job, edit: Pick<Edit, 'parts'>): Reduced {
  let next = job;
  for (const [number, part] of edit.parts.entries()) {
    const result = reducePart(next, part, number);
    if (!result.ok) return result;
    next = result.job;
  }
  return { ok: true, job: next };
}

function reducePart(job: Job, part: EditPart, number: number): Reduced {
  const refuse = (code: Refusal['code'], field?: string): Reduced => ({
    ok: false,
    refusal: { code, part: number, ...(field === undefined ? {} : { field }) },
  });
  if (part.kind === 'event' && !mayChangeEvent(job, part)) return refuse('append-only');
  if (part.kind === 'job') {
    if (part.id !== job.id) return refuse('no-such-record');
    if (part.set === undefined) return refuse('key-differs');
    const fixed = Object.keys(part.set).find((field) => FIXED.has(field));
    if (fixed !== undefined) return refuse('fixed-field', fixed);
    const lists = Object.keys(part.set).find((field) => !(field in headerOf(job)) && field in job);
    if (lists !== undefined) return refuse('fixed-field', lists);
    return { ok: true, job: setFields(job as unknown as JobRecord, part.set) as unknown as Job };
  }

  const kind: ListKind = part.kind;
  const list = listOf(job, kind) ?? [];
  const found = findRecord(job, kind, part.id);
  if (part.put !== undefined) {
    if (recordKey(kind, part.put, found?.index ?? list.length) !== part.id) return refuse('key-differs');
    if (found) return { ok: true, job: withList(job, kind, list.with(found.index, part.put)) };
    return { ok: true, job: withList(job, kind, list.toSpliced(part.index ?? list.length, 0, part.put)) };
  }
  if (!found) return refuse('no-such-record');
  if (part.remove) return { ok: true, job: withList(job, kind, list.toSpliced(found.index, 1)) };
  if (part.set !== undefined) {
    const record = setFields(found.record, part.set);
    if (recordKey(kind, record, found.index) !== part.id) return refuse('key-differs');
    return { ok: true, job: withList(job, kind, list.with(found.index, record)) };
  }
  const record = { ...found.record };
  for (const [field, items] of Object.entries(part.append ?? {})) {
    const old = record[field] ?? [];
    if (!Array.isArray(old)) return refuse('not-a-list', field);
    // United by id: sending the same reading or attempt twice adds it once.
    const known = new Set(old.map((item: JobRecord) => item.id));
    record[field] = [...old, ...items.filter((item) => item.id === undefined || !known.has(item.id))];
  }
  return { ok: true, job: withList(job, kind, list.with(found.index, record)) };
}

/** Events are added, never changed. One goes only after the box or circuit it speaks of has gone. */
function mayChangeEvent(job: Job, part: EditPart): boolean {
  const event = findRecord(job, 'event', part.id)?.record;
  if (part.put !== undefined) return event === undefined;
  if (!part.remove || event === undefined) return false;
  const gone = (kind: 'box' | 'circuit', id: unknown) =>
    typeof id === 'string' && findRecord(job, kind, id) === undefined;
  return gone('box', event.boxId) || gone('circuit', event.circuitId);
}

function setFields(record: JobRecord, set: NonNullable<EditPart['set']>): JobRecord {
  const next = { ...record };
  for (const [field, { now }] of Object.entries(set)) {
    if (now === undefined || now === null) delete next[field];
    else next[field] = now;
  }
  return next;
}
