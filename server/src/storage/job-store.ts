import { randomUUID } from 'node:crypto';
import {
  assembleJob,
  changedRecords,
  type Edit,
  headerOf,
  type Job,
  type JobRecord,
  LIST_KINDS,
  type ListKind,
  listOf,
  listsOf,
  type RecordChange,
  recordKey,
} from '@inventario/core';
import { Op, type Sequelize, Transaction } from 'sequelize';
import { ChangeLog } from './change-log.js';
import { PACK, type Packing } from './packing.js';
import { placesAfter, rowName } from './record-places.js';
import { RecordRows, recordRow } from './record-rows.js';
import { defineTables, type RecordRow, type Tables } from './tables.js';

/**
 * A job as the database holds it: the document, the change it stands at, and where each record is kept in its
 * list.
 */
export interface StoredJob {
  job: Job;
  sequence: number;
  generation: string;
  places: ReadonlyMap<string, number>;
  updatedAt: Date;
}

/** Where a job stands: enough to tell whether what somebody has of it is the present. */
export interface Standing {
  sequence: number;
  generation: string;
}

/**
 * Jobs in rows. Every write happens in a transaction that holds the job's row; what was read is kept by
 * sequence.
 */
export class JobStore {
  readonly tables: Tables;
  readonly log: ChangeLog;
  private readonly records: RecordRows;
  private readonly cache = new Map<string, StoredJob>();

  constructor(private readonly sequelize: Sequelize) {
    this.tables = defineTables(sequelize);
    this.log = new ChangeLog(this.tables.changes);
    this.records = new RecordRows(this.tables.records);
  }

  /**
   * One write, all or nothing, under the lock of the job's row. Reading only what is committed, it locks no
   * gaps between jobs: two that are taken in at once do not wait for each other. One that the database breaks
   * off to untie a knot is begun again.
   */
  async transaction<Result>(work: (transaction: Transaction) => Promise<Result>): Promise<Result> {
    for (let tries = 1; ; tries++) {
      try {
        return await this.sequelize.transaction(
          { isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED },
          work,
        );
      } catch (error) {
        if (tries === MOST_TRIES || !isKnot(error)) throw error;
      }
    }
  }

  /** Whether there is no job at all, in the bin neither. */
  async isEmpty(transaction?: Transaction): Promise<boolean> {
    return (await this.tables.jobs.count(transaction ? { transaction } : {})) === 0;
  }

  /** Whether the id is taken, by a job in the bin too. */
  async isKnown(id: string): Promise<boolean> {
    return (await this.tables.jobs.count({ where: { id } })) > 0;
  }

  /** Where each of these jobs stands; those that are gone are left out. */
  async standings(ids: readonly string[]): Promise<Map<string, Standing>> {
    if (ids.length === 0) return new Map();
    const rows = await this.tables.jobs.findAll({
      attributes: ['id', 'sequence', 'generation'],
      where: { id: [...ids], removedAt: null },
    });
    return new Map(
      rows.map((row) => [row.get().id, { sequence: row.get().sequence, generation: row.get().generation }]),
    );
  }

  /** The job at its present sequence. `lock` holds its row until the transaction ends. */
  async read(id: string, transaction?: Transaction, lock = false): Promise<StoredJob | undefined> {
    const row = await this.tables.jobs.findOne({
      where: { id, removedAt: null },
      attributes: ['sequence', 'generation'],
      ...(transaction ? { transaction } : {}),
      ...(lock && transaction ? { lock: transaction.LOCK.UPDATE } : {}),
    });
    if (!row) return undefined;
    const known = this.cache.get(id);
    if (known && known.sequence === row.get('sequence') && known.generation === row.get('generation'))
      return known;
    return transaction
      ? this.load(id, transaction)
      : this.sequelize.transaction({ readOnly: true }, (own) => this.load(id, own));
  }

  /** The whole job as JSON text, made and packed once for each change. */
  async readText(
    id: string,
  ): Promise<(Standing & { bytes: (packing: Packing) => Promise<Buffer> }) | undefined> {
    const stored = (await this.read(id)) as
      | (StoredJob & { packed?: Map<Packing, Promise<Buffer>> })
      | undefined;
    if (!stored) return undefined;
    stored.packed ??= new Map();
    const { packed } = stored;
    const bytes = (packing: Packing) => {
      const known = packed.get(packing) ?? PACK[packing](Buffer.from(JSON.stringify(stored.job)));
      packed.set(packing, known);
      return known;
    };
    return { bytes, sequence: stored.sequence, generation: stored.generation };
  }

  /** All rows of the job in one snapshot. */
  private async load(id: string, transaction: Transaction): Promise<StoredJob | undefined> {
    const row = await this.tables.jobs.findOne({ where: { id, removedAt: null }, transaction });
    if (!row) return undefined;
    const { header, lists, sequence, generation, updatedAt } = row.get();
    const records = new Map<ListKind, JobRecord[]>();
    for (const kind of LIST_KINDS) if (lists.includes(kind)) records.set(kind, []);
    const places = new Map<string, number>();
    for (const { kind, id: key, place, doc } of await this.records.of(id, transaction)) {
      records.get(kind)?.push(typeof doc === 'string' ? (JSON.parse(doc) as JobRecord) : doc);
      places.set(rowName(kind, key), place);
    }
    return this.keep({ job: assembleJob(header, records), sequence, generation, places, updatedAt });
  }

  private keep(stored: StoredJob): StoredJob {
    this.cache.delete(stored.job.id);
    this.cache.set(stored.job.id, stored);
    if (this.cache.size > 50) this.cache.delete(this.cache.keys().next().value as string);
    return stored;
  }

