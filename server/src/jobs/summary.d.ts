import { type Job, type JobSummary } from '@inventario/core';
/** What the list of jobs shows of one: counts for each stage, and the blocker met most often. */
export declare function summarise(job: Job, updatedAt: Date): JobSummary;
