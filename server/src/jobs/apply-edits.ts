import {
  conflicts,
  type Edit,
  type EditAnswer,
  type EditPart,
  type EditsAnswer,
  findRecord,
  type Job,
  type Problem,
  pointer,
  RECORD_SCHEMAS,
  reduce,
  referenceProblems,
  schemaProblems,
} from '@inventario/core';
import type { Transaction } from 'sequelize';
import { RequestError } from '../errors/catalogue.js';
import type { JobStore, StoredJob } from '../storage/job-store.js';

/**
 * Applies edits in order, each in a transaction of its own: the job's row is locked, a known edit gets its stored answer, clashes
 * with changes its device had not seen are named, the result is checked, rows and change are written. All parts of an edit or none.
 */
export async function applyEdits(store: JobStore, jobId: string, edits: readonly Edit[], now: () => Date): Promise<EditsAnswer> {
  const results: EditAnswer[] = [];
  let sequence = 0;
  for (const edit of edits) {
    const done = await store.transaction(async (transaction) => {
      const stored = await store.read(jobId, transaction, true);
      if (!stored) throw new RequestError('no-such-job');
      return applyOne(store, stored, edit, now(), transaction);
    });
    if (done.stored) store.committed(done.stored);
    results.push(done.answer);
    sequence = done.sequence;
  }
  return { results, sequence };
}

async function applyOne(
  store: JobStore,
  stored: StoredJob,
  edit: Edit,
  now: Date,
  transaction: Transaction,
): Promise<{ answer: EditAnswer; sequence: number; stored?: StoredJob }> {
  const known = await store.sequenceOf(stored.job.id, edit.id, transaction);
  if (known !== undefined) return { answer: { editId: edit.id, outcome: 'duplicate', sequence: known }, sequence: stored.sequence };

  const clashes = conflicts(stored.job, edit.parts, await changedByOthers(store, stored, edit, transaction));
  if (clashes.length > 0) return { answer: { editId: edit.id, outcome: 'conflict', conflicts: clashes }, sequence: stored.sequence };

  const reduced = reduce(stored.job, edit);
  const problems = reduced.ok ? documentProblems(reduced.job, edit.parts) : [refusalProblem(reduced.refusal)];
  if (!reduced.ok || problems.length > 0) return { answer: { editId: edit.id, outcome: 'refused', problems }, sequence: stored.sequence };

  const next = await store.apply(stored, reduced.job, edit, now, transaction);
  return { answer: { editId: edit.id, outcome: 'applied', sequence: next.sequence }, sequence: next.sequence, stored: next };
}

/** Whether a device other than the edit's changed a record after a base. A job replaced as a whole changed everything. */
async function changedByOthers(store: JobStore, stored: StoredJob, edit: Edit, transaction: Transaction) {
  const bases = edit.parts.map((part) => part.base ?? 0);
  const changes = await store.changes(stored.job.id, Math.min(...bases), { notBy: edit.deviceId, transaction, limit: 100_000 });
  return (kind: EditPart['kind'], id: string, base: number | null) =>
    base === null ||
    changes.some(
      (change) =>
        change.sequence > base && (change.edit === null || change.edit.parts.some((part) => part.kind === kind && part.id === id)),
    );
}

/** What is wrong with the job after the edit: the records it touched by their schema, then references over the whole document. */
function documentProblems(job: Job, parts: readonly EditPart[]): Pick<Problem, 'path' | 'message'>[] {
  const shape = parts.flatMap((part, number) => {
    const record = findRecord(job, part.kind, part.id)?.record;
    if (record === undefined) return [];
    const parsed = RECORD_SCHEMAS[part.kind].safeParse(record);
    return parsed.success
      ? []
      : schemaProblems(parsed.error, record).map((problem) => ({
          path: `${pointer(['parts', number, 'record'])}${problem.path}`,
          message: problem.message,
        }));
  });
  if (shape.length > 0) return shape;
  return referenceProblems(job)
    .filter((problem) => problem.severity === 'error')
    .map(({ path, message }) => ({ path, message }));
}

function refusalProblem(refusal: { code: string; part: number; field?: string }): { path: string; message: string } {
  const path = pointer(['parts', refusal.part, ...(refusal.field === undefined ? [] : [refusal.field])]);
  const says: Record<string, string> = {
    'no-such-record': 'names a record the job does not have',
    'key-differs': 'would change the id the record is known by',
    'fixed-field': 'names a field that no edit may change',
    'append-only': 'would change what happened; events are only added',
    'not-a-list': 'names a field that is not a list',
  };
  return { path, message: says[refusal.code] ?? refusal.code };
}
