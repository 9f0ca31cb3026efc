import {
  type Conflict,
  type Edit,
  type EditAnswer,
  type EditPart,
  type EditsAnswer,
  findRecord,
  type Job,
  labelClashes,
  meet,
  type Problem,
  pointer,
  recordName,
  recordProblems,
  reduce,
  referenceProblems,
  sameJson,
} from '@inventario/core';
import type { Transaction } from 'sequelize';
import { RequestError } from '../errors/catalogue.js';
import type { JobStore, StoredJob } from '../storage/job-store.js';

/**
 * Applies edits in order, each in a transaction of its own: the job's row is locked, a known edit gets its
 * stored answer, what its device had not seen is merged with it or named, the result is checked, rows and
 * change are written. All parts of an edit or none.
 */
export async function applyEdits(
  store: JobStore,
  jobId: string,
  edits: readonly Edit[],
  now: () => Date,
): Promise<EditsAnswer> {
  const results: EditAnswer[] = [];
  let sequence = 0;
  // What an edit of this batch was about that was not taken: a later one was made on top of it, and does not
  // find what it believes.
  const open = new Set<string>();
  for (const edit of edits) {
    const done = await store.transaction(async (transaction) => {
      const stored = await store.read(jobId, transaction, true);
      if (!stored) throw new RequestError('no-such-job');
      return applyOne(store, stored, { edit, open, now: now() }, transaction);
    });
    if (done.stored) store.committed(done.stored);
    results.push(done.answer);
    if (done.answer.outcome === 'conflict' || done.answer.outcome === 'refused')
      for (const part of edit.parts) open.add(recordName(part));
    sequence = done.sequence;
  }
  return { results, sequence };
}

async function applyOne(
  store: JobStore,
  stored: StoredJob,
  { edit, open, now }: { edit: Edit; open: ReadonlySet<string>; now: Date },
  transaction: Transaction,
): Promise<{ answer: EditAnswer; sequence: number; stored?: StoredJob }> {
  const say = (answer: Omit<EditAnswer, 'editId'>) => ({
    answer: { editId: edit.id, ...answer },
    sequence: stored.sequence,
  });
  const known = await store.log.sequenceOf(stored.job.id, edit.id, transaction);
  if (known !== undefined) return say({ outcome: 'duplicate', sequence: known });
  const elsewhere = otherGeneration(stored, edit);
  if (elsewhere.length > 0)
    return say({ outcome: 'conflict', conflicts: everyPart(stored.job, edit), problems: elsewhere });

  const changed = await changedByOthers(store, stored, edit, transaction);
  const met = meet(
    stored.job,
    edit.parts,
    (kind, id, base) => open.has(recordName({ kind, id })) || changed(kind, id, base),
  );
  if (met.conflicts.length > 0) return say({ outcome: 'conflict', conflicts: met.conflicts });

  const reduced = reduce(stored.job, met);
  if (!reduced.ok) return say({ outcome: 'refused', problems: [refusalProblem(reduced.refusal)] });
  const problems = documentProblems(reduced.job, met.parts);
  if (problems.length > 0)
    return met.merged.length > 0
      ? say({ outcome: 'conflict', conflicts: met.merged, problems })
      : say({ outcome: 'refused', problems });
  const contradicted = contradictions(stored.job, reduced.job, edit.parts, met.merged);
  if (contradicted.length > 0)
    return say({ outcome: 'conflict', conflicts: met.merged, problems: contradicted });

  const carried: Edit = { ...edit, parts: met.parts };
  const next = await store.apply(stored, reduced.job, carried, now, transaction);
  const answer: EditAnswer = { editId: edit.id, outcome: 'applied', sequence: next.sequence };
  // Whoever sent it carries it out as it was carried out here, or the two would differ from now on.
  return {
    answer: sameJson(met.parts, edit.parts) ? answer : { ...answer, edit: carried },
    sequence: next.sequence,
    stored: next,
  };
}