  /**
   * A new job, or the whole of an existing one replaced (as its next change); a new generation of it begins.
   */
  async replace(job: Job, now: Date): Promise<void> {
    await this.transaction((transaction) => this.put(job, now, transaction));
    this.cache.delete(job.id);
  }

  /**
   * Takes jobs into a store without any, the last first in the list; all of them, or none if it is broken
   * off.
   */
  async fill(jobs: readonly Job[], now: Date): Promise<void> {
    await this.transaction(async (transaction) => {
      if (!(await this.isEmpty(transaction))) return;
      for (const [order, job] of jobs.entries())
        await this.put(job, new Date(now.getTime() + order), transaction);
    });
  }

  private async put(job: Job, now: Date, transaction: Transaction): Promise<void> {
    const before = await this.tables.jobs.findByPk(job.id, { transaction, lock: transaction.LOCK.UPDATE });
    const sequence = before ? before.get().sequence + 1 : 0;
    if (before) await this.records.removeAll(job.id, transaction);
    await this.tables.jobs.upsert(
      {
        ...this.jobRow(job, sequence, sequence, now),
        generation: randomUUID(),
        removedAt: null,
        summary: null,
        summaryOf: null,
      },
      { transaction },
    );
    const rows = LIST_KINDS.flatMap((kind) =>
      (listOf(job, kind) ?? []).map((doc, place) =>
        recordRow(job.id, kind, { id: recordKey(kind, doc, place), place, version: sequence, doc }),
      ),
    );
    await this.records.write(rows, transaction);
    if (before) await this.log.replaced(job.id, { sequence, takenAt: now }, transaction);
  }

  /** Puts a job in the bin. False when there is none. */
  async remove(id: string, now: Date): Promise<boolean> {
    this.cache.delete(id);
    const [count] = await this.tables.jobs.update({ removedAt: now }, { where: { id, removedAt: null } });
    return count > 0;
  }

  /** Takes a job out of the bin again, as a new generation of itself. False when it does not lie there. */
  async bringBack(id: string, now: Date): Promise<boolean> {
    const [count] = await this.tables.jobs.update(
      { removedAt: null, generation: randomUUID(), updatedAt: now },
      { where: { id, removedAt: { [Op.not]: null } } },
    );
    return count > 0;
  }

  /** Drops for good what has lain in the bin since before an instant. @returns the ids of those jobs */
  async emptyBin(before: Date): Promise<string[]> {
    const rows = await this.tables.jobs.findAll({
      attributes: ['id'],
      where: { removedAt: { [Op.lt]: before } },
    });
    const ids = rows.map((row) => row.get().id);
    for (const id of ids)
      await this.transaction(async (transaction) => {
        const where = { id, removedAt: { [Op.lt]: before } };
        if (
          !(await this.tables.jobs.findOne({
            attributes: ['id'],
            where,
            transaction,
            lock: transaction.LOCK.UPDATE,
          }))
        )
          return;
        await this.records.removeAll(id, transaction);
        await this.tables.jobs.destroy({ where, transaction });
      });
    return ids;
  }

  /**
   * Writes what differs between the stored job and the next, with the change itself. The caller holds the
   * job's row.
   */
  async apply(
    before: StoredJob,
    next: Job,
    edit: Edit,
    now: Date,
    transaction: Transaction,
  ): Promise<StoredJob> {
    const sequence = before.sequence + 1;
    const { places, moved } = placesAfter(before, next);
    const changes = changedRecords(before.job, next);
    const header = changes.find((change) => change.kind === 'job');
    const listed = changes.filter(
      (change): change is RecordChange & { kind: ListKind } => change.kind !== 'job',
    );
    const placeOf = (kind: ListKind, key: string) => places.get(rowName(kind, key)) ?? 0;
    const upserts = new Map<string, RecordRow>();
    for (const { kind, key, record } of listed)
      if (record)
        upserts.set(
          rowName(kind, key),
          recordRow(next.id, kind, { id: key, place: placeOf(kind, key), version: sequence, doc: record }),
        );
    for (const { kind, key, doc } of moved)
      if (!upserts.has(rowName(kind, key)))
        upserts.set(
          rowName(kind, key),
          recordRow(next.id, kind, { id: key, place: placeOf(kind, key), version: sequence, doc }),
        );
    await this.records.write([...upserts.values()], transaction);
    await this.records.remove(
      next.id,
      listed.filter((change) => !change.record),
      transaction,
    );
    await this.tables.jobs.update(
      header
        ? this.jobRow(next, sequence, sequence, now)
        : { sequence, lists: listsOf(next), updatedAt: now },
      { where: { id: next.id }, transaction },
    );
    await this.log.applied(before.job, edit, { sequence, takenAt: now }, transaction);
    return { job: next, sequence, generation: before.generation, places, updatedAt: now };
  }

  /** To be called once the transaction of {@link apply} has ended well. */
  committed(stored: StoredJob): void {
    this.keep(stored);
  }

  private jobRow(job: Job, sequence: number, version: number, updatedAt: Date) {
    return {
      id: job.id,
      ownerId: null,
      name: job.name,
      sequence,
      version,
      header: headerOf(job),
      lists: listsOf(job),
      updatedAt,
    };
  }
}

const MOST_TRIES = 5;

/** Two transactions waited for each other, or for too long: neither is at fault. */
const isKnot = (error: unknown) =>
  [1205, 1213].includes(Number((error as { original?: { errno?: number } }).original?.errno));
