import type { z } from 'zod';
import { RECORD_SCHEMAS } from '../job/record-schemas.js';
import { CATALOGUE_KINDS, type CatalogueList } from './kinds.js';

/**
 * Records as rows of a table and back: a column for each field, lists of words joined by `|`, what has parts
 * of its own (terminals, channels, a body) as JSON in its cell. An empty cell is a field that is absent.
 *
 * @example catalogueRows([{ id: 'a', practices: ['us', 'ca'] }]) // [{ id: 'a', practices: 'us|ca' }]
 */
export function catalogueRows(records: readonly object[]): Record<string, string | number>[] {
  const columns = [...new Set(records.flatMap((record) => Object.keys(record)))];
  return records.map((record) =>
    Object.fromEntries(
      columns.map((column) => [column, cellOf((record as Record<string, unknown>)[column])] as const),
    ),
  );
}

/** A text that is there and empty, apart from one that is absent. */
const EMPTY_TEXT = '""';

function cellOf(value: unknown): string | number {
  if (value === undefined || value === null) return '';
  if (typeof value === 'string') return value === '' ? EMPTY_TEXT : value;
  if (typeof value === 'number') return value;
  if (
    Array.isArray(value) &&
    value.length > 0 &&
    value.every((item) => typeof item === 'string' && !item.includes('|'))
  )
    return value.join('|');
  return JSON.stringify(value);
}

/** What cannot be read as its field's kind stays text, so that the check of the records names it. */
export function recordsFromRows(
  list: CatalogueList,
  rows: readonly Record<string, string>[],
): Record<string, unknown>[] {
  return rows.map((row) =>
    Object.fromEntries(
      Object.entries(row).flatMap(([column, cell]) =>
        cell.trim() === '' ? [] : [[column, valueOfCell(list, column, cell)] as const],
      ),
    ),
  );
}

function valueOfCell(list: CatalogueList, column: string, cell: string): unknown {
  const kind = fieldKind(list, column);
  if (kind === 'string' || kind === 'enum') return cell === EMPTY_TEXT ? '' : cell;
  if (kind === 'array' && !cell.trimStart().startsWith('[')) return cell.split('|');
  try {
    return JSON.parse(
      cell.trim().toLowerCase() === 'true' || cell.trim().toLowerCase() === 'false'
        ? cell.trim().toLowerCase()
        : cell,
    );
  } catch {
    return cell;
  }
}

/** The kind of a field by its schema; undefined for fields nobody knows. */
function fieldKind(list: CatalogueList, column: string): string | undefined {
  const schema = RECORD_SCHEMAS[CATALOGUE_KINDS[list]] as z.ZodObject;
  let field = schema.shape[column] as z.ZodType | undefined;
  while (field && (field.def.type === 'optional' || field.def.type === 'nullable'))
    field = (field as z.ZodOptional<z.ZodType>).unwrap();
  return field?.def.type;
}
