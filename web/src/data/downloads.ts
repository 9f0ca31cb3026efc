import type { Job, Problem } from '@inventario/core';
import { type Sheet, workbookOf } from './spreadsheet.js';

function save(name: string, type: string, content: string | Blob): void {
  const url = URL.createObjectURL(new Blob([content], { type }));
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

export async function downloadCsv(
  job: Job,
  what: string,
  rows: readonly Record<string, string | number>[],
): Promise<void> {
  save(`${fileName(job)}-${what}.csv`, 'text/csv;charset=utf-8', await csvOf(rows));
}

export async function downloadWorkbook(job: Job, what: string, sheets: readonly Sheet[]): Promise<void> {
  const type = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
  save(`${fileName(job)}-${what}.xlsx`, type, await workbookOf(sheets));
}

export function downloadJson(job: Job, what: string, document: unknown): void {
  save(`${fileName(job)}-${what}.json`, 'application/json', `${JSON.stringify(document, null, 1)}\n`);
}

/** A table as CSV. Cells that a spreadsheet would take for a formula are made harmless. */
export async function csvOf(rows: readonly Record<string, string | number>[]): Promise<string> {
  const { default: papaparse } = await import('papaparse');
  return `\uFEFF${papaparse.unparse([...rows], { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}

/** A table of text read from CSV, or what is wrong with it by its line. */
export async function rowsOfCsv(
  text: string,
): Promise<{ rows: Record<string, string>[]; problems: Problem[] }> {
  const { default: papaparse } = await import('papaparse');
  const { data, errors } = papaparse.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
  });
  if (data.length === 0)
    return { rows: [], problems: [{ path: '', message: 'holds no rows below its head', severity: 'error' }] };
  // One column needs no sign between columns.
  const problems = errors
    .filter((error) => error.type !== 'Delimiter')
    .map((error) => ({ path: `/${error.row ?? 0}`, message: error.message, severity: 'error' as const }));
  // An apostrophe was set before what a spreadsheet would take for a formula. Cells beyond the head come as a
  // list, and are one of the problems.
  const rows = data.map((row) =>
    Object.fromEntries(
      Object.entries(row).flatMap(([key, cell]) =>
        Array.isArray(cell) ? [] : [[key, (cell ?? '').replace(/^'(?=[=+\-@])/, '')]],
      ),
    ),
  );
  return { rows, problems };
}
