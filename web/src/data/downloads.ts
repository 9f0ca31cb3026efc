import type { Job } from '@inventario/core';

function save(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

const fileName = (job: Job) =>
  job.name
    .toLowerCase()
    .normalize('NFKD')
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '') || 'job';

/** The job as it is shown here, unsent edits included. */
export function downloadJob(job: Job): void {
  save(`${fileName(job)}.inventario.json`, 'application/json', `${JSON.stringify(job, null, 1)}\n`);
}

export async function downloadBoard(job: Job, rows: readonly Record<string, string>[]): Promise<void> {
  save(`${fileName(job)}-board.csv`, 'text/csv;charset=utf-8', await csvOf(rows));
}

/** A table as CSV. Cells that a spreadsheet would take for a formula are made harmless. */
export async function csvOf(rows: readonly Record<string, string>[]): Promise<string> {
  const { default: papaparse } = await import('papaparse');
  return `\uFEFF${papaparse.unparse([...rows], { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}