/** What says that an edit was made on another document than the one that stands here now. */
function otherGeneration(stored: StoredJob, edit: Edit): { path: string; message: string }[] {
  if (edit.generation !== undefined && edit.generation !== stored.generation)
    return [
      {
        path: '/generation',
        message:
          'is not the present one: the job was replaced as a whole, or taken out and brought back, since',
      },
    ];
  const beyond = edit.parts.findIndex((part) => part.base !== null && part.base > stored.sequence);
  return beyond < 0
    ? []
    : [{ path: pointer(['parts', beyond, 'base']), message: 'is beyond the last change of the job' }];
}

/** Each part of an edit as a question of its own, with what stands here. */
function everyPart(job: Job, edit: Edit): Conflict[] {
  return edit.parts.flatMap((part, number): Conflict[] => {
    const current = findRecord(job, part.kind, part.id)?.record;
    const same = { part: number, kind: part.kind, id: part.id };
    if (part.set === undefined || current === undefined)
      return [{ ...same, theirs: current ?? null, yours: part.put ?? null }];
    return Object.entries(part.set).map(([field, { was, now }]) => ({
      ...same,
      field,
      was: was ?? null,
      theirs: current[field] ?? null,
      yours: now ?? null,
    }));
  });
}

/**
 * Whether a record was changed after a base by anything the edit does not know: its own window knows what it
 * sent, and the edit names what it was made on of the device's other windows. A job replaced as a whole
 * changed everything.
 */
async function changedByOthers(store: JobStore, stored: StoredJob, edit: Edit, transaction: Transaction) {
  const bases = edit.parts.map((part) => part.base ?? stored.sequence);
  const changes = await store.log.since(stored.job.id, Math.min(...bases), { transaction, limit: 100_000 });
  const below = new Set(edit.on);
  const others = changes.filter(
    ({ edit: made }) => made?.deviceId !== edit.deviceId || (made.tab !== edit.tab && !below.has(made.id)),
  );
  return (kind: EditPart['kind'], id: string, base: number | null) =>
    base !== null &&
    others.some(
      (change) =>
        change.sequence > base &&
        (change.edit === null || change.edit.parts.some((part) => part.kind === kind && part.id === id)),
    );
}

/**
 * Labels of one joint that cannot both be true, which neither of the two who changed the box had made alone:
 * each was right about the box as it stood before.
 */
function contradictions(
  before: Job,
  after: Job,
  parts: readonly EditPart[],
  merged: readonly Conflict[],
): { path: string; message: string }[] {
  const boxes = new Set(merged.flatMap((conflict) => (conflict.kind === 'box' ? [conflict.id] : [])));
  if (boxes.size === 0) return [];
  const mine = reduce(before, { parts: [...parts] });
  const clashing = (job: Job, boxId: string) => {
    const box = job.boxes.find((entry) => entry.id === boxId);
    return new Set(
      box
        ? labelClashes(box, job).flatMap((clash) =>
            clash.code === 'contradiction' ? [JSON.stringify(clash)] : [],
          )
        : [],
    );
  };
  return [...boxes].flatMap((boxId) => {
    const [theirs, own] = [clashing(before, boxId), mine.ok ? clashing(mine.job, boxId) : new Set<string>()];
    const index = after.boxes.findIndex((box) => box.id === boxId);
    return [...clashing(after, boxId)].some((clash) => !theirs.has(clash) && !own.has(clash))
      ? [
          {
            path: pointer(['boxes', index, 'labels']),
            message:
              'would call the conductors of one joint different things, together with what was changed meanwhile',
          },
        ]
      : [];
  });
}

/**
 * What is wrong with the job after the edit: the records it touched by their schema, then references over the
 * whole document.
 */
function documentProblems(job: Job, parts: readonly EditPart[]): Pick<Problem, 'path' | 'message'>[] {
  const shape = recordProblems(job, parts).map(({ path, message }) => ({ path, message }));
  if (shape.length > 0) return shape;
  return referenceProblems(job)
    .filter((problem) => problem.severity === 'error')
    .map(({ path, message }) => ({ path, message }));
}

function refusalProblem(refusal: { code: string; part: number; field?: string }): {
  path: string;
  message: string;
} {
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
