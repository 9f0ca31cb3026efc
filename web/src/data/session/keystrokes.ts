import type { Edit, EditPart } from '@inventario/core';
import { instant, newId } from '../ids.js';

/** Edits of one keystroke after another on the same field become one, while they follow within this time. */
const MERGE_MS = 1200;

/** The field that is being typed in, and the edit it made last. */
export class Keystrokes {
  private last: { key: string; at: number; editId: string } | null = null;

  /** @param key what is typed in; undefined: an edit of another kind, which ends the typing */
  made(key: string | undefined, editId: string): void {
    this.last = key === undefined ? null : { key, at: Date.now(), editId };
  }

  end(): void {
    this.last = null;
  }

  /** Whether an edit with this key is a further keystroke on the field of that edit. */
  goOn(key: string | undefined, edit: Edit): boolean {
    const { last } = this;
    return last !== null && last.key === key && last.editId === edit.id && Date.now() - last.at <= MERGE_MS;
  }
}

/**
 * Two edits of the same fields of one record as one. It gets an id of its own: if the shorter one is on its
 * way from another tab after all, the server has both.
 * @returns undefined where they are not of that kind
 */
export function oneEdit(edit: Edit, parts: readonly EditPart[], label: string): Edit | undefined {
  const [mine, old] = [parts[0], edit.parts[0]];
  if (parts.length !== 1 || edit.parts.length !== 1 || !mine?.set || !old?.set) return undefined;
  if (mine.id !== old.id || mine.kind !== old.kind) return undefined;
  const set = { ...old.set };
  for (const [field, change] of Object.entries(mine.set))
    set[field] = { was: set[field] ? set[field].was : change.was, now: change.now };
  return { ...edit, id: newId(), at: instant(), label, parts: [{ ...old, set }] };
}
