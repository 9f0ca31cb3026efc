import { z } from 'zod';
import { LIMITS, limitProblems } from '../limits.js';
import { LIST_KINDS, type RecordKind } from '../records.js';
import { Id, Instant, Name } from '../schema/primitives.js';

const Change = z.object({ was: z.unknown(), now: z.unknown() });

/**
 * One record's share of an edit: exactly one of put, set, append, remove.
 * `base` is the last change of the job the device had seen when it made the part; null for a record that is
 * new.
 */
export const EditPart = z
  .object({
    kind: z.enum(['job', ...LIST_KINDS] as [RecordKind, ...RecordKind[]]),
    id: z.string().min(1).max(600),
    base: z.number().int().min(0).nullable(),
    put: z.record(z.string(), z.unknown()).optional(),
    /** Where a put record stands in its list; absent: at the end, or where it stood. */
    index: z.number().int().min(0).optional(),
    set: z.record(z.string(), Change).optional(),
    append: z.record(z.string(), z.array(z.record(z.string(), z.unknown())).max(500)).optional(),
    remove: z.literal(true).optional(),
  })
  .superRefine((part, context) => {
    const ways = [part.put, part.set, part.append, part.remove].filter((way) => way !== undefined).length;
    if (ways !== 1)
      context.addIssue({
        code: 'custom',
        path: ['put'],
        message: 'must be given alone: one of put, set, append, remove',
      });
  });

/** The most edits one names as those it was made on. */
export const MOST_BELOW = 200;

/** A typed change to the job. All its parts happen, or none. */
export const Edit = z
  .object({
    id: Id,
    deviceId: Id,
    /**
     * The window of that device it was made in: two windows of one browser do not overwrite each other in
     * silence.
     */
    tab: Id.optional(),
    /**
     * Edits of the device's other windows, on their way like this one, that it was made on: what they change
     * is known to it.
     */
    on: z.array(Id).max(MOST_BELOW).optional(),
    /** The generation of the job it was made on; one made on another generation asks. */
    generation: Id.optional(),
    /** Counts this device's edits, so that they are applied in the order they were made. */
    n: z.number().int().min(0),
    at: Instant,
    label: Name,
    parts: z.array(EditPart).min(1).max(400),
  })
  .superRefine((edit, context) => {
    for (const { path, message } of limitProblems(edit, LIMITS.depth + 4))
      context.addIssue({ code: 'custom', path: steps(path), message });
    if (JSON.stringify(edit).length > LIMITS.edit)
      context.addIssue({
        code: 'custom',
        path: ['parts'],
        message: `is too large: at most ${LIMITS.edit} characters of one edit are taken`,
      });
  });

/** The steps of a JSON Pointer, for Zod. */
const steps = (path: string) =>
  path
    .split('/')
    .slice(1)
    .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'));

export type EditPart = z.infer<typeof EditPart>;
export type Edit = z.infer<typeof Edit>;
