import { LIMITS, limitProblems } from '../limits.js';
import { pointer } from '../pointer.js';
import { RECORD_SCHEMAS } from '../record-schemas.js';
import { findRecord, headerOf, type RecordKind } from '../records.js';
import type { Job } from '../schema/job.js';
import { schemaProblems } from '../schema-problems.js';
import type { EditPart } from './edit.js';

/** Something wrong with a record as a part of an edit leaves it. */
export interface RecordProblem {
  kind: RecordKind;
  id: string;
  /** The field of the record it lies in; absent when it is the record as a whole. */
  field?: string;
  /** From the edit: `/parts/0/record/name`. */
  path: string;
  message: string;
}

/**
 * What is wrong with the records an edit touched: beyond the limits, too large, or not as their schema has
 * them.
 */
export function recordProblems(job: Job, parts: readonly EditPart[]): RecordProblem[] {
  return parts.flatMap(({ kind, id }, number) => {
    const record = findRecord(job, kind, id)?.record;
    if (record === undefined) return [];
    return problemsOf(job, kind, record).map(({ path, message }) => {
      const [, field] = path.split('/');
      return {
        kind,
        id,
        ...(field === undefined ? {} : { field }),
        path: `${pointer(['parts', number, 'record'])}${path}`,
        message,
      };
    });
  });
}

function problemsOf(job: Job, kind: RecordKind, record: object): { path: string; message: string }[] {
  const whole = kind === 'job' ? headerOf(job) : record;
  const beyond = limitProblems(whole, kind === 'job' ? LIMITS.depth : LIMITS.depth - 2);
  if (beyond.length > 0) return beyond;
  if (JSON.stringify(whole).length > LIMITS.record)
    return [
      { path: '', message: `is too large: at most ${LIMITS.record} characters of one record are taken` },
    ];
  const parsed = RECORD_SCHEMAS[kind].safeParse(record);
  return parsed.success ? [] : schemaProblems(parsed.error, record);
}
