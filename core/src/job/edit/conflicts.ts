import { findRecord, type JobRecord, type RecordKind, recordName } from '../records.js';
import { sameJson } from '../same.js';
import type { Job } from '../schema/job.js';
import type { EditPart } from './edit.js';
import { merge, shapeOf, withFact } from './three-way.js';

/**
 * A part that meets a change its device had not seen. `field` is absent when the whole record is in question;
 * `path` leads from the field to the one fact both changed (a conductor's colour, say). An absent value is
 * null.
 */
export interface Conflict {
  part: number;
  kind: RecordKind;
  id: string;
  field?: string;
  path?: string[];
  was?: unknown;
  theirs?: unknown;
  yours?: unknown;
}

export interface Met {
  /**
   * The edit's parts as they apply to the job as it stands: fields that both changed hold what both made of
   * them.
   */
  parts: EditPart[];
  /** The fields into which something of somebody else's went, with all three values. */
  merged: Conflict[];
  conflicts: Conflict[];
}

/**
 * An edit meets the job as others have made it since. `changedSince(kind, id, base)` tells whether somebody
 * else changed the record after that. Different fields of a record merge; within a box different conductors,
 * joints, readings and positions do, by id and field; the same fact asks; a removal that meets a change asks,
 * and so does a change of what was removed. Appending never clashes, unless the record is gone.
 */
export function meet(
  job: Job,
  parts: readonly EditPart[],
  changedSince: (kind: RecordKind, id: string, base: number | null) => boolean,
): Met {
  const met: Met = { parts: [], merged: [], conflicts: [] };
  // Records this same edit has put in place are its own.
  const own = new Set<string>();
  parts.forEach((part, number) => {
    const name = recordName(part);
    if (part.put !== undefined) own.add(name);
    else if (own.has(name)) {
      met.parts.push(part);
      return;
    }
    const current = findRecord(job, part.kind, part.id)?.record;
    const changed = changedSince(part.kind, part.id, part.base);
    if (part.set !== undefined && current !== undefined)
      met.parts.push({ ...part, set: metFields(part, number, { current, changed }, met) });
    else {
      met.parts.push(part);
      const clash = wholeClash(part, current);
      if (changed && clash) met.conflicts.push({ part: number, kind: part.kind, id: part.id, ...clash });
    }
  });
  return met;
}

/** What a part that speaks of the whole record meets, if somebody changed it meanwhile. */
function wholeClash(
  part: EditPart,
  current: JobRecord | undefined,
): Pick<Conflict, 'theirs' | 'yours'> | undefined {
  if (part.put !== undefined)
    return current === undefined || sameJson(current, part.put)
      ? undefined
      : { theirs: current, yours: part.put };
  if (part.remove) return current === undefined ? undefined : { theirs: current, yours: null };
  return current === undefined ? { theirs: null } : undefined;
}

/** Field by field: what merges is set so, what clashes asks; where nobody else changed it mine holds. */
function metFields(
  part: EditPart,
  number: number,
  { current, changed }: { current: JobRecord; changed: boolean },
  met: Met,
): NonNullable<EditPart['set']> {
  const about = { part: number, kind: part.kind, id: part.id };
  const set: NonNullable<EditPart['set']> = {};
  for (const [field, { was = null, now = null }] of Object.entries(part.set ?? {})) {
    const theirs = current[field];
    const shape = shapeOf(part.kind, field);
    const result = merge(shape, was ?? undefined, theirs, now ?? undefined);
    if (result.clashes.length === 0) {
      const [before, after] = [was ?? null, now ?? null];
      const left = theirs ?? null;
      if (!sameJson(left, before) && !sameJson(left, after) && !sameJson(before, after))
        met.merged.push({ ...about, field, was: before, theirs: left, yours: after });
      set[field] = { was: left, now: result.value ?? null };
    } else if (changed) {
      for (const { path, ...values } of result.clashes)
        met.conflicts.push({
          ...about,
          field,
          ...(path.length > 0 ? { path } : {}),
          was: values.was ?? null,
          theirs: values.theirs ?? null,
          yours: values.mine ?? null,
        });
    } else {
      const { value } = merge(shape, was ?? undefined, theirs, now ?? undefined, 'mine');
      set[field] = { was: theirs ?? null, now: value ?? null };
    }
  }
  return set;
}

