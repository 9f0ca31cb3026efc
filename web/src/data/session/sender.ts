import type { Change, Edit, Job } from '@inventario/core';
import { type Api, ApiError, isPassing } from '../api.js';
import { recordsOf } from './job-on-base.js';
import type { Outbox } from './outbox.js';
import type { TabLine } from './tab-line.js';
import type { Tries } from './tries.js';

/** The open job whose edits are sent. */
export interface SentFor {
  readonly id: string;
  readonly shown: Job;
  /** As the server has it, as far as that is known. */
  readonly base: Job;
  /** It was made here; the server does not have it yet. */
  readonly made: boolean;
  /** It is closed, or was taken out elsewhere: nothing is sent. */
  readonly resting: boolean;
  /** Reads again what the tabs have kept. */
  reload(): Promise<void>;
  /** Brings a job that was made here to the server. */
  bring(): Promise<void>;
  /** The server was heard: edits became changes, or questions. */
  answered(changes: readonly Change[]): Promise<void>;
  lost(): void;
  changed(): void;
  /** All that could go is with the server. */
  emptied(): void;
}

/**
 * Sends what waits in the outbox, in order, one tab for all, until the server has said something about each.
 */
export class Sender {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private sending = false;
  private inFlight: readonly string[] = [];

  constructor(
    private readonly job: SentFor,
    private readonly outbox: Outbox,
    private readonly tries: Tries,
    private readonly api: Api,
    private readonly line: TabLine,
  ) {}

  schedule(after: number): void {
    if (this.job.resting) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), after);
  }

  stop(): void {
    clearTimeout(this.timer);
  }

  /** Whether an edit is on the line right now: what it says is said. */
  isSending(editId: string): boolean {
    return this.inFlight.includes(editId);
  }

  private async send(): Promise<void> {
    const { job } = this;
    if (this.sending || job.resting) return;
    if (this.outbox.unsent.length === 0 && !job.made) return job.emptied();
    this.sending = true;
    try {
      await this.line.alone(() => this.sendNow());
    } finally {
      this.sending = false;
      this.inFlight = [];
      job.changed();
      if (this.outbox.free.length > 0 || job.made) this.schedule(this.tries.reached ? 0 : this.tries.pause);
      else if (this.tries.reached) job.emptied();
    }
  }

  /** One batch, while no other tab sends. */
  private async sendNow(): Promise<void> {
    const { job } = this;
    await this.outbox.settled();
    if (this.outbox.unkept.size === 0) await job.reload();
    if (job.resting) return;
    const batch = this.outbox.free.slice(0, this.tries.most).map((row) => row.edit);
    this.inFlight = batch.map((edit) => edit.id);
    try {
      if (job.made) await job.bring();
      if (batch.length === 0) return;
      const { results } = await this.api.sendEdits(job.id, batch);
      this.tries.answered();
      await this.takeAnswers(results);
    } catch (error) {
      await this.failed(error, batch);
    }
  }

  private async takeAnswers(results: Awaited<ReturnType<Api['sendEdits']>>['results']): Promise<void> {
    const sent = new Map(this.outbox.pending.map((row) => [row.edit.id, row.edit]));
    const { shown, base } = this.job;
    await this.outbox.write(this.outbox.answer(results, (row) => recordsOf(row, shown, base)));
    const changes: Change[] = [];
    for (const { editId, outcome, sequence, edit } of results) {
      const carried = edit ?? sent.get(editId);
      if (outcome === 'applied' && sequence !== undefined && carried)
        changes.push({ sequence, at: carried.at, edit: carried });
    }
    await this.job.answered(changes);
  }

  /**
   * A batch that was not answered: tried again, or taken apart until the edit at fault is alone; that one
   * becomes a question.
   */
  private async failed(error: unknown, batch: readonly Edit[]): Promise<void> {
    const [first] = batch;
    if (error instanceof ApiError && error.code === 'no-such-job') return this.job.lost();
    // A job made here that the server does not take stays here, whatever the reason, and is brought again
    // later.
    if (isPassing(error) || this.job.made) {
      const fault =
        first !== undefined && error instanceof ApiError && error.status >= 500 && (await this.serves());
      if (fault && this.tries.fault(first.id, batch.length === 1)) return this.giveUpOn(first, error);
      return this.tries.longer();
    }
    if (batch.length > 1) return this.tries.takeApart();
    if (first && error instanceof ApiError) return this.giveUpOn(first, error);
    throw error;
  }

  private giveUpOn(edit: Edit, error: ApiError): Promise<void> {
    const problems = [...error.problems, { path: '', message: error.message }];
    return this.takeAnswers([{ editId: edit.id, outcome: 'refused', problems }]);
  }

  private serves(): Promise<boolean> {
    return this.api.ready().then(
      () => true,
      () => false,
    );
  }
}
