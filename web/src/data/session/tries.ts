/** How long a session waits, ms. */
export interface Pace {
  /** After an edit, so that those that follow at once go with it. */
  beforeSending: number;
  /** Before something that failed is tried again; it grows to the longest. */
  firstPause: number;
  longestPause: number;
}

const USUAL_PACE: Pace = { beforeSending: 350, firstPause: 2000, longestPause: 60_000 };
const MOST_AT_ONCE = 50;
/** So often one edit is tried while the server serves and yet fails on it. */
const MOST_FAULTS = 5;

/**
 * How a session goes on after what failed: longer and longer pauses, and one edit at a time until the one at
 * fault is known.
 */
export class Tries {
  pause: number;
  /** Whether the server was heard when it was last tried. */
  reached = true;
  private alone = false;
  private readonly faults = new Map<string, number>();

  constructor(readonly pace: Pace = USUAL_PACE) {
    this.pause = pace.firstPause;
  }

  /** How many edits go with one request. */
  get most(): number {
    return this.alone ? 1 : MOST_AT_ONCE;
  }

  /** Somebody looks again: no use in waiting on for what failed long ago. */
  afresh(): void {
    this.pause = this.pace.firstPause;
  }

  /** The server was heard: the next failure is a new one. @returns whether it had been away */
  heard(): boolean {
    const away = !this.reached;
    this.reached = true;
    this.afresh();
    return away;
  }

  unheard(): void {
    this.reached = false;
  }

  /** Edits were answered. */
  answered(): void {
    this.alone = false;
  }

  longer(): void {
    this.unheard();
    this.pause = Math.min(this.pause * 2, this.pace.longestPause);
  }

  /** Something in a batch cannot be taken: the next goes alone. */
  takeApart(): void {
    this.alone = true;
  }

  /** The server serves and yet failed on this edit, the first of a batch. @returns whether it is given up */
  fault(editId: string, wasAlone: boolean): boolean {
    this.alone = true;
    const times = (this.faults.get(editId) ?? 0) + 1;
    this.faults.set(editId, times);
    if (!wasAlone || times < MOST_FAULTS) return false;
    this.faults.delete(editId);
    return true;
  }
}
