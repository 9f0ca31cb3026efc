import {
  type Change,
  type Edit,
  type EditPart,
  type HistoryEntry,
  inverse,
  type Job,
} from '@inventario/core';
import { Op, type Transaction } from 'sequelize';
import type { Tables } from './tables.js';

/** What was done to jobs, change by change. */
export class ChangeLog {
  constructor(private readonly changes: Tables['changes']) {}

  /** An edit that was applied to the job as it was `before`. */
  async applied(before: Job, edit: Edit, at: LoggedAt, transaction: Transaction): Promise<void> {
    await this.changes.create(
      {
        jobId: before.id,
        ...at,
        editId: edit.id,
        deviceId: edit.deviceId,
        edit,
        takeBack: inverse(before, edit),
      },
      { transaction },
    );
  }

  /** The job became another as a whole. */
  async replaced(jobId: string, at: LoggedAt, transaction: Transaction): Promise<void> {
    await this.changes.create(
      { jobId, ...at, editId: null, deviceId: null, edit: null, takeBack: null },
      { transaction },
    );
  }

  /** The change an edit became, when it was applied before. */
  async sequenceOf(jobId: string, editId: string, transaction: Transaction): Promise<number | undefined> {
    const change = await this.changes.findOne({
      where: { jobId, editId },
      attributes: ['sequence'],
      transaction,
    });
    return change?.get().sequence;
  }

  /** Changes after `since`, oldest first. */
  async since(
    jobId: string,
    since: number,
    options: { transaction?: Transaction; limit?: number } = {},
  ): Promise<Change[]> {
    const rows = await this.changes.findAll({
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
      const rows = await this.changes.findAll({
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
}

interface LoggedAt {
  sequence: number;
  takenAt: Date;
}

/** Rows of an edit read at once when the history is asked for. */
const HISTORY_AT_ONCE = 500;

/** When a change was taken; those of earlier versions know only when they were made. */
const instantOf = (takenAt: Date | null, edit: Edit | null): string =>
  takenAt?.toISOString() ?? edit?.at ?? new Date(0).toISOString();
