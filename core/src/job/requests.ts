import { z } from 'zod';
import { Edit, EditPart } from './edit/edit.js';
import { LIST_KINDS, type RecordKind } from './records.js';

/** Up to 50 edits of one device, in the order they were made. */
export const EditsRequest = z.object({ edits: z.array(Edit).min(1).max(50) });

export const EditAnswer = z.object({
  editId: z.string(),
  outcome: z.enum(['applied', 'duplicate', 'conflict', 'refused']),
  /** The change of the job this edit became. */
  sequence: z.number().int().optional(),
  conflicts: z
    .array(
      z.object({
        part: z.number().int(),
        kind: z.enum(['job', ...LIST_KINDS] as [RecordKind, ...RecordKind[]]),
        id: z.string(),
        field: z.string().optional(),
        /** From the field to the one fact both changed; the values are that fact's. */
        path: z.array(z.string()).optional(),
        was: z.unknown().optional(),
        theirs: z.unknown().optional(),
        yours: z.unknown().optional(),
      }),
    )
    .optional(),
  problems: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** The edit as it was carried out, where something of somebody else's was merged into it. */
  edit: Edit.optional(),
});

/** `sequence`: the job's last change after these edits. */
export const EditsAnswer = z.object({ results: z.array(EditAnswer), sequence: z.number().int() });

/**
 * One entry of the record of changes; `edit` is null when the whole job was replaced, `at` is when the server
 * took it.
 */
export const Change = z.object({ sequence: z.number().int(), at: z.string(), edit: Edit.nullable() });

/** One entry of the history of a job or a record: what was done, and the parts that would take it back. */
export const HistoryEntry = z.object({
  sequence: z.number().int(),
  at: z.string(),
  deviceId: z.string().nullable(),
  label: z.string(),
  /** Those of the record asked for, else all. Null: the whole job was replaced. */
  parts: z.array(EditPart).nullable(),
  /** Null: what was there before is not on record. */
  undo: z.array(EditPart).nullable(),
});

const StageCount = z.object({ done: z.number().int(), of: z.number().int() });
export const JobSummary = z.object({
  id: z.string(),
  name: z.string(),
  practice: z.string(),
  rooms: z.number().int(),
  boxes: z.number().int(),
  updatedAt: z.string(),
  stages: z.record(z.string(), StageCount),
  /** The most frequent blocker in words, null when nothing is left. */
  blocker: z.string().nullable(),
});

export type EditsRequest = z.infer<typeof EditsRequest>;
export type EditAnswer = z.infer<typeof EditAnswer>;
export type EditsAnswer = z.infer<typeof EditsAnswer>;
export type HistoryEntry = z.infer<typeof HistoryEntry>;
export type Change = z.infer<typeof Change>;
export type JobSummary = z.infer<typeof JobSummary>;
