import {
  type Change,
  type Conflict,
  type Edit,
  type EditPart,
  fieldByField,
  type Job,
  type RecordProblem,
  reduce,
  sharedWith,
  withTargetsFreed,
} from '@inventario/core';
import { type Api, ApiError } from '../api.js';
import { instant, newId } from '../ids.js';
import { Listeners } from '../listeners.js';
import { carriedThrough } from './carried-through.js';
import { jobOnBase, recordsGone } from './job-on-base.js';
import type { Base, KeptStore, Question } from './kept-store.js';
import { Keystrokes, oneEdit } from './keystrokes.js';
import type { OpenStream } from './live-changes.js';
import { Outbox } from './outbox.js';
import { PhotoQueue } from './photo-queue.js';
import { Sender, type SentFor } from './sender.js';
import { type CopyOwner, ServerCopy } from './server-copy.js';
import type { TabLine } from './tab-line.js';
import { type Pace, Tries } from './tries.js';
import { type Back, UndoSteps } from './undo-steps.js';

export interface SessionState {
  job: Job;
  /** Edits the server has not taken yet. */
  pending: number;
  questions: readonly Question[];
  reached: boolean;
  /** What undo would take back, and redo do again. */
  undoLabel: string | null;
  redoLabel: string | null;
  /** The job was taken out elsewhere; what is kept of it can still be read and saved. */
  removed: boolean;
  /** It was made on this device and is not on the server yet. */
  made: boolean;
  /** Edits that exist in this page only: the device could not keep them. */
  unkept: number;
}

/**
 * Why an answer cannot be carried out: what is wrong with what would be recorded, or nothing that the job as
 * it is now allows.
 */
export interface Hindrance {
  problems: readonly RecordProblem[];
}

/** What a session is given from outside. */
export interface SessionTools {
  api: Api;
  openStream: OpenStream;
  kept: KeptStore;
  line: TabLine;
  deviceId: string;
  tab: string;
  /** Counts this device's edits. */
  nextNumber: () => number;
  pace?: Pace;
}

/** What of the browser's says that it is worth trying now. */
const WAKING = ['online', 'focus'] as const;

/**
 * One open job: the server's last version, this device's unsent edits on top of it, and their way to the
 * server. Screens read `state.job` and call `apply`; everything else happens by itself, in order, and
 * survives the server being away.
 */
export class JobSession {
  private readonly tries: Tries;
  private closed = false;
  private shown: Job;
  private readonly listeners = new Listeners();
  private current: SessionState;
  private readonly outbox: Outbox;
  private readonly sender: Sender;
  private readonly steps = new UndoSteps();
  private readonly keystrokes = new Keystrokes();
  private readonly copy: ServerCopy;
  readonly photos: PhotoQueue;

  private constructor(
    base: Base,
    private readonly tools: SessionTools,
  ) {
    const { api, kept } = tools;
    this.tries = new Tries(tools.pace);
    this.copy = new ServerCopy(base, tools, this.tries, this.asCopyOwner());
    this.outbox = new Outbox(this.id, kept, () => this.changed());
    this.sender = new Sender(this.asSentFor(), this.outbox, this.tries, api, tools.line);
    this.photos = new PhotoQueue(this.id, kept, ({ jobId, photoId, picture }) =>
      api.keepPhoto(jobId, photoId, picture),
    );
    tools.line.listen((word) => {
      if (word.says === 'taken') for (const change of word.changes) this.copy.advance(change);
      void this.reload();
    });
    this.shown = base.job;
    this.current = this.makeState();
  }

  /**
   * Opens a job from the server, or from what this device kept when the server does not give it, for whatever
   * reason.
   */
  static async open(jobId: string, tools: SessionTools): Promise<JobSession> {
    try {
      return await JobSession.opened(jobId, tools);
    } catch (error) {
      // Nobody is there to close it.
      tools.line.close();
      throw error;
    }
  }

