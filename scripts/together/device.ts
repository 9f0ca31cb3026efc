// The browsers of a model run: the session of the application itself, over a network that loses, repeats,
// delays and reorders.
import 'fake-indexeddb/auto';
import type { Edit, EditAnswer, Job } from '@inventario/core';
import type { Random } from '../../core/src/test-support/random.js';
import { makeApi } from '../../web/src/data/api.js';
import { JobSession, type SessionTools } from '../../web/src/data/session/job-session.js';
import { type KeptChange, KeptStore } from '../../web/src/data/session/kept-store.js';
import { tabLine } from '../../web/src/data/session/tab-line.js';
import { FetchedStream } from './fetched-stream.js';
import { Shown } from './written-over.js';

/** What is written down about a run, to be held against the server's own record at the end. */
export interface Notes {
  /** Every edit a device ever kept. */
  made: Map<string, Edit>;
  /** Those a server said yes to, with the change they became. */
  acknowledged: Map<string, number>;
  /** Those that became a question. */
  asked: Set<string>;
  /** What each tab has shown, by its id. */
  shown: Map<string, Shown>;
}

export interface Network {
  servers: readonly string[];
  /** Off: everything arrives, once and in order. */
  troubled: boolean;
}

/** What the tabs of one browser have in common. */
export class Browser {
  readonly kept: KeptStore;
  private made = 0;

  constructor(
    readonly id: string,
    notes: Notes,
  ) {
    this.kept = new NotingStore(id, notes);
  }

  readonly nextNumber = () => ++this.made;
}

/** What a tab is made of. */
interface DeviceParts {
  name: string;
  browser: Browser;
  jobId: string;
  network: Network;
  random: Random;
  notes: Notes;
}

/** One tab, with the job open in it. */
export class Device {
  session: JobSession | undefined;

  readonly name: string;
  private readonly browser: Browser;
  private readonly jobId: string;
  private readonly network: Network;
  private readonly random: Random;
  private readonly notes: Notes;

  constructor(parts: DeviceParts) {
    this.name = parts.name;
    this.browser = parts.browser;
    this.jobId = parts.jobId;
    this.network = parts.network;
    this.random = parts.random;
    this.notes = parts.notes;
  }

  /** Opens the job, again and again while no server gives it. */
  async open(): Promise<JobSession> {
    for (let serial = 0; ; serial++) {
      try {
        const tab = `${this.name}-${serial}-${Math.trunc(performance.now())}`;
        const session = await JobSession.open(this.jobId, this.tools(tab));
        this.watch(session, tab);
        session.start();
        this.session = session;
        return session;
      } catch {
        await pause(20);
      }
    }
  }

  private watch(session: JobSession, tab: string): void {
    const shown = new Shown();
    this.notes.shown.set(tab, shown);
    shown.look(session.state().job);
    session.subscribe(() => shown.look(session.state().job));
  }

  /** The page is closed in the middle of whatever it does, and opened anew. */
  async reload(): Promise<void> {
    this.session?.close();
    // A page that is gone writes no more: what it had begun is there or not before the next one reads.
    await this.session?.settled();
    await this.open();
  }

  job(): Job {
    return (this.session as JobSession).state().job;
  }

  private tools(tab: string): SessionTools {
    const api = makeApi((path, init) => this.fetch(path, init));
    return {
      api: {
        ...api,
        sendEdits: async (id, edits) => {
          const answer = await api.sendEdits(id, edits);
          for (const result of answer.results) this.note(result);
          return answer;
        },
      },
      openStream: (address) =>
        new FetchedStream(
          () => this.server() + address,
          () => this.network.troubled && this.random.chance(0.1),
        ),
      kept: this.browser.kept,
      line: tabLine(this.browser.id),
      deviceId: this.browser.id,
      tab,
      nextNumber: this.browser.nextNumber,
      pace: { beforeSending: 5, firstPause: 20, longestPause: 200 },
    };
  }

  private note({ editId, outcome, sequence }: EditAnswer): void {
    if ((outcome === 'applied' || outcome === 'duplicate') && sequence !== undefined)
      this.notes.acknowledged.set(editId, sequence);
  }

  private server(): string {
    return this.random.pick(this.network.servers);
  }

  private async fetch(path: string, init: RequestInit): Promise<Response> {
    const send = () => fetch(this.server() + path, init);
    if (!this.network.troubled) return send();
    if (this.random.chance(0.1)) throw new TypeError('lost on the way there');
    // A copy of what was sent comes later, behind what follows it.
    if (this.random.chance(0.15))
      void pause(this.random.int(0, 119))
        .then(() => fetch(this.server() + path, { ...init, signal: null }))
        .catch(() => {});
    if (this.random.chance(0.3)) await pause(this.random.int(0, 29));
    const response = await send();
    if (this.random.chance(0.1)) throw new TypeError('lost on the way back');
    return response;
  }
}

/** Writes down what a device keeps. */
class NotingStore extends KeptStore {
  constructor(
    name: string,
    private readonly notes: Notes,
  ) {
    super(name);
  }

  override async write(jobId: string, change: KeptChange): Promise<void> {
    await super.write(jobId, change);
    for (const { edit } of change.put ?? []) this.notes.made.set(edit.id, edit);
    for (const { edit } of change.ask ?? []) this.notes.asked.add(edit.id);
  }
}

export const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));
