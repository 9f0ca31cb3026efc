import {
  type Conflict,
  type Edit,
  type EditPart,
  findRecord,
  inverse,
  type Job,
  recordName,
  reduce,
  stillOurs,
} from '@inventario/core';
import type { Step } from './kept-store.js';

/** More steps than these are not kept. */
const MOST = 200;

/** What an undo or redo is about to do. */
export interface Back {
  step: Step;
  label: string;
  parts: EditPart[];
  /** What others changed since; it stays as they have it. */
  left: Conflict[];
}

/** The edits this device can take back, oldest first, and those it took back and can do again. */
export class UndoSteps {
  constructor(private steps: readonly Step[] = []) {}

  get all(): readonly Step[] {
    return this.steps;
  }
  get undoLabel(): string | null {
    return this.last()?.label ?? null;
  }
  get redoLabel(): string | null {
    return this.next()?.label ?? null;
  }

  /** Another tab's steps and ours are one list. */
  replaceAll(steps: readonly Step[]): void {
    this.steps = steps;
  }

  /**
   * Notes an edit made on `before`. What was taken back before it cannot be done again. @returns what is no
   * longer kept
   */
  note(id: string, label: string, before: Job, parts: EditPart[]): { step: Step; dropped: string[] } {
    const step: Step = { id, label, ...backOf(before, parts), undone: false };
    const kept = [...this.steps.filter((other) => !other.undone), step];
    const dropped = this.steps.filter((other) => !kept.slice(-MOST).includes(other)).map((other) => other.id);
    this.steps = kept.slice(-MOST);
    return { step, dropped };
  }

  /** Notes that an edit was given up for what somebody else made: undo would carry it through after all. */
  noteDropped(id: string, edit: Edit, parts: EditPart[]): { step: Step; dropped: string[] } {
    const step: Step = { id, label: `Dropped: ${edit.label}`, parts, after: {}, undone: false };
    const dropped = this.steps
      .filter((other) => other.undone || other.id === edit.id)
      .map((other) => other.id);
    this.steps = [...this.steps.filter((other) => !dropped.includes(other.id)), step];
    return { step, dropped };
  }

  /** A further keystroke of the edit noted last: one step takes both back. */
  extend(id: string, longer: Edit, before: Job, parts: EditPart[]): Step | undefined {
    const at = this.steps.findIndex((step) => step.id === id);
    const old = this.steps[at];
    if (!old) return undefined;
    const [first, then] = [old.parts[0], backOf(before, parts).parts[0]];
    const set = Object.fromEntries(
      Object.entries(then?.set ?? {}).map(([field, { was, now }]) => [
        field,
        { was, now: first?.set?.[field] ? first.set[field].now : now },
      ]),
    );
    const step: Step = {
      ...old,
      id: longer.id,
      label: longer.label,
      parts: first && then ? [{ ...then, set: { ...first.set, ...set } }] : old.parts,
    };
    this.steps = this.steps.with(at, step);
    return step;
  }

  /** What taking back the last edit does on the job as it is now. */
  undo(job: Job): Back | undefined {
    const step = this.last();
    return step && { step, label: `Undo: ${step.label}`, ...stillOurs(job, step.parts, step.after) };
  }

  redo(job: Job): Back | undefined {
    const step = this.next();
    return step && { step, label: `Redo: ${step.label}`, ...stillOurs(job, step.parts, step.after) };
  }

  /** The step was carried out with these parts on `before`: it now holds the way back from there. */
  turned(id: string, before: Job, parts: EditPart[]): Step | undefined {
    const at = this.steps.findIndex((step) => step.id === id);
    const old = this.steps[at];
    if (!old) return undefined;
    const step: Step = { ...old, ...backOf(before, parts), undone: !old.undone };
    this.steps = this.steps.with(at, step);
    return step;
  }

  /** Nothing of the step could be carried out. */
  drop(id: string): void {
    this.steps = this.steps.filter((step) => step.id !== id);
  }

  private last(): Step | undefined {
    return this.steps.findLast((step) => !step.undone);
  }
  private next(): Step | undefined {
    return this.steps.find((step) => step.undone);
  }
}

/**
 * The parts that take an edit back, and the records as it left them where that tells whether they are still
 * ours.
 */
function backOf(before: Job, parts: EditPart[]): Pick<Step, 'parts' | 'after'> {
  const back = inverse(before, { parts });
  const made = reduce(before, { parts });
  const after: Record<string, object> = {};
  for (const part of back) {
    const record =
      part.set === undefined && made.ok ? findRecord(made.job, part.kind, part.id)?.record : undefined;
    if (record) after[recordName(part)] = record;
  }
  return { parts: back, after };
}