  private static async opened(jobId: string, tools: SessionTools): Promise<JobSession> {
    const kept = await tools.kept
      .job(jobId)
      .catch(() => ({ base: undefined, pending: [], questions: [], steps: [] }));
    let [base, reached, removed] = [kept.base, true, false];
    if (base?.generation !== null) {
      try {
        base = (await tools.api.job(jobId, kept.base)) ?? kept.base;
      } catch (error) {
        if (!kept.base) throw error;
        removed = error instanceof ApiError && error.code === 'no-such-job';
        reached = removed;
      }
    }
    if (!base) throw new ApiError(404, 'no-such-job', 'No job has this id.');
    const session = new JobSession(kept.base ?? base, tools);
    session.outbox.take(kept);
    session.steps.replaceAll(kept.steps);
    session.copy.removed = removed;
    if (!reached) session.tries.unheard();
    session.rebuild();
    if (base !== kept.base) void session.copy.renew(base);
    else session.changed();
    return session;
  }

  start(): void {
    this.closed = false;
    this.copy.start();
    this.sender.schedule(0);
    void this.photos.open().then(() => this.flushPhotos());
    for (const wake of WAKING) globalThis.addEventListener?.(wake, this.hurry);
  }

  close(): void {
    this.closed = true;
    this.copy.close();
    this.tools.line.close();
    this.sender.stop();
    for (const wake of WAKING) globalThis.removeEventListener?.(wake, this.hurry);
  }

  readonly subscribe = this.listeners.subscribe;
  readonly state = (): SessionState => this.current;

  /** Once everything recorded so far is on this device. */
  settled(): Promise<void> {
    return this.outbox.settled();
  }

  /**
   * Makes an edit and shows it at once. `mergeKey`: keystrokes with the same key become one edit while it is
   * unsent.
   * @returns what hinders it, when the job as shown does not allow it
   */
  apply(parts: EditPart[], label: string, mergeKey?: string): string | null {
    const whole = withTargetsFreed(this.shown, parts);
    const made = this.make(fieldByField(this.shown, whole), label, mergeKey);
    return made === null || typeof made === 'string' ? made : null;
  }

  /** Takes the last edit back. @returns what stays because others changed it since */
  undo(): Conflict[] {
    return this.turn(this.steps.undo(this.shown));
  }

  /** Does again what was taken back last. */
  redo(): Conflict[] {
    return this.turn(this.steps.redo(this.shown));
  }

  /**
   * The installer's word on a question. `theirs`: what stands stays, and mine can be had back by undo.
   * `mine`: it is carried through on the job as it is now, with `parts` in the place of the edit's own where
   * the installer changed them.
   * @returns what hinders it; the question then stays
   */
  settle(editId: string, choice: 'theirs' | 'mine', parts?: EditPart[]): Hindrance | null {
    const question = this.outbox.questions.find((entry) => entry.edit.id === editId);
    if (!question) return null;
    const {
      parts: mine,
      isPossible,
      problems,
    } = carriedThrough(question, parts, this.base, this.outbox.pending);
    if (choice === 'mine' && (!isPossible || problems.length > 0)) return { problems };
    if (choice === 'mine' && mine.length > 0) {
      // In the place of the one asked about: what waited for the answer was made on top of it.
      const edit = { ...this.newEdit(this.based(mine), question.edit.label), n: question.edit.n };
      this.outbox.settle(editId, { edit });
      void this.keep({ settled: [editId], put: this.outbox.pending });
    } else {
      this.outbox.settle(editId);
      const note =
        choice === 'theirs' && isPossible && mine.length > 0
          ? this.steps.noteDropped(newId(), question.edit, mine)
          : undefined;
      void this.keep({
        settled: [editId],
        put: this.outbox.pending,
        ...(note ? { steps: [note.step], dropSteps: note.dropped } : {}),
      });
    }
    this.rebuild();
    this.changed();
    this.sender.schedule(this.tries.pace.beforeSending);
    return null;
  }

