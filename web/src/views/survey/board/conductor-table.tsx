import {
  type Box,
  type Conductor,
  cableWords,
  conductorTitle,
  type Label,
  labelsOf,
  type Role,
  type Words,
} from '@inventario/core';
import { useMemo } from 'react';
import { useJob } from '../../../data/job-context.js';
import { endWords, roleWords } from '../../../drawings/conductor-words.js';
import { fanLayout } from '../../../drawings/fan-layout.js';
import { ColumnMark, type SaidRole } from '../../../drawings/fan-parts.js';
import { Swatch } from '../../../drawings/strand.js';
import { DataTable, type TableColumn } from '../../../ui/data-table.js';

/** The same data as the drawing, for those who prefer a table. */
export function ConductorTable({
  box,
  words,
  said,
  held,
  onHold,
}: {
  box: Box;
  words: Words;
  said: ReadonlyMap<string, SaidRole>;
  held: string | null;
  onHold: (id: string) => void;
}) {
  const { job, known } = useJob();
  const rows = useMemo(() => {
    const layout = fanLayout(box, known.devices);
    const labels = labelsOf(box);
    return layout.columns.map((column): ConductorRow => {
      const { conductor, made } = column;
      const label = labels.get(conductor.id);
      const reckoned = said.get(conductor.id);
      return {
        conductor,
        made,
        cable: conductor.cableId === undefined ? 'made here' : cableWords(box, conductor.cableId, job),
        title: conductorTitle(box, conductor.id, job),
        where: endWords(column, layout).join(' and ') || 'passes through',
        role: label?.role ?? reckoned?.role ?? 'unknown',
        label,
        said: reckoned,
        says: made ? 'made here' : roleWords(label, reckoned, words),
      };
    });
  }, [box, job, known.devices, said, words]);
  const columns = useMemo<TableColumn<ConductorRow>[]>(
    () => [
      { id: 'cable', head: 'Cable', value: ({ cable }) => cable, cell: ({ cable }) => cable },
      {
        id: 'conductor',
        head: 'Conductor',
        names: true,
        value: ({ title }) => title,
        cell: ({ conductor, title, where }) => (
          <button
            type="button"
            aria-pressed={held === conductor.id}
            onClick={() => onHold(conductor.id)}
            className="flex min-h-12 w-full items-center gap-3 text-left"
          >
            <Swatch colour={conductor.colour} />
            <span className="min-w-0 flex-1">
              {title}
              <span className="block text-sm text-soft">{where}</span>
            </span>
          </button>
        ),
      },
      {
        id: 'role',
        head: 'Role',
        value: ({ role }) => words.roles[role],
        cell: ({ made, label, said: reckoned, says }) =>
          !made && (
            <span className="flex items-center gap-2">
              <ColumnMark label={label} said={reckoned} clashes={false} />
              <span className="text-sm">{says}</span>
            </span>
          ),
      },
    ],
    [held, onHold, words],
  );
  return (
    <DataTable
      label="Conductors"
      rows={rows}
      columns={columns}
      idOf={({ conductor }) => conductor.id}
      rowClass={({ conductor }) => held === conductor.id && 'bg-well'}
    />
  );
}

interface ConductorRow {
  conductor: Conductor;
  /** Made in the box: it has no role of its own. */
  made: boolean;
  cable: string;
  title: string;
  where: string;
  role: Role;
  label: Label | undefined;
  said: SaidRole | undefined;
  says: string;
}
