/** One sheet of a workbook: rows of the same columns, the first row's keys at its head. */
export interface Sheet {
  name: string;
  rows: readonly Record<string, string | number>[];
}

const NARROWEST = 10;

/**
 * A workbook with a sheet for each table. The program that writes it is loaded when the first is asked for,
 * and is small enough to be kept on the device with the rest.
 */
export async function workbookOf(sheets: readonly Sheet[]): Promise<Blob> {
  const { default: writeXlsxFile } = await import('write-excel-file/universal');
  return writeXlsxFile(sheets.map(sheetOf)).toBlob();
}

function sheetOf({ name, rows }: Sheet) {
  const columns = Object.keys(rows[0] ?? {});
  const longest = (key: string) =>
    Math.max(NARROWEST, ...rows.map((row) => String(row[key] ?? '').length + 2));
  return {
    sheet: name,
    stickyRowsCount: 1,
    columns: columns.map((key) => ({ width: longest(key) })),
    data: [
      columns.map((value) => ({ value, fontWeight: 'bold' as const })),
      ...rows.map((row) => columns.map((key) => row[key] ?? '')),
    ],
  };
}
