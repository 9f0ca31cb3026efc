type Cell = string | number | null;

const GAP = '  ';
/** A column is not made narrower than this: a word would not fit. */
const LEAST = 16;

/**
 * A plain table for people: columns as wide as their widest cell, numbers to the right. Where that is wider
 * than the terminal, the widest column is wrapped.
 */
export function table(head: readonly string[], rows: readonly (readonly Cell[])[], width: number): string {
  const cells = rows.map((row) => row.map((cell) => (cell === null ? '-' : String(cell))));
  const widths = head.map((title, column) =>
    Math.max(title.length, ...cells.map((row) => row[column]?.length ?? 0)),
  );
  const over = widths.reduce((sum, own) => sum + own, 0) + GAP.length * (widths.length - 1) - width;
  const widest = widths.indexOf(Math.max(...widths));
  if (over > 0) widths[widest] = Math.max(LEAST, (widths[widest] ?? 0) - over);
  const lines = (row: readonly string[], source: readonly Cell[]) => {
    const pieces = row.map((cell, column) => wrapped(cell, widths[column] ?? 0));
    const height = Math.max(...pieces.map((own) => own.length));
    return Array.from({ length: height }, (_, at) =>
      pieces
        .map((own, column) => {
          const text = own[at] ?? '';
          const room = widths[column] ?? 0;
          return typeof source[column] === 'number' ? text.padStart(room) : text.padEnd(room);
        })
        .join(GAP)
        .trimEnd(),
    );
  };
  return [
    ...lines(head, []),
    ...lines(
      widths.map((own) => '-'.repeat(own)),
      [],
    ),
    ...cells.flatMap((row, index) => lines(row, rows[index] ?? [])),
  ].join('\n');
}

/** Lines of at most `width`, broken between words; a word that is longer is cut. */
function wrapped(text: string, width: number): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(' ')) {
    let rest = word;
    if (line !== '' && line.length + 1 + rest.length > width) {
      lines.push(line);
      line = '';
    }
    while (rest.length > width) {
      lines.push(rest.slice(0, width));
      rest = rest.slice(width);
    }
    line = line === '' ? rest : `${line} ${rest}`;
  }
  return [...lines, line];
}

/** The same text with no line wider than the terminal; what fits stays as it is. */
export function fitted(text: string, width: number): string {
  return text
    .split('\n')
    .flatMap((line) => (line.length > width ? wrapped(line, width) : [line]))
    .join('\n');
}
