import { type Edit, type EditsAnswer } from '@inventario/core';
import type { JobStore } from '../storage/job-store.js';
/**
 * Applies edits in order, each in a transaction of its own: the job's row is locked, a known edit gets its stored answer, clashes
 * with changes its device had not seen are named, the result is checked, rows and change are written. All parts of an edit or none.
 */
export declare function applyEdits(store: JobStore, jobId: string, edits: readonly Edit[], now: () => Date): Promise<EditsAnswer>;
