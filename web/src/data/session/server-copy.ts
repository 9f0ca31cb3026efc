import { type Change, reduce } from '@inventario/core';
import { type Api, ApiError } from '../api.js';
import type { Base } from './kept-store.js';
import { LiveChanges, type OpenStream } from './live-changes.js';
import type { Tries } from './tries.js';

/** Who works on the copy. */
export interface CopyOwner {
  /** The copy went on by one change. */
  wentOn(change: Change): void;
  /** The copy is another as a whole; edits that became changes up to this one are part of it. */
  renewed(until: number): Promise<void>;
  /** The server was heard. */
  heard(): void;
  /** What waits may go at once. */
  hurry(): void;
  /** How the copy stands has changed. */
  changed(): void;
}

/** The server's version of one job as far as it is known here, and how it is kept up with. */
export class ServerCopy {
  /** The job was taken out; what is known of it stays. */
  removed = false;
  private readonly live: LiveChanges;
  private reading: Promise<void> | undefined;
  private asking: ReturnType<typeof setTimeout> | undefined;
  private closed = false;

  constructor(
    private known: Base,
    private readonly tools: { api: Api; openStream: OpenStream },
    private readonly tries: Tries,
    private readonly owner: CopyOwner,
  ) {
    this.live = new LiveChanges(tools.openStream, {
      open: () => owner.heard(),
      change: (change) => this.takeChange(change),
      generation: () => void this.readAnew(),
      gone: () => this.lost(),
      down: (givenUp) => this.lineDown(givenUp),
    });
  }

  get base(): Base {
    return this.known;
  }

  /** It was made on this device and is not on the server yet. */
  get made(): boolean {
    return this.known.generation === null;
  }

  private get id(): string {
    return this.known.job.id;
  }

  start(): void {
    this.closed = false;
    if (this.removed) this.askLater(this.tries.pace.longestPause);
    else this.follow();
  }

  close(): void {
    this.closed = true;
    this.live.close();
    clearTimeout(this.asking);
  }

  private follow(): void {
    const { sequence, generation } = this.known;
    if (generation !== null) this.live.follow(this.id, sequence, generation);
  }

  /** Another tab brought a job that was made here to the server. */
  broughtElsewhere(base: Base): void {
    this.known = base;
    this.follow();
  }

  /**
   * Brings a job that was made here to the server. One that is there already came with an answer that was
   * lost.
   */
  async bring(): Promise<void> {
    const { api } = this.tools;
    try {
      await api.takeIn(this.known.job);
    } catch (error) {
      if (!(error instanceof ApiError && error.code === 'job-exists')) throw error;
    }
    const base = await api.job(this.id);
    if (!base) return;
    await this.renew(base);
    this.follow();
  }

  private lineDown(givenUp: boolean): void {
    this.tries.unheard();
    this.owner.changed();
    // The browser gives up on some failures (a proxy's error page); then we begin again ourselves.
    if (givenUp) this.askLater(this.tries.pause);
  }

  /** The job was taken out. It may be brought back: now and then somebody asks. */
  lost(): void {
    this.live.close();
    this.removed = true;
    this.tries.heard();
    this.owner.changed();
    this.askLater(this.tries.pace.longestPause);
  }

  private askLater(after: number): void {
    clearTimeout(this.asking);
    if (!this.closed) this.asking = setTimeout(() => void this.readAnew(), after);
  }

  private takeChange(change: Change): void {
    this.owner.heard();
    if (!this.advance(change)) void this.readAnew();
  }

  /** Takes in one change of the server. False when something in between is missing. */
  advance(change: Change): boolean {
    if (change.sequence <= this.known.sequence) return true;
    if (change.sequence !== this.known.sequence + 1 || change.edit === null) return false;
    const next = reduce(this.known.job, change.edit);
    if (!next.ok) return false;
    this.known = { ...this.known, job: next.job, sequence: change.sequence };
    this.owner.wentOn(change);
    return true;
  }

  /** Takes the whole of it as the server gave it. */
  async renew(base: Base): Promise<void> {
    // What became part of another generation of the job is in that one's history.
    const until = base.generation === this.known.generation ? base.sequence : Number.POSITIVE_INFINITY;
    this.known = base;
    await this.owner.renewed(until);
  }

  /** The whole job from the server, and the line from there on. */
  readAnew(): Promise<void> {
    this.reading ??= this.read().finally(() => {
      this.reading = undefined;
    });
    return this.reading;
  }

  private async read(): Promise<void> {
    if (this.closed || this.made) return;
    const had = this.known;
    try {
      const given = (await this.tools.api.job(this.id, had)) ?? this.known;
      // What was read before our own edits came through is older than what is here by now. One older than
      // what was here before asking is the server's own past: it was put back from a backup.
      const late =
        given.generation === this.known.generation &&
        given.sequence >= had.sequence &&
        given.sequence < this.known.sequence;
      await this.renew(late ? this.known : given);
      this.tries.heard();
      if (this.removed) {
        this.removed = false;
        this.owner.hurry();
      }
      this.owner.changed();
      if (!this.closed) this.follow();
    } catch (error) {
      if (error instanceof ApiError && error.code === 'no-such-job') return this.lost();
      this.tries.longer();
      this.owner.changed();
      this.askLater(this.tries.pause);
    }
  }
}
