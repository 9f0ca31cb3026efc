/** A plain table for people: columns as wide as their widest cell, numbers to the right. */
export function table(
  head: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): string {
  const cells = rows.map((row) => row.map((cell) => (cell === null ? '-' : String(cell))));
  const widths = head.map((title, column) =>
    Math.max(title.length, ...cells.map((row) => row[column]?.length ?? 0)),
  );
  const line = (row: readonly string[], source?: readonly (string | number | null)[]) =>
    row
      .map((cell, column) =>
        typeof source?.[column] === 'number'
          ? cell.padStart(widths[column] ?? 0)
          : cell.padEnd(widths[column] ?? 0),
      )
      .join('  ')
      .trimEnd();
  return [
    line(head),
    line(widths.map((width) => '-'.repeat(width))),
    ...cells.map((row, index) => line(row, rows[index])),
  ].join('\n');
}
