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

export function downloadCalendar(job: Job, content: string): void {
  save(`${fileName(job)}-rules.ics`, 'text/calendar;charset=utf-8', content);
}

export function downloadJson(job: Job, what: string, document: unknown): void {
  save(`${fileName(job)}-${what}.json`, 'application/json', `${JSON.stringify(document, null, 1)}\n`);
}

/**
 * The first drawing of an element as a file of its own: what the page gives it in tones and type is written
 * into it.
 */
export function downloadSvg(job: Job, what: string, within: Element | null): void {
  const drawing = within?.querySelector('svg.board');
  if (!drawing) return;
  save(`${fileName(job)}-${fileName({ ...job, name: what })}.svg`, 'image/svg+xml', svgText(drawing));
}

/** A drawing that stands by itself. */
export function svgText(drawing: Element): string {
  const style = getComputedStyle(drawing);
  const copy = drawing.cloneNode(true) as Element;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('font-family', 'sans-serif');
  copy.setAttribute('color', style.getPropertyValue('--ink').trim() || '#000');
  copy.setAttribute('style', `background:${style.getPropertyValue('--board').trim() || '#888'}`);
  return copy.outerHTML.replaceAll(/var\((--[a-z-]+)\)/g, (whole, name: string) => {
    const value = style.getPropertyValue(name).trim();
    return value === '' ? whole : value.replaceAll('"', "'");
  });
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
