import { sameJson } from './same.js';
import type { Job } from './schema/job.js';

/**
 * The records a job is made of: what edits name, what versions count, what the database keeps in rows.
 * `job` is everything of the document that is not in one of the lists (its name, practice, brief and so on).
 */
export const RECORD_LISTS = {
  circuit: ['circuits'],
  room: ['rooms'],
  load: ['loads'],
  box: ['boxes'],
  run: ['runs'],
  group: ['groups'],
  controlPoint: ['controlPoints'],
  thing: ['things'],
  selection: ['selections'],
  pairing: ['pairings'],
  hubSetup: ['hubs'],
  account: ['accounts'],
  automation: ['automations'],
  event: ['events'],
  photo: ['photos'],
  override: ['overrides'],
  device: ['catalogue', 'devices'],
  hub: ['catalogue', 'hubs'],
  part: ['catalogue', 'parts'],
  connector: ['catalogue', 'connectors'],
  enclosure: ['catalogue', 'enclosures'],
  platform: ['catalogue', 'platforms'],
} as const satisfies Record<string, readonly [string] | readonly [string, string]>;

export type ListKind = keyof typeof RECORD_LISTS;
export type RecordKind = 'job' | ListKind;
export type JobRecord = Record<string, unknown>;

export const LIST_KINDS = Object.keys(RECORD_LISTS) as ListKind[];

/** What names a record among all of a job: `box/kitchen-door`. */
export const recordName = ({ kind, id }: { kind: RecordKind; id: string }): string => `${kind}/${id}`;

export function listOf(job: Job, kind: ListKind): readonly JobRecord[] | undefined {
  const [first, second] = RECORD_LISTS[kind] as readonly [string, string?];
  const outer = (job as unknown as JobRecord)[first];
  return (second === undefined ? outer : (outer as JobRecord | undefined)?.[second]) as
    | JobRecord[]
    | undefined;
}

/** The same job with one list replaced; everything else is shared. `undefined` takes the list out. */
export function withList(job: Job, kind: ListKind, list: readonly JobRecord[] | undefined): Job {
  const [first, second] = RECORD_LISTS[kind] as readonly [string, string?];
  const next = { ...(job as unknown as JobRecord) };
  if (second !== undefined) next[first] = { ...(next[first] as JobRecord), [second]: list };
  else if (list === undefined) delete next[first];
  else next[first] = list;
  return next as unknown as Job;
}

/**
 * What names a record within its kind: its id; for a selection its place, for a platform its name.
 * Records of other programs that have no id are named by their place in the list, `#0`, `#1`, which no id can
 * equal.
 */
export function recordKey(kind: ListKind, record: JobRecord, index: number): string {
  if (kind === 'selection') return `${String(record.boxId)}/${String(record.position)}`;
  if (kind === 'platform') return encodeURIComponent(String(record.name));
  if (kind === 'override') return encodeURIComponent(String(record.figure));
  return typeof record.id === 'string' ? record.id : `#${index}`;
}

export function findRecord(
  job: Job,
  kind: RecordKind,
  key: string,
): { record: JobRecord; index: number } | undefined {
  if (kind === 'job') return key === job.id ? { record: headerOf(job), index: 0 } : undefined;
  const list = listOf(job, kind);
  const index = list?.findIndex((record, at) => recordKey(kind, record, at) === key) ?? -1;
  const record = list?.[index];
  return record === undefined ? undefined : { record, index };
}

const CATALOGUE_LISTS: ReadonlySet<string> = new Set(
  LIST_KINDS.flatMap((kind) => (RECORD_LISTS[kind].length === 2 ? [RECORD_LISTS[kind][1] as string] : [])),
);
const LISTED: ReadonlySet<string> = new Set(LIST_KINDS.map((kind) => RECORD_LISTS[kind][0]));

/**
 * The document without its lists of records. Unknown fields of the catalogue object stay with the header
 * under `catalogue`.
 */
export function headerOf(job: Job): JobRecord {
  const header: JobRecord = {};
  for (const [field, value] of Object.entries(job)) if (!LISTED.has(field)) header[field] = value;
  const rest = Object.entries(job.catalogue).filter(([field]) => !CATALOGUE_LISTS.has(field));
  if (rest.length > 0) header.catalogue = Object.fromEntries(rest);
  return header;
}

/** Which of the lists a document may leave out are there. */
export function listsOf(job: Job): ListKind[] {
  return LIST_KINDS.filter((kind) => listOf(job, kind) !== undefined);
}

/**
 * The document put together again from its header and lists; the counterpart of {@link headerOf} and {@link
 * listOf}.
 */
export function assembleJob(header: JobRecord, lists: ReadonlyMap<ListKind, readonly JobRecord[]>): Job {
  let job = { ...header, catalogue: { ...(header.catalogue as JobRecord | undefined) } } as unknown as Job;
  for (const kind of LIST_KINDS) {
    const list = lists.get(kind);
    if (list !== undefined) job = withList(job, kind, list);
  }
  return job;
}

export interface RecordChange {
  kind: RecordKind;
  key: string;
  /** Absent: the record is gone. */
  record?: JobRecord;
}

/**
 * The records that differ between two jobs that share what is equal; compared by reference, so unshared
 * copies count as changed.
 */
export function changedRecords(before: Job, after: Job): RecordChange[] {
  const changes: RecordChange[] = [];
  if (before === after) return changes;
  const was = headerOf(before);
  const now = headerOf(after);
  const fields = new Set([...Object.keys(was), ...Object.keys(now)]);
  if (
    [...fields].some(
      (field) => was[field] !== now[field] && !(field === 'catalogue' && sameJson(was[field], now[field])),
    )
  )
    changes.push({ kind: 'job', key: after.id, record: now });
  for (const kind of LIST_KINDS) {
    const old = listOf(before, kind);
    const list = listOf(after, kind);
    if (old === list) continue;
    const left = new Map((old ?? []).map((record, index) => [recordKey(kind, record, index), record]));
    list?.forEach((record, index) => {
      const key = recordKey(kind, record, index);
      if (left.get(key) !== record) changes.push({ kind, key, record });
      left.delete(key);
    });
    for (const key of left.keys()) changes.push({ kind, key });
  }
  return changes;
}
