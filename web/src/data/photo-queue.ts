import { ApiError, UnreachableError } from './api.js';
import type { PendingLog, WaitingPhoto } from './pending-log.js';

/** What is kept of a photograph until the server has it. */
export interface Waiting {
  /** An address the page can show it from. */
  url: string;
  /** Why the server will never take it; it stays on this device. */
  refused: string | null;
}

type Log = Pick<PendingLog, 'photos' | 'putPhoto' | 'removePhoto'>;
type Send = (photo: WaitingPhoto) => Promise<unknown>;

/**
 * Photographs on their way: kept on this device first, shown from there, and sent when the server is reached. A closed tab and a dead
 * battery do not lose one.
 */
export class PhotoQueue {
  private waiting: ReadonlyMap<string, Waiting> = new Map();
  private readonly listeners = new Set<() => void>();
  private sending = false;

  constructor(
    private readonly jobId: string,
    private readonly log: Log,
    private readonly send: Send,
  ) {}

  /** Shows again what an earlier visit left unsent. */
  async open(): Promise<void> {
    const kept = await this.log.photos(this.jobId);
    this.put(kept.map((photo) => [photo.photoId, { url: URL.createObjectURL(photo.picture), refused: null }]));
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly state = (): ReadonlyMap<string, Waiting> => this.waiting;

  /** Keeps a photograph, then sends it when it can. Settles when it is safe on this device. */
  async add(photoId: string, picture: Blob): Promise<void> {
    await this.log.putPhoto({ jobId: this.jobId, photoId, picture });
    this.put([[photoId, { url: URL.createObjectURL(picture), refused: null }]]);
    void this.flush();
  }

  /** Sends what waits, one after the other. @returns whether the server was reached */
  async flush(): Promise<boolean> {
    if (this.sending) return true;
    this.sending = true;
    try {
      for (const photo of await this.log.photos(this.jobId)) {
        if (this.waiting.get(photo.photoId)?.refused) continue;
        try {
          await this.send(photo);
          await this.log.removePhoto(photo.photoId);
          this.drop(photo.photoId);
        } catch (error) {
          if (error instanceof UnreachableError) return false;
          const passing = !(error instanceof ApiError) || error.status >= 500 || error.status === 429;
          if (passing) return true;
          this.put([[photo.photoId, { url: URL.createObjectURL(photo.picture), refused: error.message }]]);
        }
      }
      return true;
    } finally {
      this.sending = false;
    }
  }

  private put(entries: (readonly [string, Waiting])[]): void {
    if (entries.length === 0) return;
    this.waiting = new Map([...this.waiting, ...entries]);
    for (const listener of this.listeners) listener();
  }

  private drop(photoId: string): void {
    const next = new Map(this.waiting);
    // The address stays good while the page lives: an image that shows it must not go blank.
    next.delete(photoId);
    this.waiting = next;
    for (const listener of this.listeners) listener();
  }
}
