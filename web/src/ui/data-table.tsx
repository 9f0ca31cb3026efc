import {
  type ColumnDef,
  columnFilteringFeature,
  createFilteredRowModel,
  createSortedRowModel,
  globalFilteringFeature,
  rowSortingFeature,
  sortFn_alphanumeric,
  sortFn_basic,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { type ReactNode, useMemo } from 'react';
import { classes } from './classes.js';

const features = tableFeatures({
  rowSortingFeature,
  columnFilteringFeature,
  globalFilteringFeature,
  filteredRowModel: createFilteredRowModel(),
  sortedRowModel: createSortedRowModel(),
  sortFns: { alphanumeric: sortFn_alphanumeric, basic: sortFn_basic },
});

/** One column: what it is called, what a row has in it, and how that is shown. */
export interface TableColumn<Row> {
  id: string;
  head: string;
  /** What it is sorted by; absent: the column cannot be sorted by. */
  value?: (row: Row) => string | number;
  cell: (row: Row) => ReactNode;
  align?: 'right';
  /** The cell that names its row. */
  names?: boolean;
  /** The heading is for those who do not see the column's content. */
  hideHead?: boolean;
  className?: string;
}

/** Every word of what is sought, in any order. */
function hasWords(text: string, sought: string): boolean {
  const lower = text.toLowerCase();
  return sought
    .toLowerCase()
    .split(/\s+/)
    .every((word) => lower.includes(word));
}

/**
 * Rows that are sorted by a touch on a heading and found by words. As they come they stand in the order
 * given.
 * @param words what a row is found by, where `search` is used
 */
export function DataTable<Row extends object>({
  label,
  rows,
  columns,
  idOf,
  nameOf,
  search = '',
  words,
  rowClass,
  hideHeads,
  nothing,
}: {
  label: string;
  rows: readonly Row[];
  columns: readonly TableColumn<Row>[];
  idOf: (row: Row) => string;
  /** What a row is called where it is listed to somebody who does not see it. */
  nameOf?: (row: Row) => string;
  search?: string;
  words?: (row: Row) => string;
  rowClass?: (row: Row) => string | false;
  hideHeads?: boolean;
  /** Said where no row is left. */
  nothing?: string;
}) {
  const data = useMemo(() => [...rows], [rows]);
  const defs = useMemo(() => columns.map(columnDef), [columns]);
  const table = useTable({
    features,
    data,
    columns: defs,
    getRowId: idOf,
    state: { globalFilter: search },
    getColumnCanGlobalFilter: () => true,
    globalFilterFn: ({ original }, _, wanted) => hasWords(words?.(original as Row) ?? '', String(wanted)),
  });
  const shown = table.getRowModel().rows;
  return (
    <div className="relative overflow-x-auto print:overflow-visible">
      <table aria-label={label} className="w-full border-collapse">
        <thead className={classes(hideHeads && 'sr-only')}>
          <tr>
            {table.getHeaderGroups().flatMap(({ headers }) =>
              headers.map(({ column }) => {
                const own = columns.find(({ id }) => id === column.id);
                return own ? (
                  <Heading
                    key={column.id}
                    column={own}
                    sorted={column.getIsSorted()}
                    onSort={column.getToggleSortingHandler()}
                  />
                ) : null;
              }),
            )}
          </tr>
        </thead>
        <tbody>
          {nothing && shown.length === 0 && (
            <tr>
              <td colSpan={columns.length} className="text-soft">
                {nothing}
              </td>
            </tr>
          )}
          {shown.map(({ id, original }) => (
            <tr
              key={id}
              id={id}
              aria-label={nameOf?.(original)}
              className={classes('border-t border-rule target:bg-sheet', rowClass?.(original))}
            >
              {columns.map((column) => {
                const Cell = column.names ? 'th' : 'td';
                return (
                  <Cell
                    key={column.id}
                    {...(column.names ? { scope: 'row' as const } : {})}
                    className={classes(
                      'py-1 pr-3 align-middle font-normal',
                      column.align === 'right' ? 'text-right tabular-nums whitespace-nowrap' : 'text-left',
                      column.className,
                    )}
                  >
                    {column.cell(original)}
                  </Cell>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function columnDef<Row extends object>({ id, value }: TableColumn<Row>): ColumnDef<typeof features, Row> {
  return value
    ? { id, accessorFn: value, enableSorting: true, sortFn: 'alphanumeric', sortDescFirst: false }
    : { id, enableSorting: false };
}

const SORTED = { asc: 'ascending', desc: 'descending' } as const;

function Heading<Row>({
  column,
  sorted,
  onSort,
}: {
  column: TableColumn<Row>;
  sorted: false | 'asc' | 'desc';
  onSort: ((event: unknown) => void) | undefined;
}) {
  const Arrow = sorted === 'desc' ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      aria-sort={sorted ? SORTED[sorted] : undefined}
      className={classes(
        'pr-3 text-sm font-semibold text-soft',
        column.align === 'right' ? 'text-right' : 'text-left',
        column.className,
      )}
    >
      {column.value && !column.hideHead ? (
        <button
          type="button"
          onClick={onSort}
          className={classes(
            'inline-flex min-h-11 items-center gap-1 rounded-md whitespace-nowrap hover:text-ink',
            // The arrow stands where the column has no edge of its own.
            column.align === 'right' && 'flex-row-reverse',
          )}
        >
          {column.head}
          <Arrow aria-hidden className={classes('size-4', !sorted && 'invisible')} />
        </button>
      ) : (
        <span className={classes(column.hideHead && 'sr-only')}>{column.head}</span>
      )}
    </th>
  );
}
