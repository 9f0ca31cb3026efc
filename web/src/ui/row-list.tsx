import { Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useRef } from 'react';
import { Button } from './button.js';

/** Rows of a form that can be added to and taken out. */
export function RowList<Row>({
  title,
  rows,
  add,
  onRows,
  nameOf,
  children,
}: {
  title: string;
  rows: readonly Row[];
  add: { label: string; make: () => Row };
  onRows: (rows: Row[]) => void;
  nameOf: (row: Row, at: number) => string;
  children: (row: Row, set: (more: Partial<Row>) => void, at: number) => ReactNode;
}) {
  // Rows have no names of their own while they are typed: each keeps the number it came with, whatever is
  // taken out before it.
  const keys = useRef<number[]>([]);
  const serial = useRef(0);
  while (keys.current.length < rows.length) {
    serial.current += 1;
    keys.current.push(serial.current);
  }
  const takeOut = (at: number) => {
    keys.current.splice(at, 1);
    onRows(rows.filter((_, index) => index !== at));
  };
  return (
    <fieldset className="rounded-md border border-rule p-3">
      <legend className="px-1 font-bold">{title}</legend>
      <ul className="flex flex-col gap-3">
        {rows.map((row, at) => (
          <li
            key={keys.current[at]}
            aria-label={nameOf(row, at)}
            className="flex items-end gap-2 border-b border-rule pb-3 last:border-b-0"
          >
            <div className="grid min-w-0 flex-1 grid-cols-2 gap-2 sm:grid-cols-4">
              {children(
                row,
                (more) => onRows(rows.map((entry, index) => (index === at ? { ...entry, ...more } : entry))),
                at,
              )}
            </div>
            <Button kind="quiet" icon={Trash2} iconOnly onClick={() => takeOut(at)}>
              Delete {nameOf(row, at)}
            </Button>
          </li>
        ))}
      </ul>
      <Button icon={Plus} className="mt-2" onClick={() => onRows([...rows, add.make()])}>
        {add.label}
      </Button>
    </fieldset>
  );
}
