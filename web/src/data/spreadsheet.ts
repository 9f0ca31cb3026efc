/** One sheet of a workbook: rows of the same columns, the first row's keys at its head. */
export interface Sheet {
  name: string;
  rows: readonly Record<string, string | number>[];
}

/**
 * A workbook with a sheet for each table. The program that writes it is loaded when the first is asked for.
 */
export async function workbookOf(sheets: readonly Sheet[]): Promise<ArrayBuffer> {
  const { default: exceljs } = await import('exceljs');
  const workbook = new exceljs.Workbook();
  for (const { name, rows } of sheets) {
    const sheet = workbook.addWorksheet(name);
    const columns = Object.keys(rows[0] ?? {});
    sheet.columns = columns.map((key) => ({
      header: key,
      key,
      width: Math.max(10, ...rows.map((row) => String(row[key] ?? '').length + 2)),
    }));
    sheet.addRows(rows.map((row) => ({ ...row })));
    sheet.getRow(1).font = { bold: true };
    sheet.views = [{ state: 'frozen', ySplit: 1 }];
  }
  return (await workbook.xlsx.writeBuffer()) as ArrayBuffer;
}
