import type { ServerResponse } from 'node:http';
import type { JobStore } from '../storage/job-store.js';
/**
 * Server-sent events read from the record of changes by sequence. A change made by this server is sent at once; those of another
 * server on the same database at the next look.
 */
export declare class ChangeFeed {
    private readonly store;
    private readonly followers;
    private readonly timer;
    private beats;
    constructor(store: JobStore, lookEveryMs?: number);
    follow(jobId: string, since: number, response: ServerResponse): void;
    wake(jobId: string): void;
    close(): void;
    private look;
    private send;
}
