import { type Change, type Edit, type EditAnswer, type EditPart, inverse, type Job, reduce } from '@inventario/core';
import type { QueryClient } from '@tanstack/react-query';
import { ApiError, api, type StoredJob, UnreachableError } from './api.js';
import { instant, newId } from './ids.js';
import type { PendingLog } from './pending-log.js';
import { PhotoQueue } from './photo-queue.js';

/** An edit the server did not take: it met someone else's, or the job would not be whole. It waits for the installer. */
export interface Question {
  edit: Edit;
  answer: EditAnswer;
}

export interface SessionState {
  job: Job;
  pending: number;
  questions: readonly Question[];
  reached: boolean;
  /** What undo would take back. */
  undoLabel: string | null;
}

/** Edits of one keystroke after another on the same field become one, while they follow within this time. */
const MERGE_MS = 1200;
const SEND_AFTER_MS = 350;
const RETRY_MS = 2000;

/**
 * One open job: the server's last version, this device's unsent edits on top of it, and their way to the server. Screens read
 * `state.job` and call `apply`; everything else happens by itself, in order, and survives the server being away.
 */
export class JobSession {
  private base: StoredJob;
  private pending: Edit[] = [];
  private questions: Question[] = [];
  private reached = true;
  private undoStack: { label: string; parts: EditPart[] }[] = [];
  private merge: { key: string; at: number; editId: string } | null = null;
  private inFlight: Edit[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;
  private stream: EventSource | undefined;
  private sending = false;
  private closed = false;
  private readonly listeners = new Set<() => void>();
  private current: SessionState;
  readonly photos: PhotoQueue;

  constructor(
    base: StoredJob,
    pending: Edit[],
    private readonly log: PendingLog,
    private readonly deviceId: string,
    private readonly queries: QueryClient,
  ) {
    this.base = base;
    this.pending = pending;
    this.photos = new PhotoQueue(base.job.id, log, ({ jobId, photoId, picture }) => api.keepPhoto(jobId, photoId, picture));
    this.current = this.makeState();
  }

  /** Opens a job from the server, or from what this device kept when the server is away. */
  static async open(jobId: string, log: PendingLog, deviceId: string, queries: QueryClient): Promise<JobSession> {
    const [pending, kept] = await Promise.all([log.edits(jobId), log.base(jobId)]);
    let base: StoredJob;
    let reached = true;
    try {
      base = await api.job(jobId);
    } catch (error) {
      if (!(error instanceof UnreachableError) || !kept) throw error;
      base = kept;
      reached = false;
    }
    const session = new JobSession(base, pending, log, deviceId, queries);
    session.reached = reached;
    session.setBase(base);
    session.changed();
    return session;
  }

  start(): void {
    this.closed = false;
    this.connect();
    this.schedule(0);
    void this.photos.open().then(() => this.photos.flush());
  }

  close(): void {
    this.closed = true;
    this.stream?.close();
    clearTimeout(this.timer);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly state = (): SessionState => this.current;

  /**
   * Makes an edit and shows it at once. `mergeKey`: keystrokes with the same key become one edit while it is unsent.
   * @returns what hinders it, when the job as shown does not allow it
   */
  apply(parts: EditPart[], label: string, mergeKey?: string): string | null {
    if (parts.length === 0) return null;
    const before = this.current.job;
    const based = parts.map((part) => ({ ...part, base: this.base.sequence }));
    const result = reduce(before, { parts: based });
    if (!result.ok) return result.refusal.code;
    if (!this.tryMerge(based, mergeKey)) {
      const edit: Edit = { id: newId(), deviceId: this.deviceId, n: this.nextNumber(), at: instant(), label, parts: based };
      this.pending = [...this.pending, edit];
      this.merge = mergeKey ? { key: mergeKey, at: Date.now(), editId: edit.id } : null;
      this.undoStack = [...this.undoStack.slice(-199), { label, parts: inverse(before, edit) }];
      void this.log.put(this.base.job.id, edit);
    }
    this.changed();
    this.schedule(SEND_AFTER_MS);
    return null;
  }

  undo(): void {
    const last = this.undoStack.at(-1);
    if (!last) return;
    this.undoStack = this.undoStack.slice(0, -1);
    const length = this.undoStack.length;
    this.merge = null;
    if (last.parts.length > 0) this.apply(last.parts, `Undo: ${last.label}`);
    this.undoStack = this.undoStack.slice(0, length);
    this.changed();
  }

  /** The installer's word on a question: theirs stays, or mine is sent again on top of it. */
  settle(editId: string, choice: 'theirs' | 'mine'): void {
    const question = this.questions.find((entry) => entry.edit.id === editId);
    if (!question) return;
    this.questions = this.questions.filter((entry) => entry !== question);
    void this.log.remove([editId]);
    if (choice === 'mine') this.apply(question.edit.parts, question.edit.label);
    this.changed();
  }

  private nextNumber(): number {
    const kept = Number(localStorage.getItem('edits-made') ?? 0);
    const n = Math.max(kept, this.pending.at(-1)?.n ?? 0) + 1;
    localStorage.setItem('edits-made', String(n));
    return n;
  }

  private tryMerge(parts: EditPart[], key: string | undefined): boolean {
    const last = this.pending.at(-1);
    const { merge } = this;
    if (!key || !last || merge?.key !== key || merge.editId !== last.id || Date.now() - merge.at > MERGE_MS || this.inFlight.includes(last))
      return false;
    const [mine] = parts;
    const [theirs] = last.parts;
    if (parts.length !== 1 || last.parts.length !== 1 || !mine?.set || !theirs?.set || mine.id !== theirs.id || mine.kind !== theirs.kind)
      return false;
    const set = { ...theirs.set };
    for (const [field, change] of Object.entries(mine.set)) set[field] = { was: set[field] ? set[field].was : change.was, now: change.now };
    const edit: Edit = { ...last, at: instant(), parts: [{ ...theirs, set }] };
    this.pending = [...this.pending.slice(0, -1), edit];
    this.merge = { ...merge, at: Date.now() };
    void this.log.put(this.base.job.id, edit);
    // The undo of the first keystroke takes all of them back, but has to expect the newest value.
    const undo = this.undoStack.at(-1);
    const [part] = undo?.parts ?? [];
    if (undo && part?.set) {
      const back = { ...part.set };
      for (const [field, change] of Object.entries(set))
        back[field] = { was: change.now ?? null, now: back[field] ? back[field].now : (change.was ?? null) };
      this.undoStack = [...this.undoStack.slice(0, -1), { ...undo, parts: [{ ...part, set: back }] }];
    }
    return true;
  }

  private schedule(after: number): void {
    if (this.closed) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), after);
  }

