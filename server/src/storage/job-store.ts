import { randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import {
  assembleJob,
  type Change,
  changedRecords,
  type Edit,
  type EditPart,
  type HistoryEntry,
  headerOf,
  inverse,
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
import {
  defineTables,
  type RecordRow,
  TABLE_NAMES,
  TABLES,
  type TableName,
  type Tables,
  tableOf,
} from './tables.js';

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

/** Characters of record text written with one statement: far below the largest packet the database takes. */
const MOST_AT_ONCE = 3_000_000;

const rowName = (kind: ListKind, key: string) => `${kind}/${key}`;

/**
 * Jobs in rows. Every write happens in a transaction that holds the job's row; what was read is kept by
 * sequence.
 */
export class JobStore {
  readonly tables: Tables;
  private readonly cache = new Map<string, StoredJob>();

  constructor(private readonly sequelize: Sequelize) {
    this.tables = defineTables(sequelize);
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
    for (const table of TABLE_NAMES) {
      const rows = await this.tables.records[table].findAll({
        where: { jobId: id },
        order: [['place', 'ASC']],
        raw: true,
        transaction,
      });
      for (const record of rows as unknown as RecordRow[]) {
        records
          .get(record.kind)
          ?.push(typeof record.doc === 'string' ? (JSON.parse(record.doc) as JobRecord) : record.doc);
        places.set(rowName(record.kind, record.id), record.place);
      }
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
    if (before)
      for (const table of [...TABLE_NAMES].reverse())
        await this.tables.records[table].destroy({ where: { jobId: job.id }, transaction });
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
        row(job.id, kind, { id: recordKey(kind, doc, place), place, version: sequence, doc }),
      ),
    );
    await this.write(rows, transaction);
    if (before)
      await this.tables.changes.create(
        { jobId: job.id, sequence, editId: null, deviceId: null, edit: null, takenAt: now, takeBack: null },
        { transaction },
      );
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
        for (const table of [...TABLE_NAMES].reverse())
          await this.tables.records[table].destroy({ where: { jobId: id }, transaction });
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
          row(next.id, kind, { id: key, place: placeOf(kind, key), version: sequence, doc: record }),
        );
    for (const { kind, key, doc } of moved)
      if (!upserts.has(rowName(kind, key)))
        upserts.set(
          rowName(kind, key),
          row(next.id, kind, { id: key, place: placeOf(kind, key), version: sequence, doc }),
        );
    await this.write([...upserts.values()], transaction);
    await this.removeRows(
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
    await this.tables.changes.create(
      {
        jobId: next.id,
        sequence,
        editId: edit.id,
        deviceId: edit.deviceId,
        edit,
        takenAt: now,
        takeBack: inverse(before.job, edit),
      },
      { transaction },
    );
    return { job: next, sequence, generation: before.generation, places, updatedAt: now };
  }

  /** To be called once the transaction of {@link apply} has ended well. */
  committed(stored: StoredJob): void {
    this.keep(stored);
  }

  /** The change an edit became, when it was applied before. */
  async sequenceOf(jobId: string, editId: string, transaction: Transaction): Promise<number | undefined> {
    const change = await this.tables.changes.findOne({
      where: { jobId, editId },
      attributes: ['sequence'],
      transaction,
    });
    return change?.get().sequence;
  }

  /** Changes after `since`, oldest first. */
  async changes(
    jobId: string,
    since: number,
    options: { transaction?: Transaction; limit?: number } = {},
  ): Promise<Change[]> {
    const rows = await this.tables.changes.findAll({
      where: { jobId, sequence: { [Op.gt]: since } },
      attributes: ['sequence', 'edit', 'takenAt'],
      order: [['sequence', 'ASC']],
      limit: options.limit ?? 1000,
      ...(options.transaction ? { transaction: options.transaction } : {}),
    });
    return rows.map((row) => {
      const { sequence, edit, takenAt } = row.get();
      return { sequence, at: instantOf(takenAt, edit as Edit | null), edit: edit as Change['edit'] };
    });
  }

  /** What was done, newest first, before a sequence; of one record alone when it is named. */
  async history(
    jobId: string,
    {
      before,
      limit,
      record,
    }: { before: number; limit: number; record?: { kind: string; id: string } | undefined },
  ): Promise<HistoryEntry[]> {
    const found: HistoryEntry[] = [];
    const own = (parts: EditPart[] | null) =>
      record && parts ? parts.filter((part) => part.kind === record.kind && part.id === record.id) : parts;
    for (let last = before; found.length < limit; ) {
      const rows = await this.tables.changes.findAll({
        where: { jobId, sequence: { [Op.lt]: last } },
        order: [['sequence', 'DESC']],
        limit: HISTORY_AT_ONCE,
      });
      for (const row of rows) {
        const { sequence, deviceId, takenAt, takeBack } = row.get();
        const edit = row.get().edit as Edit | null;
        const parts = own(edit?.parts ?? null);
        if (parts?.length === 0 || found.length === limit) continue;
        const back = own((takeBack as EditPart[] | null) ?? null);
        found.push({
          sequence,
          at: instantOf(takenAt, edit),
          deviceId,
          label: edit?.label ?? '',
          parts,
          undo: back,
        });
      }
      if (rows.length < HISTORY_AT_ONCE) break;
      last = rows.at(-1)?.get().sequence ?? 0;
    }
    return found;
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

  private async write(rows: readonly RecordRow[], transaction: Transaction): Promise<void> {
    for (const table of TABLE_NAMES) {
      const own = rows.filter((entry) => tableOf(entry.kind) === table);
      if (own.length === 0) continue;
      const fields = Object.keys(TABLES[table].references);
      for (const some of inBunches(own))
        await this.tables.records[table].bulkCreate(
          some.map((entry) => ({
            ...entry,
            ...Object.fromEntries(fields.map((field) => [field, entry.doc[field]])),
          })),
          { transaction, updateOnDuplicate: ['place', 'version', 'doc', ...fields] },
        );
    }
  }

  private async removeRows(
    jobId: string,
    gone: readonly { kind: ListKind; key: string }[],
    transaction: Transaction,
  ): Promise<void> {
    for (const table of [...TABLE_NAMES].reverse() as TableName[]) {
      const own = gone.filter((change) => tableOf(change.kind) === table);
      if (own.length === 0) continue;
      await this.tables.records[table].destroy({
        where: { jobId, [Op.or]: own.map(({ kind, key }) => ({ kind, id: key })) },
        transaction,
      });
    }
  }
}

/** How a whole job goes over the line. Quick before small: it is packed anew after each change. */
export type Packing = 'br' | 'gzip' | 'identity';
const PACK: Record<Packing, (bytes: Buffer) => Promise<Buffer>> = {
  br: (bytes) => promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }),
  gzip: (bytes) => promisify(gzip)(bytes, { level: 5 }),
  identity: async (bytes) => bytes,
};

