import type { Change } from '@inventario/core';

/** What one tab tells the others of the same browser about a job. */
type TabWord =
  /** Something kept of the job is another now: read it again. */
  | { says: 'kept' }
  /** Edits became changes of the job. */
  | { says: 'taken'; changes: Change[] };

/** The other tabs that have this job open: they share what is kept, and only one at a time sends. */
export interface TabLine {
  say(word: TabWord): void;
  listen(hear: (word: TabWord) => void): void;
  /** Does the work while no other tab does work of the same name. */
  alone<Result>(work: () => Promise<Result>): Promise<Result>;
  close(): void;
}

/**
 * Tabs speak over a broadcast channel and wait for each other with a lock. A browser without locks (a page
 * over plain HTTP) sends from each tab on its own, which is safe: the server knows an edit it has taken
 * already.
 */
export function tabLine(name: string): TabLine {
  let channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(name);
  let hear: (word: TabWord) => void = () => {};
  channel?.addEventListener('message', (event: MessageEvent<TabWord>) => hear(event.data));
  return {
    say: (word) => channel?.postMessage(word),
    listen: (next) => {
      hear = next;
    },
    alone: (work) => {
      const locks = globalThis.navigator?.locks;
      return locks ? (locks.request(name, work) as ReturnType<typeof work>) : inTurn(name, work);
    },
    close: () => {
      channel?.close();
      channel = null;
    },
  };
}

const turns = new Map<string, Promise<unknown>>();

function inTurn<Result>(name: string, work: () => Promise<Result>): Promise<Result> {
  const turn = (turns.get(name) ?? Promise.resolve()).then(work, work);
  turns.set(
    name,
    turn.catch(() => {}),
  );
  return turn;
}
