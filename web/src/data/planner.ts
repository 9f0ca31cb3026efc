import { changedRecords, type Job } from '@inventario/core';
import { type Remote, wrap } from 'comlink';
import type { Planner } from './planner.worker.js';

/** A planner in a worker of its own, and the way to end it. */
export interface BegunPlanner {
  remote: Remote<Planner>;
  stop(): void;
}

function inWorker(): BegunPlanner {
  const worker = new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' });
  return { remote: wrap<Planner>(worker), stop: () => worker.terminate() };
}

/** The planner of the open job: begun when it is first asked, and brought up to date at every question. */
export class PlannerWorker {
  private begun: BegunPlanner | undefined;
  private last: Job | null = null;
  private synced: Promise<unknown> = Promise.resolve();

  constructor(private readonly begin: () => BegunPlanner = inWorker) {}

  ask<Answer>(job: Job, question: (remote: Remote<Planner>) => Promise<Answer>): Promise<Answer> {
    this.begun ??= this.begin();
    const { remote } = this.begun;
    if (job !== this.last) {
      const [whole, changes] = this.last?.id === job.id ? [null, changedRecords(this.last, job)] : [job, []];
      this.last = job;
      this.synced = remote.update(job.id, whole, changes);
    }
    return this.synced.then(() => question(remote));
  }

  close(): void {
    this.begun?.stop();
    this.begun = undefined;
    this.last = null;
  }
}
