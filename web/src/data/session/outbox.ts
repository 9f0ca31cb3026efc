import {
  type Change,
  type Edit,
  type EditAnswer,
  type EditPart,
  MOST_BELOW,
  recordName,
} from '@inventario/core';
import type { KeptChange, KeptJob, KeptStore, Pending, Question } from './kept-store.js';

/**
 * Edits on their way and questions about them, in memory and on the device. Memory is first, so that a screen
 * never waits; what the device could not keep (no room, a private window) is named.
 */
export class Outbox {
  pending: readonly Pending[] = [];
  questions: readonly Question[] = [];
  /** Edits that exist in this page only. */
  unkept: ReadonlySet<string> = new Set();
  private writing: Promise<unknown> = Promise.resolve();
  private writes = 0;

  constructor(
    private readonly jobId: string,
    private readonly kept: KeptStore,
    private readonly unkeptChanged: () => void,
  ) {}

  get unsent(): readonly Pending[] {
    return this.pending.filter((row) => row.answered === undefined);
  }

  /** Not answered yet, and waiting for no answer of the installer. */
  get free(): readonly Pending[] {
    return this.unsent.filter((row) => row.heldBy === undefined);
  }

  /** The highest number of an edit that is here. */
  get lastNumber(): number {
    return Math.max(0, ...[...this.pending, ...this.questions].map(({ edit }) => edit.n));
  }

  take({ pending, questions }: Pick<KeptJob, 'pending' | 'questions'>): void {
    const inPageOnly = <Row extends { edit: Edit }>(rows: readonly Row[], stored: readonly Row[]) =>
      rows.filter(({ edit }) => this.unkept.has(edit.id) && !stored.some((row) => row.edit.id === edit.id));
    const here = inPageOnly(this.pending, pending);
    this.questions = [...questions, ...inPageOnly(this.questions, questions)];
    const asked = new Set(this.questions.map((question) => question.edit.id));
    this.pending = [...pending, ...here].filter((row) => !asked.has(row.edit.id));
    this.holdBack();
  }

  /**
   * The base of a change of a record. What is on its way hides what others made of the same record since it
   * was made: whoever goes on from there has seen no more than that. So does what the server has taken, as
   * long as it is shown on top of a base that may have gone on beyond it.
   */
  baseFor(part: EditPart, sequence: number): number {
    const same = this.pending
      .flatMap((row) => row.edit.parts)
      .filter((other) => recordName(other) === recordName(part));
    return Math.min(sequence, ...same.map((other) => other.base ?? sequence));
  }

  /** Edits of other tabs about the same things: whoever changes those now has them in sight. */
  below(parts: readonly EditPart[], tab: string): string[] {
    const things = new Set(parts.map(recordName));
    const rows = this.pending.filter(
      ({ edit }) => edit.tab !== tab && edit.parts.some((part) => things.has(recordName(part))),
    );
    return rows.slice(-MOST_BELOW).map(({ edit }) => edit.id);
  }

  add(row: Pending): void {
    this.pending = [...this.pending, row];
    this.holdBack();
  }

  /** Another edit in the place of one that has not gone yet. */
  replace(editId: string, row: Pending): void {
    this.pending = this.pending.map((other) => (other.edit.id === editId ? row : other));
  }

  /**
   * The server's word on edits: those it took wait for the base to come that far, those it did not are asked
   * about, and later edits of the same things wait for the answer. @returns what has to be kept of it
   */
  answer(answers: readonly EditAnswer[], recordsOf: (row: Pending) => Question['records']): KeptChange {
    const [ask, drop]: [Question[], string[]] = [[], []];
    for (const answer of answers) {
      const row = this.pending.find((other) => other.edit.id === answer.editId);
      if (!row) continue;
      const { id } = row.edit;
      if (answer.outcome === 'applied' || answer.outcome === 'duplicate') {
        const sequence = answer.sequence ?? 0;
        this.pending = this.pending.map((other) => (other === row ? { ...row, answered: sequence } : other));
      } else if (row.heldBy === undefined) {
        // One that another of the same batch holds back is asked about, if at all, when it goes again.
        const question = { edit: row.edit, answer, records: recordsOf(row) };
        ask.push(question);
        drop.push(id);
        this.questions = [...this.questions, question];
        this.pending = this.pending.filter((other) => other !== row);
        this.holdBack();
      }
    }
    return { ask, drop, put: this.pending };
  }

