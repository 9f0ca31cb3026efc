import type { ChildProcess } from 'node:child_process';
import { StoppedError } from './start-error.js';

/** A process that does not end when asked is ended after this, ms: a database may have much to write. */
const PATIENCE = 60_000;

/**
 * Everything one start has running. It is ended in the opposite order, whenever that is asked, in the middle
 * of starting too.
 */
export class Household {
  private readonly ends: (() => Promise<void>)[] = [];
  private ending: Promise<void> | undefined;

  get isEnding(): boolean {
    return this.ending !== undefined;
  }

  /**
   * What was just started. When the end was asked for meanwhile it is ended at once, and starting goes no
   * further.
   */
  async add(end: () => Promise<void>): Promise<void> {
    if (this.ending) {
      await end();
      throw new StoppedError('stopped');
    }
    this.ends.push(end);
  }

  /** Between two steps of starting. */
  goOn(): void {
    if (this.ending) throw new StoppedError('stopped');
  }

  end(): Promise<void> {
    this.ending ??= (async () => {
      for (const end of this.ends.reverse()) await end().catch(() => {});
    })();
    return this.ending;
  }
}

/** Asks a process to end and waits until it has. */
export function ended(child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined)
    return Promise.resolve();
  return new Promise((done) => {
    const hurry = setTimeout(() => child.kill('SIGKILL'), PATIENCE);
    child.once('exit', () => {
      clearTimeout(hurry);
      done();
    });
    child.kill(signal);
  });
}
