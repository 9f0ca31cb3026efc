import { type EditPart, findRecord, type Job, meet, recordName, reduce } from '@inventario/core';
import type { Base, Pending, Question } from './kept-store.js';

/**
 * The job as shown: what is on its way meets the base as others have made it since, and mine holds until the
 * server says otherwise. An edit that cannot be carried out there now is not shown; the server will ask about
 * it.
 */
export function jobOnBase({ job: from }: Base, pending: readonly Pending[]): Job {
  let job = from;
  for (const { edit } of pending) {
    const result = reduce(
      job,
      meet(job, edit.parts, () => false),
    );
    if (result.ok) job = result.job;
  }
  return job;
}

/** Records that were shown and are no more, of those that edits on their way change. */
export function recordsGone(before: Job, after: Job, pending: readonly Pending[]): Map<string, object> {
  const gone = new Map<string, object>();
  for (const part of pending.flatMap((row) => row.edit.parts)) {
    const record = isListed(part) ? findRecord(before, part.kind, part.id)?.record : undefined;
    if (record && !findRecord(after, part.kind, part.id)) gone.set(recordName(part), record);
  }
  return gone;
}

/**
 * The records an edit is about as this device had them; one that a later edit of its own takes out, as the
 * server has it.
 */
export function recordsOf({ edit, records }: Pending, shown: Job, base: Job): Question['records'] {
  return Object.fromEntries(
    edit.parts.flatMap((part) => {
      const record = isListed(part)
        ? (findRecord(shown, part.kind, part.id)?.record ??
          records?.[recordName(part)] ??
          findRecord(base, part.kind, part.id)?.record)
        : undefined;
      return record ? [[recordName(part), record]] : [];
    }),
  );
}

const isListed = (part: EditPart) => part.kind !== 'job';
