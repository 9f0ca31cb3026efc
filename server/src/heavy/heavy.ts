import { Worker } from 'node:worker_threads';
import type { Job, Problem } from '@inventario/core';
import type { Encoded } from '../photos/picture.js';

type Told = Pick<Problem, 'path' | 'message'>;

export type HeavyTask = { id: number } & (
  | { kind: 'picture'; bytes: Uint8Array }
  /** Pictures are written to `folder` as `ID.jpg` and `ID.thumb.jpg`. */
  | { kind: 'archive'; bytes: Uint8Array; folder: string }
);
export interface HeavyAnswer {
  picture?: Encoded | null;
  archive?: { job: Job; photoIds: string[] };
  problems?: Told[];
}

/**
 * How long one task may take, ms, on a machine ten times slower than usual; what takes longer was made to.
 */
const LONGEST = { picture: 120_000, archive: 900_000 } as const;
/** Bytes of pictures and archives that may be held at once. */
const MEMORY_BUDGET = 450_000_000;

/**
 * Opens pictures and archives in a thread of its own, one after the other. A task that takes too long, or
 * brings the thread down, is answered with a problem; the next one gets a new thread.
 */
export class Heavy {
  private worker: Worker | undefined;
  private last: Promise<unknown> = Promise.resolve();
  private held = 0;
  private tasks = 0;

  /** Takes room for a body before it is read. @returns how to give it back; undefined when there is none */
  reserve(bytes: number): (() => void) | undefined {
    if (this.held > 0 && this.held + bytes > MEMORY_BUDGET) return undefined;
    this.held += bytes;
    let given = false;
    return () => {
      if (!given) this.held -= bytes;
      given = true;
    };
  }

  /** Null when the bytes are no picture of a kind that is taken. */
  async picture(bytes: Uint8Array): Promise<Encoded | null> {
    const answer = await this.inTurn({ kind: 'picture', bytes });
    const encoded = answer.picture;
    return encoded
      ? { ...encoded, full: Buffer.from(encoded.full), thumb: Buffer.from(encoded.thumb) }
      : null;
  }

  archive(bytes: Uint8Array, folder: string): Promise<HeavyAnswer> {
    return this.inTurn({ kind: 'archive', bytes, folder });
  }

  async close(): Promise<void> {
    await this.worker?.terminate();
    this.worker = undefined;
  }

  private inTurn(
    task: { kind: 'picture'; bytes: Uint8Array } | { kind: 'archive'; bytes: Uint8Array; folder: string },
  ): Promise<HeavyAnswer> {
    const turn = this.last.then(() => this.run({ ...task, id: ++this.tasks }));
    this.last = turn.catch(() => {});
    return turn;
  }

  private run(task: HeavyTask): Promise<HeavyAnswer> {
    const worker = this.worker ?? launch();
    this.worker = worker;
    return new Promise((done) => {
      const end = (answer: HeavyAnswer, broken: boolean) => {
        clearTimeout(clock);
        worker.off('message', onMessage).off('error', onBroken).off('exit', onBroken);
        if (broken) {
          this.worker = undefined;
          void worker.terminate();
        }
        done(answer);
      };
      const onMessage = (answer: HeavyAnswer & { id: number }) => {
        if (answer.id === task.id) end(answer, false);
      };
      const onBroken = () => end(failed(task, 'takes more memory to open than there is'), true);
      const clock = setTimeout(() => end(failed(task, 'takes too long to open'), true), LONGEST[task.kind]);
      worker.on('message', onMessage).on('error', onBroken).on('exit', onBroken);
      worker.postMessage(task);
    });
  }
}

const failed = ({ kind }: HeavyTask, message: string): HeavyAnswer =>
  kind === 'picture' ? { picture: null } : { problems: [{ path: '', message }] };

function launch(): Worker {
  const fromSource = import.meta.url.endsWith('.ts');
  const worker = new Worker(
    new URL(fromSource ? './from-source.mjs' : './heavy-worker.mjs', import.meta.url),
    {
      execArgv: [],
      env: { ...process.env, NODE_OPTIONS: '' },
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    },
  );
  worker.unref();
  return worker;
}
