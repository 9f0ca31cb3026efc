import { type Job, listOf, type RecordChange, recordKey, withList } from '@inventario/core';

/**
 * The job after changes named by record: what is not named keeps its identity, so that results resting on it
 * stay good.
 */
export function applyChanges(job: Job, changes: readonly RecordChange[]): Job {
  let next = job;
  for (const { kind, key, record } of changes) {
    if (kind === 'job') {
      next = { ...next, ...(record as Partial<Job>), catalogue: next.catalogue };
      continue;
    }
    const list = listOf(next, kind) ?? [];
    const index = list.findIndex((entry, at) => recordKey(kind, entry, at) === key);
    if (!record) next = index < 0 ? next : withList(next, kind, list.toSpliced(index, 1));
    else next = withList(next, kind, index < 0 ? [...list, record] : list.with(index, record));
  }
  return next;
}