const MOST_TRIES = 5;

/** Two transactions waited for each other, or for too long: neither is at fault. */
const isKnot = (error: unknown) =>
  [1205, 1213].includes(Number((error as { original?: { errno?: number } }).original?.errno));

/** Rows of an edit read at once when the history is asked for. */
const HISTORY_AT_ONCE = 500;

/** When a change was taken; those of earlier versions know only when they were made. */
const instantOf = (takenAt: Date | null, edit: Edit | null): string =>
  takenAt?.toISOString() ?? edit?.at ?? new Date(0).toISOString();

/** The rows in bunches that one statement can carry. */
function* inBunches(rows: readonly RecordRow[]): Generator<RecordRow[]> {
  let bunch: RecordRow[] = [];
  let size = 0;
  for (const entry of rows) {
    const own = JSON.stringify(entry.doc).length;
    if (bunch.length > 0 && (size + own > MOST_AT_ONCE || bunch.length >= 1000)) {
      yield bunch;
      [bunch, size] = [[], 0];
    }
    bunch.push(entry);
    size += own;
  }
  if (bunch.length > 0) yield bunch;
}

function row(jobId: string, kind: ListKind, at: Omit<RecordRow, 'jobId' | 'kind' | 'ownerId'>): RecordRow {
  return { ...at, jobId, kind, ownerId: null };
}

/**
 * Where each record of the next job is kept. Places only have to rise along the list, so a record added at
 * the end or taken out moves nothing; one put back in the middle renumbers its list.
 */
function placesAfter(
  before: StoredJob,
  next: Job,
): { places: Map<string, number>; moved: { kind: ListKind; key: string; doc: JobRecord }[] } {
  const places = new Map(before.places);
  const moved: { kind: ListKind; key: string; doc: JobRecord }[] = [];
  for (const kind of LIST_KINDS) {
    const list = listOf(next, kind) ?? [];
    if (listOf(before.job, kind) === list) continue;
    const keys = list.map((record, index) => recordKey(kind, record, index));
    const kept = new Set(keys);
    (listOf(before.job, kind) ?? []).forEach((record, index) => {
      const key = recordKey(kind, record, index);
      if (!kept.has(key)) places.delete(rowName(kind, key));
    });
    let last = -1;
    let rising = true;
    for (const key of keys) {
      const place = places.get(rowName(kind, key)) ?? last + 1;
      if (place <= last) rising = false;
      places.set(rowName(kind, key), place);
      last = Math.max(last, place);
    }
    if (rising) continue;
    keys.forEach((key, index) => {
      if (places.get(rowName(kind, key)) === index) return;
      places.set(rowName(kind, key), index);
      moved.push({ kind, key, doc: list[index] as JobRecord });
    });
  }
  return { places, moved };
}
