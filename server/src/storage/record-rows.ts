import type { ListKind } from '@inventario/core';
import { Op, type Transaction } from 'sequelize';
import { type RecordRow, TABLE_NAMES, TABLES, type TableName, type Tables, tableOf } from './tables.js';

/** Characters of record text written with one statement: far below the largest packet the database takes. */
const MOST_AT_ONCE = 3_000_000;

/** The records of jobs, each in the table of its kind. Parents are written before children. */
export class RecordRows {
  constructor(private readonly tables: Tables['records']) {}

  /** Everything of a job, each list in its order. */
  async of(jobId: string, transaction: Transaction): Promise<RecordRow[]> {
    const found: RecordRow[] = [];
    for (const table of TABLE_NAMES) {
      const rows = await this.tables[table].findAll({
        where: { jobId },
        order: [['place', 'ASC']],
        raw: true,
        transaction,
      });
      for (const row of rows as unknown as RecordRow[]) found.push(row);
    }
    return found;
  }

  async write(rows: readonly RecordRow[], transaction: Transaction): Promise<void> {
    for (const table of TABLE_NAMES) {
      const own = rows.filter((entry) => tableOf(entry.kind) === table);
      if (own.length === 0) continue;
      const fields = Object.keys(TABLES[table].references);
      for (const some of inBunches(own))
        await this.tables[table].bulkCreate(
          some.map((entry) => ({
            ...entry,
            ...Object.fromEntries(fields.map((field) => [field, entry.doc[field]])),
          })),
          { transaction, updateOnDuplicate: ['place', 'version', 'doc', ...fields] },
        );
    }
  }

  async remove(
    jobId: string,
    gone: readonly { kind: ListKind; key: string }[],
    transaction: Transaction,
  ): Promise<void> {
    for (const table of [...TABLE_NAMES].reverse() as TableName[]) {
      const own = gone.filter((change) => tableOf(change.kind) === table);
      if (own.length === 0) continue;
      await this.tables[table].destroy({
        where: { jobId, [Op.or]: own.map(({ kind, key }) => ({ kind, id: key })) },
        transaction,
      });
    }
  }

  async removeAll(jobId: string, transaction: Transaction): Promise<void> {
    for (const table of [...TABLE_NAMES].reverse())
      await this.tables[table].destroy({ where: { jobId }, transaction });
  }
}

export function recordRow(
  jobId: string,
  kind: ListKind,
  at: Omit<RecordRow, 'jobId' | 'kind' | 'ownerId'>,
): RecordRow {
  return { ...at, jobId, kind, ownerId: null };
}

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