/**
 * The parts that carry an edit through on the job as it stands, whatever others made of it meanwhile: where
 * both changed the same fact mine holds, a record that was removed comes back as this device had it
 * (`records`, by kind and id), everything else of theirs stays. Parts that would change nothing are left out.
 */
export function insist(
  job: Job,
  parts: readonly EditPart[],
  records: Readonly<Record<string, object>> = {},
): EditPart[] {
  const put = new Set<string>();
  return parts.flatMap((part): EditPart[] => {
    const name = recordName(part);
    const same = { kind: part.kind, id: part.id, base: null };
    const current = findRecord(job, part.kind, part.id)?.record;
    if (part.put !== undefined) {
      put.add(name);
      return sameJson(current, part.put) ? [] : [{ ...part, base: null }];
    }
    if (put.has(name)) return [{ ...part, base: null }];
    if (part.remove) return current === undefined ? [] : [{ ...same, remove: true }];
    if (current === undefined) {
      const mine = records[name] as Record<string, unknown> | undefined;
      if (mine === undefined) return [];
      put.add(name);
      return [{ ...same, put: { ...mine } }];
    }
    if (part.set === undefined) return [{ ...part, base: null }];
    const set: NonNullable<EditPart['set']> = {};
    for (const [field, { was, now }] of Object.entries(part.set)) {
      const { value } = merge(
        shapeOf(part.kind, field),
        was ?? undefined,
        current[field],
        now ?? undefined,
        'mine',
      );
      if (!sameJson(value ?? null, current[field] ?? null))
        set[field] = { was: current[field] ?? null, now: value ?? null };
    }
    return Object.keys(set).length === 0 ? [] : [{ ...same, set }];
  });
}

/** An edit with another word of mine on one question about it. */
export function withMyWord(
  parts: readonly EditPart[],
  { part: number, kind, field, path = [] }: Conflict,
  word: unknown,
): EditPart[] {
  return parts.map((part, index) => {
    const change = field === undefined ? undefined : part.set?.[field];
    if (index !== number || field === undefined || !change) return part;
    const now = withFact(shapeOf(kind, field), change.now ?? undefined, path, word ?? undefined) ?? null;
    return { ...part, set: { ...part.set, [field]: { ...change, now } } };
  });
}

/**
 * What of an undo still stands as this device left it, and what others have changed since: that is left and
 * named. `after` holds the records as the edit left them, by kind and id; one that is absent there was taken
 * out by it.
 */
export function stillOurs(
  job: Job,
  parts: readonly EditPart[],
  after: Readonly<Record<string, object>>,
): { parts: EditPart[]; left: Conflict[] } {
  const left: Conflict[] = [];
  const kept = parts.flatMap((part, number): EditPart[] => {
    const name = recordName(part);
    const current = findRecord(job, part.kind, part.id)?.record;
    const conflict = { part: number, kind: part.kind, id: part.id, theirs: current ?? null };
    if (part.set === undefined) {
      if (sameJson(current, after[name])) return [part];
      // What is gone already needs no taking out.
      if (!(part.remove && current === undefined)) left.push(conflict);
      return [];
    }
    const met = meet(job, [part], () => true);
    const whole = met.conflicts.find((entry) => entry.field === undefined);
    left.push(...met.conflicts.map((entry) => ({ ...entry, part: number })));
    return whole || Object.keys(met.parts[0]?.set ?? {}).length === 0 ? [] : met.parts;
  });
  return { parts: kept, left };
}
