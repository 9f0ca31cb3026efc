import type { JobRecord, RecordKind } from '../records.js';
import type { HistoryEntry } from '../requests.js';
import type { EditPart } from './edit.js';

/** A record before one entry of its history. `known` is false when what was there is not on record. */
export interface EarlierRecord {
  entry: HistoryEntry;
  record: JobRecord | undefined;
  known: boolean;
}

/**
 * What a record was before each entry of its history, newest first, walked back from what it is now.
 *
 * @param history newest first, with the parts of this record alone
 */
export function earlierRecords(
  kind: RecordKind,
  id: string,
  now: JobRecord | undefined,
  history: readonly HistoryEntry[],
): EarlierRecord[] {
  let record = now;
  let known = true;
  return history.map((entry) => {
    if (entry.undo === null) known = false;
    else
      for (const part of entry.undo)
        if (part.kind === kind && part.id === id) record = walkBack(record, part);
    return { entry, record: known ? record : undefined, known };
  });
}

function walkBack(record: JobRecord | undefined, part: EditPart): JobRecord | undefined {
  if (part.remove) return undefined;
  if (part.put) return part.put;
  if (!record) return undefined;
  const next = { ...record };
  for (const [field, { now }] of Object.entries(part.set ?? {})) {
    if (now === null || now === undefined) delete next[field];
    else next[field] = now;
  }
  return next;
}
