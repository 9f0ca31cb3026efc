import type { ServerResponse } from 'node:http';
import type { JobStore } from '../storage/job-store.js';

interface Follower {
  jobId: string;
  since: number;
  response: ServerResponse;
  busy: boolean;
}

/**
 * Server-sent events read from the record of changes by sequence. A change made by this server is sent at once; those of another
 * server on the same database at the next look.
 */
export class ChangeFeed {
  private readonly followers = new Set<Follower>();
  private readonly timer: NodeJS.Timeout;
  private beats = 0;

  constructor(
    private readonly store: JobStore,
    lookEveryMs = 1000,
  ) {
    this.timer = setInterval(() => this.look(), lookEveryMs);
    this.timer.unref();
  }

  follow(jobId: string, since: number, response: ServerResponse): void {
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
    response.write('retry: 1500\n\n');
    const follower: Follower = { jobId, since, response, busy: false };
    this.followers.add(follower);
    response.on('close', () => this.followers.delete(follower));
    void this.send(follower);
  }

  wake(jobId: string): void {
    for (const follower of this.followers) if (follower.jobId === jobId) void this.send(follower);
  }

  close(): void {
    clearInterval(this.timer);
    for (const follower of this.followers) follower.response.end();
    this.followers.clear();
  }

  private look(): void {
    this.beats += 1;
    for (const follower of this.followers) {
      // A comment now and then keeps proxies from closing a quiet line.
      if (this.beats % 20 === 0) follower.response.write(': still here\n\n');
      void this.send(follower);
    }
  }

  private async send(follower: Follower): Promise<void> {
    if (follower.busy) return;
    follower.busy = true;
    try {
      for (const change of await this.store.changes(follower.jobId, follower.since)) {
        follower.response.write(`id: ${change.sequence}\nevent: change\ndata: ${JSON.stringify(change)}\n\n`);
        follower.since = change.sequence;
      }
    } catch {
      // The database is away: the next look tries again, and the follower misses nothing.
    } finally {
      follower.busy = false;
    }
  }
}
