import { type Change, type Edit, type Job } from '@inventario/core';
import { type Sequelize, type Transaction } from 'sequelize';
/** A job as the database holds it: the document, the change it stands at, and where each record is kept in its list. */
export interface StoredJob {
    job: Job;
    sequence: number;
    places: ReadonlyMap<string, number>;
    updatedAt: Date;
}
/** Jobs in rows. Every write happens in a transaction that holds the job's row; what was read is kept by sequence. */
export declare class JobStore {
    private readonly sequelize;
    private readonly tables;
    private readonly cache;
    constructor(sequelize: Sequelize);
    transaction<Result>(work: (transaction: Transaction) => Promise<Result>): Promise<Result>;
    ids(): Promise<string[]>;
    /** The job at its present sequence. `lock` holds its row until the transaction ends. */
    read(id: string, transaction?: Transaction, lock?: boolean): Promise<StoredJob | undefined>;
    /** The whole job as JSON text, made once for each change. */
    readText(id: string): Promise<{
        text: string;
        sequence: number;
    } | undefined>;
    /** All rows of the job in one snapshot. */
    private load;
    private keep;
    /** A new job, or the whole of an existing one replaced (as its next change). */
    replace(job: Job, now: Date): Promise<void>;
    remove(id: string): Promise<boolean>;
    /** Writes what differs between the stored job and the next, with the change itself. The caller holds the job's row. */
    apply(before: StoredJob, next: Job, edit: Edit, now: Date, transaction: Transaction): Promise<StoredJob>;
    /** To be called once the transaction of {@link apply} has ended well. */
    committed(stored: StoredJob): void;
    /** The change an edit became, when it was applied before. */
    sequenceOf(jobId: string, editId: string, transaction: Transaction): Promise<number | undefined>;
    /** Changes after `since`, oldest first; `notBy` leaves out those of one device. */
    changes(jobId: string, since: number, options?: {
        notBy?: string;
        transaction?: Transaction;
        limit?: number;
    }): Promise<Change[]>;
    private jobRow;
    private write;
    private removeRows;
}
