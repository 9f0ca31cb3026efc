import { type Change, type Edit, type Job, reduce } from '@inventario/core';
import type { StoredJob } from '../data/api.js';
import type { WaitingPhoto } from '../data/pending-log.js';

/** A server of one job: it applies edits in order, knows those it has, and can be away. */
export class Server {
  sequence = 0;
  away = false;
  /** The next answer to a batch, instead of what the edits would make. */
  nextAnswer: (() => { status: number; body: unknown }) | null = null;
  readonly taken: Edit[] = [];

  constructor(public job: Job) {}

  take(edit: Edit): Change {
    const result = reduce(this.job, edit);
    if (!result.ok) throw new Error(JSON.stringify(result.refusal));
    this.job = result.job;
    this.sequence += 1;
    this.taken.push(edit);
    return { sequence: this.sequence, at: edit.at, edit };
  }

  readonly fetch = async (address: unknown, init?: RequestInit): Promise<Response> => {
    if (this.away) throw new TypeError('network');
    const path = String(address);
    if (path.endsWith('/edits')) {
      if (this.nextAnswer) {
        const { status, body } = this.nextAnswer();
        this.nextAnswer = null;
        return answer(status, body);
      }
      const { edits } = JSON.parse(String(init?.body)) as { edits: Edit[] };
      const results = edits.map((edit) => {
        const known = this.taken.findIndex((other) => other.id === edit.id);
        return known < 0
          ? { editId: edit.id, outcome: 'applied', sequence: this.take(edit).sequence }
          : { editId: edit.id, outcome: 'duplicate', sequence: known + 1 };
      });
      return answer(200, { results, sequence: this.sequence });
    }
    return answer(200, this.job, { 'x-job-sequence': String(this.sequence) });
  };
}

const answer = (status: number, body: unknown, headers: Record<string, string> = {}) =>
  ({
    ok: status < 300,
    status,
    headers: { get: (name: string) => headers[name] ?? null },
    json: async () => JSON.parse(JSON.stringify(body)),
    text: async () => JSON.stringify(body),
  }) as unknown as Response;

/** What the device keeps, in memory: it outlives a session as IndexedDB outlives a tab. */
export class Kept {
  readonly stored = new Map<string, Edit>();
  base_: StoredJob | undefined;
  edits = async () => [...this.stored.values()].sort((a, b) => a.n - b.n);
  put = async (_: string, edit: Edit) => void this.stored.set(edit.id, edit);
  remove = async (ids: readonly string[]) => {
    for (const id of ids) this.stored.delete(id);
  };
  base = async () => this.base_;
  keepBase = async (base: StoredJob) => {
    this.base_ = base;
  };
  photos = async (): Promise<WaitingPhoto[]> => [];
}

export class Stream {
  static last: Stream;
  readyState = 1;
  private readonly listeners = new Map<string, (event: unknown) => void>();
  constructor(readonly url: string) {
    Stream.last = this;
  }
  addEventListener(name: string, listener: (event: unknown) => void) {
    this.listeners.set(name, listener);
  }
  close() {}
  say(name: string, data?: unknown) {
    this.listeners.get(name)?.({ data: JSON.stringify(data) });
  }
}