  private async send(): Promise<void> {
    if (this.sending || this.pending.length === 0 || this.closed) return;
    this.sending = true;
    this.inFlight = this.pending.slice(0, 50);
    try {
      const answer = await api.sendEdits(this.base.job.id, this.inFlight);
      this.reached = true;
      await this.takeAnswers(answer.results);
    } catch (error) {
      if (error instanceof ApiError && error.status < 500 && error.status !== 429) {
        // Nothing of this batch will ever be taken as it is: ask, do not lose it.
        const refused = this.inFlight.map((edit) => ({
          edit,
          answer: { editId: edit.id, outcome: 'refused' as const, problems: [...error.problems, { path: '', message: error.message }] },
        }));
        this.questions = [...this.questions, ...refused];
        this.drop(this.inFlight.map((edit) => edit.id));
      } else {
        this.reached = false;
      }
    } finally {
      this.inFlight = [];
      this.sending = false;
      this.changed();
      if (this.pending.length > 0) this.schedule(this.reached ? 0 : RETRY_MS);
      else if (this.reached) void this.photos.flush();
    }
  }

  private async takeAnswers(results: readonly EditAnswer[]): Promise<void> {
    let refetch = false;
    for (const answer of results) {
      const edit = this.pending.find((entry) => entry.id === answer.editId);
      if (!edit) continue;
      if (answer.outcome === 'conflict' || answer.outcome === 'refused') this.questions = [...this.questions, { edit, answer }];
      else if (answer.sequence !== undefined && !this.advance({ sequence: answer.sequence, at: edit.at, edit: answer.edit ?? edit })) refetch = true;
      this.drop([edit.id]);
    }
    if (refetch) this.setBase(await api.job(this.base.job.id));
    await this.log.remove(results.map((answer) => answer.editId));
  }

  private drop(editIds: readonly string[]): void {
    this.pending = this.pending.filter((edit) => !editIds.includes(edit.id));
  }

  /** Takes one change of the server into the base. False when something in between is missing. */
  private advance(change: Change): boolean {
    if (change.sequence <= this.base.sequence) return true;
    if (change.sequence !== this.base.sequence + 1 || change.edit === null) return false;
    const next = reduce(this.base.job, change.edit);
    if (!next.ok) return false;
    this.setBase({ job: next.job, sequence: change.sequence });
    return true;
  }

  private setBase(base: StoredJob): void {
    this.base = base;
    this.queries.setQueryData(['job', base.job.id], base);
    void this.log.keepBase(base);
  }

  private connect(): void {
    this.stream?.close();
    this.stream = new EventSource(`/api/jobs/${this.base.job.id}/changes/stream?since=${this.base.sequence}`);
    this.stream.addEventListener('open', () => {
      if (!this.reached) {
        this.reached = true;
        this.changed();
        this.schedule(0);
        void this.photos.flush();
      }
    });
    this.stream.addEventListener('change', (event) => void this.takeChange(JSON.parse((event as MessageEvent<string>).data) as Change));
    this.stream.addEventListener('error', () => {
      this.reached = false;
      this.changed();
      // The browser gives up on some failures (a proxy's error page); then we begin again ourselves.
      if (this.stream?.readyState === EventSource.CLOSED && !this.closed) setTimeout(() => !this.closed && this.connect(), RETRY_MS);
    });
  }

  private async takeChange(change: Change): Promise<void> {
    if (!this.advance(change)) this.setBase(await api.job(this.base.job.id));
    // Our own edit may come back over the stream before its answer does.
    if (change.edit && this.pending.some((edit) => edit.id === change.edit?.id)) {
      this.drop([change.edit.id]);
      await this.log.remove([change.edit.id]);
    }
    this.changed();
  }

  private changed(): void {
    this.current = this.makeState();
    for (const listener of this.listeners) listener();
  }

  private makeState(): SessionState {
    let { job } = this.base;
    for (const edit of this.pending) {
      const result = reduce(job, edit);
      if (result.ok) job = result.job;
    }
    return {
      job,
      pending: this.pending.length,
      questions: this.questions,
      reached: this.reached,
      undoLabel: this.undoStack.at(-1)?.label ?? null,
    };
  }
}