  /** Takes the job off this device, with everything unsent. */
  async forget(): Promise<void> {
    this.close();
    await this.outbox.settled();
    await this.tools.kept.forget(this.id);
  }

  private get base(): Base {
    return this.copy.base;
  }

  private get id(): string {
    return this.base.job.id;
  }

  /** @returns the edit, or what hinders it; null when there is nothing to do */
  private make(parts: EditPart[], label: string, mergeKey?: string, noted = true): string | Edit | null {
    if (parts.length === 0) return null;
    const before = this.shown;
    const based = this.based(parts);
    const result = reduce(before, { parts: based });
    if (!result.ok) return result.refusal.code;
    this.shown = result.job;
    const merged = this.mergeInto(based, label, before, mergeKey);
    const edit = merged ?? this.newEdit(based, label);
    if (!merged) {
      this.outbox.add({ edit });
      const note = noted ? this.steps.note(edit.id, label, before, based) : undefined;
      void this.keep({
        put: this.outbox.pending.slice(-1),
        ...(note ? { steps: [note.step], dropSteps: note.dropped } : {}),
      });
    }
    this.keystrokes.made(mergeKey, edit.id);
    this.changed();
    this.sender.schedule(this.tries.pace.beforeSending);
    return edit;
  }

  private based(parts: readonly EditPart[]): EditPart[] {
    return parts.map((part) => ({ ...part, base: this.outbox.baseFor(part, this.base.sequence) }));
  }

  private newEdit(parts: EditPart[], label: string): Edit {
    const { deviceId, tab } = this.tools;
    const generation = this.base.generation ? { generation: this.base.generation } : {};
    const below = this.outbox.below(parts, tab);
    return {
      id: newId(),
      deviceId,
      tab,
      ...(below.length > 0 ? { on: below } : {}),
      ...generation,
      n: this.nextNumber(),
      at: instant(),
      label: label.slice(0, 400),
      parts,
    };
  }

  private nextNumber(): number {
    return Math.max(this.tools.nextNumber(), this.outbox.lastNumber + 1);
  }

  /** A further keystroke on the field of the last edit, while that is nowhere but here. */
  private mergeInto(
    parts: EditPart[],
    label: string,
    before: Job,
    key: string | undefined,
  ): Edit | undefined {
    const row = this.outbox.pending.at(-1);
    if (!row || !this.keystrokes.goOn(key, row.edit)) return undefined;
    if (this.sender.isSending(row.edit.id) || row.answered !== undefined) return undefined;
    const edit = oneEdit(row.edit, parts, label);
    if (!edit) return undefined;
    const longer = { ...row, edit };
    this.outbox.replace(row.edit.id, longer);
    const step = this.steps.extend(row.edit.id, edit, before, parts);
    void this.keep({
      put: [longer],
      drop: [row.edit.id],
      ...(step ? { steps: [step], dropSteps: [row.edit.id] } : {}),
    });
    return edit;
  }

  private turn(back: Back | undefined): Conflict[] {
    if (!back) return [];
    this.keystrokes.end();
    const { step, parts, label, left } = back;
    const before = this.shown;
    const made = this.make(parts, label, undefined, false);
    const turned =
      made !== null && typeof made !== 'string' ? this.steps.turned(step.id, before, made.parts) : undefined;
    if (!turned) this.steps.drop(step.id);
    void this.keep(turned ? { steps: [turned] } : { dropSteps: [step.id] });
    this.changed();
    return left;
  }

  private async keep(change: Parameters<Outbox['write']>[0]): Promise<void> {
    if (await this.outbox.write(change)) this.tools.line.say({ says: 'kept' });
  }

  /** What the copy of the server's job tells this session. */
  private asCopyOwner(): CopyOwner {
    return {
      wentOn: (change) => this.arrived(change),
      renewed: (until) => this.renewed(until),
      heard: () => this.heard(),
      hurry: () => this.sender.schedule(0),
      changed: () => this.changed(),
    };
  }

