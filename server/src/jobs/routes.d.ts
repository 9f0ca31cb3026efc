import type { FastifyInstance } from 'fastify';
import type { JobStore } from '../storage/job-store.js';
import type { ChangeFeed } from './change-feed.js';
export declare function jobRoutes(app: FastifyInstance, { store, feed, now }: {
    store: JobStore;
    feed: ChangeFeed;
    now: () => Date;
}): void;
