import { changedRecords, type Job } from '@inventario/core';
import { type Remote, wrap } from 'comlink';
import type { Planner } from './planner.worker.js';

/** The worker that decides for the whole house: begun when it is first asked, and brought up to date at every question. */
export class PlannerWorker {
  private remote: Remote<Planner> | undefined;
  private worker: Worker | undefined;
  private last: Job | null = null;
  private synced: Promise<unknown> = Promise.resolve();

  ask<Answer>(job: Job, question: (remote: Remote<Planner>) => Promise<Answer>): Promise<Answer> {
    if (!this.remote) {
      this.worker = new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' });
      this.remote = wrap<Planner>(this.worker);
    }
    const { remote } = this;
    if (job !== this.last) {
      const [whole, changes] = this.last?.id === job.id ? [null, changedRecords(this.last, job)] : [job, []];
      this.last = job;
      this.synced = remote.update(job.id, whole, changes);
    }
    return this.synced.then(() => question(remote));
  }

  close(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.remote = undefined;
    this.last = null;
  }
}
