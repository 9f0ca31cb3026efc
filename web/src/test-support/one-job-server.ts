import 'fake-indexeddb/auto';
import { type Change, type Edit, type Job, reduce } from '@inventario/core';
import { makeApi } from '../data/api.js';
import { newId } from '../data/ids.js';
import type { SessionTools } from '../data/session/job-session.js';
import { KeptStore } from '../data/session/kept-store.js';
import type { EventStream } from '../data/session/live-changes.js';
import { tabLine } from '../data/session/tab-line.js';

interface Answer {
  status: number;
  body: unknown;
}

/** A server of one job: it applies edits in order, knows those it has, and can be away. */
export class Server {
  sequence = 0;
  generation = 'g1';
  away = false;
  /** The job was taken out. */
  gone = false;
  /** Answers to the next batches, instead of what the edits would make. */
  readonly nextAnswers: ((edits: Edit[]) => Answer)[] = [];
  readonly taken: Edit[] = [];
  batches = 0;

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
    if (path === '/api/ready') return answer(200, { ready: true });
    if (this.gone) return answer(404, { error: { code: 'no-such-job', message: 'No job has this id.' } });
    if (path === '/api/jobs' && init?.method === 'POST') {
      this.job = JSON.parse(String(init.body)) as Job;
      return answer(201, { id: this.job.id });
    }
    if (path.endsWith('/edits')) {
      this.batches += 1;
      const { edits } = JSON.parse(String(init?.body)) as { edits: Edit[] };
      const next = this.nextAnswers.shift()?.(edits);
      if (next) return answer(next.status, next.body);
      const results = edits.map((edit) => {
        const known = this.taken.findIndex((other) => other.id === edit.id);
        return known < 0
          ? { editId: edit.id, outcome: 'applied', sequence: this.take(edit).sequence }
          : { editId: edit.id, outcome: 'duplicate', sequence: known + 1 };
      });
      return answer(200, { results, sequence: this.sequence });
    }
    return answer(200, this.job, {
      'x-job-sequence': String(this.sequence),
      'x-job-generation': this.generation,
    });
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

/** A line of changes that says what the test says. */
export class Stream implements EventStream {
  static last: Stream;
  readyState = 1;
  private readonly listeners = new Map<string, (event: MessageEvent<string>) => void>();
  constructor(readonly url: string) {
    Stream.last = this;
  }
  addEventListener(name: string, listener: (event: MessageEvent<string>) => void) {
    this.listeners.set(name, listener);
  }
  close() {}
  say(name: string, data?: unknown) {
    this.listeners.get(name)?.({ data: JSON.stringify(data) } as MessageEvent<string>);
  }
}

/** A device of its own: an empty store under a name nobody else has. */
export function device(): { kept: KeptStore; name: string } {
  const name = newId();
  return { kept: new KeptStore(name), name };
}

let made = 0;

/** What a session on this server works with; two given the same device are two tabs of it. */
export function toolsOf(server: Server, { kept, name } = device(), tab = newId()): SessionTools {
  return {
    api: makeApi((path, init) => server.fetch(path, init)),
    openStream: (address) => new Stream(address),
    kept,
    line: tabLine(name),
    deviceId: name,
    tab,
    nextNumber: () => ++made,
  };
}
