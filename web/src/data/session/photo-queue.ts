import { ApiError, isPassing, UnreachableError } from '../api.js';
import { Listeners } from '../listeners.js';
import type { KeptStore, WaitingPhoto } from './kept-store.js';

/** What is kept of a photograph until the server has it. */
export interface Waiting {
  /** An address the page can show it from. */
  url: string;
  /** Why the server will never take it; it stays on this device. */
  refused: string | null;
  /** The device could not keep it: it exists in this page only. */
  unkept: boolean;
}

type Log = Pick<KeptStore, 'photos' | 'putPhoto' | 'removePhoto'>;
type Send = (photo: WaitingPhoto) => Promise<unknown>;

/**
 * Photographs on their way: kept on this device first, shown from there, and sent when the server is reached.
 * A closed tab and a dead battery do not lose one.
 */
export class PhotoQueue {
  private waiting: ReadonlyMap<string, Waiting> = new Map();
  private readonly unkept = new Map<string, WaitingPhoto>();
  private readonly listeners = new Listeners();
  private sending = false;

  constructor(
    private readonly jobId: string,
    private readonly log: Log,
    private readonly send: Send,
  ) {}

  /** Shows again what an earlier visit left unsent. */
  async open(): Promise<void> {
    const kept = await this.log.photos(this.jobId).catch(() => []);
    this.put(
      kept.map((photo) => [
        photo.photoId,
        { url: URL.createObjectURL(photo.picture), refused: null, unkept: false },
      ]),
    );
  }

  readonly subscribe = this.listeners.subscribe;
  readonly state = (): ReadonlyMap<string, Waiting> => this.waiting;

  /**
   * Keeps a photograph; it goes with the next {@link flush}. Settles when it is safe on this device, or known
   * not to be.
   */
  async add(photoId: string, picture: Blob): Promise<void> {
    const photo = { jobId: this.jobId, photoId, picture };
    const unkept = await this.log.putPhoto(photo).then(
      () => false,
      () => true,
    );
    if (unkept) this.unkept.set(photoId, photo);
    this.put([[photoId, { url: URL.createObjectURL(picture), refused: null, unkept }]]);
  }

  /** Sends what waits, one after the other. @returns whether the server was reached */
  async flush(): Promise<boolean> {
    if (this.sending) return true;
    this.sending = true;
    try {
      const kept = await this.log.photos(this.jobId).catch(() => []);
      for (const photo of [...kept, ...this.unkept.values()]) {
        if (this.waiting.get(photo.photoId)?.refused) continue;
        try {
          await this.send(photo);
          this.unkept.delete(photo.photoId);
          await this.log.removePhoto(this.jobId, photo.photoId).catch(() => {});
          this.drop(photo.photoId);
        } catch (error) {
          if (error instanceof UnreachableError) return false;
          // Its record may still be on the way, or wait for an answer: then the picture waits too.
          const early = error instanceof ApiError && error.code === 'no-such-photo';
          if (early) continue;
          if (isPassing(error)) return true;
          const reason = error instanceof Error ? error.message : String(error);
          this.put([
            [
              photo.photoId,
              {
                url: URL.createObjectURL(photo.picture),
                refused: reason,
                unkept: this.unkept.has(photo.photoId),
              },
            ],
          ]);
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
    this.listeners.tell();
  }

  private drop(photoId: string): void {
    const next = new Map(this.waiting);
    // The address stays good while the page lives: an image that shows it must not go blank.
    next.delete(photoId);
    this.waiting = next;
    this.listeners.tell();
  }
}
