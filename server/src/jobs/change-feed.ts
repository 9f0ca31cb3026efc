import type { ServerResponse } from 'node:http';
import type { JobStore, Standing } from '../storage/job-store.js';

interface Follower extends Standing {
  jobId: string;
  response: ServerResponse;
  busy: boolean;
  /** When it is sent away to begin anew, ms. */
  until: number;
}

/** Streams kept open at once; a server that is asked for more says so. */
const MOST_FOLLOWERS = 400;
/** Bytes that may wait for a follower that does not read. */
const MOST_WAITING = 2_000_000;
/** A stream ends after this and is taken up again by its reader, ms. */
const LONGEST = 3_600_000;

/**
 * Server-sent events read from the record of changes by sequence. A change made by this server is sent at
 * once; those of another server on the same database at the next look. When the job became another generation
 * of itself, or is gone, that is said instead.
 */
export class ChangeFeed {
  private readonly followers = new Set<Follower>();
  private readonly timer: NodeJS.Timeout;
  private beats = 0;
  private looking = false;

  constructor(
    private readonly store: JobStore,
    lookEveryMs = 1000,
  ) {
    this.timer = setInterval(() => void this.look(), lookEveryMs);
    this.timer.unref();
  }

  get isFull(): boolean {
    return this.followers.size >= MOST_FOLLOWERS;
  }

  /** @param since what the follower has; of another generation it is told at once */
  follow(jobId: string, since: Standing, response: ServerResponse): void {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    response.write('retry: 1500\n\n');
    const follower: Follower = { jobId, ...since, response, busy: false, until: Date.now() + LONGEST };
    this.followers.add(follower);
    response.on('close', () => this.followers.delete(follower));
    this.wake(jobId);
  }

  wake(jobId: string): void {
    void this.sendTo([...this.followers].filter((follower) => follower.jobId === jobId));
  }

  close(): void {
    clearInterval(this.timer);
    for (const follower of this.followers) follower.response.end();
    this.followers.clear();
  }

  private async look(): Promise<void> {
    this.beats += 1;
    for (const follower of this.followers) {
      if (Date.now() > follower.until || follower.response.writableLength > MOST_WAITING)
        this.endOf(follower);
      // A comment now and then keeps proxies from closing a quiet line.
      else if (this.beats % 20 === 0) follower.response.write(': still here\n\n');
    }
    if (this.looking) return;
    this.looking = true;
    await this.sendTo([...this.followers]);
    this.looking = false;
  }

  private async sendTo(followers: readonly Follower[]): Promise<void> {
    const free = followers.filter((follower) => !follower.busy);
    for (const follower of free) follower.busy = true;
    try {
      const standings = await this.store.standings([...new Set(free.map((follower) => follower.jobId))]);
      for (const follower of free) await this.send(follower, standings.get(follower.jobId));
    } catch {
      // The database is away: the next look tries again, and the follower misses nothing.
    } finally {
      for (const follower of free) follower.busy = false;
    }
  }

  private async send(follower: Follower, standing: Standing | undefined): Promise<void> {
    const say = (event: string, data: unknown, id?: number) =>
      follower.response.write(
        `${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`,
      );
    if (!standing) {
      say('gone', {});
      return this.endOf(follower);
    }
    if (standing.generation !== follower.generation || standing.sequence < follower.sequence) {
      say('generation', standing, standing.sequence);
      Object.assign(follower, standing);
      return;
    }
    if (standing.sequence === follower.sequence) return;
    for (const change of await this.store.log.since(follower.jobId, follower.sequence)) {
      say('change', change, change.sequence);
      follower.sequence = change.sequence;
    }
  }

  private endOf(follower: Follower): void {
    this.followers.delete(follower);
    follower.response.end();
  }
}
