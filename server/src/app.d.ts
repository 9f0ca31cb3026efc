import { type FastifyInstance } from 'fastify';
import type { SiteGateway } from './site/site-client.js';
import type { JobStore } from './storage/job-store.js';
export interface AppOptions {
    store: JobStore;
    site: SiteGateway;
    /** Folder of the built web application; absent: the API alone. */
    webFolder?: string;
    now?: () => Date;
    https?: {
        key: Buffer;
        cert: Buffer;
    };
    logLevel?: string;
    /** Requests to the API one address may make in a minute. */
    requestsPerMinute?: number;
}
export declare function build(options: AppOptions): Promise<FastifyInstance>;