  /**
   * Whatever was made after an edit that is asked about waits for the answer where it is about the same
   * things, and so does what is about the same things as those that wait: edits of one record keep their
   * order. All others are free.
   */
  private holdBack(): void {
    const holding = new Map<string, { question: string; n: number }>();
    const hold = (parts: readonly EditPart[], question: string, n: number) => {
      for (const name of parts.map(recordName))
        if ((holding.get(name)?.n ?? Number.POSITIVE_INFINITY) > n) holding.set(name, { question, n });
    };
    for (const { edit } of this.questions) hold(edit.parts, edit.id, edit.n);
    this.pending = this.pending.map((row) => {
      if (row.answered !== undefined) return row;
      const { edit } = row;
      const holder = edit.parts
        .map((part) => holding.get(recordName(part)))
        .find((entry) => entry !== undefined && entry.n < edit.n);
      if (holder) hold(edit.parts, holder.question, holder.n);
      return row.heldBy === holder?.question
        ? row
        : holder
          ? { ...row, heldBy: holder.question }
          : freed(row);
    });
  }

  /** Others took a record out that edits on their way change. @returns the edits that now hold it */
  holdRecords(gone: ReadonlyMap<string, object>): Pending[] {
    const held: Pending[] = [];
    this.pending = this.pending.map((row) => {
      const missing = row.edit.parts.filter(
        (part) => (part.set || part.append) && gone.has(recordName(part)) && !row.records?.[recordName(part)],
      );
      if (missing.length === 0) return row;
      const records = {
        ...row.records,
        ...Object.fromEntries(
          missing.map((part) => [recordName(part), gone.get(recordName(part)) as object]),
        ),
      };
      held.push({ ...row, records });
      return held.at(-1) as Pending;
    });
    return held;
  }

  /** Edits the base contains now are on their way no more. @returns their ids */
  arrived(sequence: number, carried: readonly Change[] = []): string[] {
    const inBase = new Set(carried.map((change) => change.edit?.id));
    const gone = this.pending.filter(
      ({ edit, answered }) => inBase.has(edit.id) || (answered !== undefined && answered <= sequence),
    );
    this.pending = this.pending.filter((row) => !gone.includes(row));
    return gone.map((row) => row.edit.id);
  }

  /** A question is answered: what waited for it may go, behind what takes its place. */
  settle(editId: string, instead?: Pending): void {
    this.questions = this.questions.filter((entry) => entry.edit.id !== editId);
    if (instead) {
      const at = this.pending.findIndex((row) => row.edit.n > instead.edit.n);
      this.pending = this.pending.toSpliced(at < 0 ? this.pending.length : at, 0, instead);
    }
    this.holdBack();
  }

  /**
   * Writes a change at once; the store carries writes out in the order they were begun. @returns whether the
   * device kept it
   */
  async write(change: KeptChange): Promise<boolean> {
    this.writes += 1;
    const written = this.kept.write(this.jobId, change);
    this.writing = Promise.allSettled([this.writing, written]);
    try {
      await written;
      if (this.unkept.size > 0) await this.tryUnkept(change);
      return true;
    } catch {
      this.mark([...(change.put ?? []), ...(change.ask ?? [])].map((row) => row.edit.id));
      return false;
    }
  }

  /** Once everything written so far is on the device. */
  async settled(): Promise<void> {
    for (let seen = -1; seen !== this.writes; ) {
      seen = this.writes;
      await this.writing;
    }
  }

  /** How many writes were begun: tells whether something was while one read. */
  get begun(): number {
    return this.writes;
  }

  /** The device keeps again: what it missed is kept now. */
  private async tryUnkept(change: KeptChange): Promise<void> {
    const put = this.pending.filter((row) => this.unkept.has(row.edit.id) && !change.put?.includes(row));
    const ask = this.questions.filter((question) => this.unkept.has(question.edit.id));
    try {
      await this.kept.write(this.jobId, { put, ask });
      this.unkept = new Set();
      this.unkeptChanged();
    } catch {
      // Still no room; it was said already.
    }
  }

  private mark(ids: readonly string[]): void {
    const here = new Set([...this.pending, ...this.questions].map((row) => row.edit.id));
    this.unkept = new Set([...this.unkept, ...ids].filter((id) => here.has(id)));
    this.unkeptChanged();
  }
}

function freed({ heldBy: _, ...row }: Pending): Pending {
  return row;
}
