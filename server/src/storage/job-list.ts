import type { JobSummary } from '@inventario/core';
import { Op, type WhereOptions } from 'sequelize';
import type { JobStore } from './job-store.js';
import type { Tables } from './tables.js';

export interface ListRequest {
  limit: number;
  /** The last job of the page before. */
  after?: string | undefined;
  /** Part of the name. */
  search?: string | undefined;
  order: 'touched' | 'name';
}

export interface JobPage {
  jobs: JobSummary[];
  /** The last job of this page, when there are more. */
  next: string | null;
}

/** Counts up when a summary says something else of the same job, so that those kept before are made anew. */
const FORM = 1;

/**
 * The jobs in pages. A summary is kept with the job until the next change, so that a list costs as many rows
 * as it shows. Null: `after` names no job.
 */
export class JobList {
  constructor(
    private readonly store: JobStore,
    private readonly tables: Tables,
    private readonly summarise: (job: NonNullable<Awaited<ReturnType<JobStore['read']>>>) => JobSummary,
  ) {}

  async page({ limit, after, search, order }: ListRequest): Promise<JobPage | null> {
    const { jobs } = this.tables;
    const conditions: WhereOptions[] = [{ removedAt: null }];
    if (search)
      conditions.push({
        name: { [Op.like]: `%${search.replaceAll(/[\\%_]/g, (letter) => `\\${letter}`)}%` },
      });
    if (after !== undefined) {
      const last = await jobs.findByPk(after, { attributes: ['id', 'name', 'updatedAt'] });
      if (!last) return null;
      const { id, name, updatedAt } = last.get();
      conditions.push(
        order === 'name'
          ? { [Op.or]: [{ name: { [Op.gt]: name } }, { name, id: { [Op.gt]: id } }] }
          : { [Op.or]: [{ updatedAt: { [Op.lt]: updatedAt } }, { updatedAt, id: { [Op.gt]: id } }] },
      );
    }
    const rows = await jobs.findAll({
      attributes: ['id', 'sequence', 'generation', 'updatedAt', 'summary', 'summaryOf'],
      where: { [Op.and]: conditions },
      order: [order === 'name' ? ['name', 'ASC'] : ['updatedAt', 'DESC'], ['id', 'ASC']],
      limit: limit + 1,
    });
    const summaries: JobSummary[] = [];
    for (const row of rows.slice(0, limit)) {
      const { id, sequence, generation, summary, summaryOf } = row.get();
      if (summary && summaryOf === formOf(generation, sequence)) summaries.push(summary as JobSummary);
      else {
        const fresh = await this.refresh(id);
        if (fresh) summaries.push(fresh);
      }
    }
    return { jobs: summaries, next: rows.length > limit ? (rows[limit - 1]?.get().id ?? null) : null };
  }

  private async refresh(id: string): Promise<JobSummary | undefined> {
    const stored = await this.store.read(id);
    if (!stored) return undefined;
    const summary = this.summarise(stored);
    const { generation, sequence } = stored;
    await this.tables.jobs.update(
      { summary, summaryOf: formOf(generation, sequence) },
      { where: { id, generation, sequence } },
    );
    return summary;
  }
}

const formOf = (generation: string, sequence: number) => `${FORM}:${generation}:${sequence}`;