  /** What the sender sees of this session. */
  private asSentFor(): SentFor {
    const session = this;
    return {
      get id() {
        return session.id;
      },
      get shown() {
        return session.shown;
      },
      get base() {
        return session.base.job;
      },
      get made() {
        return session.copy.made;
      },
      get resting() {
        return session.closed || session.copy.removed;
      },
      reload: () => this.reload(),
      bring: () => this.copy.bring(),
      answered: (changes) => this.answered(changes),
      lost: () => this.copy.lost(),
      changed: () => this.changed(),
      emptied: () => this.flushPhotos(),
    };
  }

  /** Reads again what another tab has kept. */
  private async reload(): Promise<void> {
    for (;;) {
      await this.outbox.settled();
      const { begun } = this.outbox;
      const kept = await this.tools.kept.job(this.id).catch(() => undefined);
      if (this.closed || !kept) return;
      if (begun !== this.outbox.begun) continue;
      this.outbox.take(kept);
      this.outbox.arrived(this.base.sequence);
      this.steps.replaceAll(kept.steps);
      if (this.copy.made && kept.base?.generation) this.copy.broughtElsewhere(kept.base);
      this.rebuild();
      this.changed();
      return;
    }
  }

  /** Somebody looks again, or the network is back. A tab that closed may have left something to send. */
  private readonly hurry = () => {
    if (globalThis.document?.visibilityState === 'hidden') return;
    this.tries.afresh();
    void this.reload().then(() => this.sender.schedule(0));
  };

  private async answered(changes: readonly Change[]): Promise<void> {
    this.heard(false);
    for (const change of changes) this.copy.advance(change);
    this.tools.line.say({ says: 'taken', changes: [...changes] });
    if (this.outbox.pending.some((row) => row.answered !== undefined)) await this.copy.readAnew();
    this.rebuild();
  }

  private heard(hurry = true): void {
    if (!this.tries.heard()) return;
    this.changed();
    if (hurry) this.sender.schedule(0);
    this.flushPhotos();
  }

  /** Our own edit may come back over the stream before its answer does: then it has arrived all the same. */
  private arrived(change: Change): void {
    const drop = this.outbox.arrived(this.base.sequence, [change]);
    void this.keep({ base: this.base, drop });
    this.rebuild();
    this.changed();
  }

  private async renewed(until: number): Promise<void> {
    const drop = this.outbox.arrived(until);
    this.rebuild();
    this.changed();
    await this.keep({ base: this.base, drop });
  }

  /** Keeps a photograph and sends it when its record is with the server. */
  async addPhoto(photoId: string, picture: Blob): Promise<void> {
    await this.photos.add(photoId, picture);
    this.flushPhotos();
  }

  private flushPhotos(): void {
    if (this.outbox.unsent.length === 0 && !this.copy.removed && !this.copy.made) void this.photos.flush();
  }

  private rebuild(): void {
    const before = this.shown;
    // What the server confirms is here already: nothing is weighed, or drawn, once more for it.
    this.shown = sharedWith(before, jobOnBase(this.base, this.outbox.pending));
    const gone = recordsGone(before, this.shown, this.outbox.pending);
    if (gone.size === 0) return;
    const held = this.outbox.holdRecords(gone);
    if (held.length > 0) void this.keep({ put: held });
  }

  private changed(): void {
    this.current = this.makeState();
    this.listeners.tell();
  }

  private makeState(): SessionState {
    return {
      job: this.shown,
      pending: this.outbox.unsent.length,
      questions: this.outbox.questions,
      reached: this.tries.reached,
      undoLabel: this.steps.undoLabel,
      redoLabel: this.steps.redoLabel,
      removed: this.copy.removed,
      made: this.copy.made,
      unkept: this.outbox.unkept.size,
    };
  }
}
