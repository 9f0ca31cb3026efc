import { z } from 'zod';
import { LIST_KINDS, type RecordKind } from '../records.js';
import { Id, Instant, Name } from '../schema/primitives.js';

const Change = z.object({ was: z.unknown(), now: z.unknown() });

/**
 * One record's share of an edit: exactly one of put, set, append, remove.
 * `base` is the last change of the job the device had seen when it made the part; null for a record that is new.
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
    if (ways !== 1) context.addIssue({ code: 'custom', path: ['put'], message: 'must be given alone: one of put, set, append, remove' });
  });

/** A typed change to the job. All its parts happen, or none. */
export const Edit = z.object({
  id: Id,
  deviceId: Id,
  /** Counts this device's edits, so that they are applied in the order they were made. */
  n: z.number().int().min(0),
  at: Instant,
  label: Name,
  parts: z.array(EditPart).min(1).max(400),
});

export type EditPart = z.infer<typeof EditPart>;
export type Edit = z.infer<typeof Edit>;
