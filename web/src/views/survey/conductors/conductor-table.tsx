import { type Box, type Conductor, labelsOf, type Role, type Words } from '@inventario/core';
import { useMemo } from 'react';
import { inWords } from '../../../drawings/conductor-fan.js';
import { fanLayout } from '../../../drawings/fan-layout.js';
import { RoleMark } from '../../../drawings/role-mark.js';
import { Swatch } from '../../../drawings/strand.js';
import { DataTable, type TableColumn } from '../../../ui/data-table.js';

/** The same data as the drawing, for those who prefer a table. */
export function ConductorTable({
  box,
  words,
  held,
  onHold,
}: {
  box: Box;
  words: Words;
  held: string | null;
  onHold: (id: string) => void;
}) {
  const rows = useMemo(() => {
    const layout = fanLayout(box);
    const labels = labelsOf(box);
    return layout.columns.map((column): ConductorRow => {
      const { conductor, made } = column;
      const label = labels.get(conductor.id);
      return {
        conductor,
        made,
        cable: layout.groups.find(({ cableId }) => cableId === (conductor.cableId ?? null))?.label ?? '',
        role: label?.role ?? 'unknown',
        traveler: label?.traveler,
        says: inWords(column, label, words, layout),
      };
    });
  }, [box, words]);
  const columns = useMemo<TableColumn<ConductorRow>[]>(
    () => [
      {
        id: 'cable',
        head: 'Cable',
        value: ({ cable }) => cable,
        className: 'text-soft',
        cell: ({ cable }) => cable,
      },
      {
        id: 'conductor',
        head: 'Conductor',
        names: true,
        value: ({ conductor }) => conductor.colour,
        cell: ({ conductor, says }) => (
          <button
            type="button"
            aria-pressed={held === conductor.id}
            onClick={() => onHold(conductor.id)}
            className="flex min-h-12 w-full items-center gap-3 text-left"
          >
            <Swatch colour={conductor.colour} />
            <span className="min-w-0 flex-1">{says}</span>
          </button>
        ),
      },
      {
        id: 'role',
        head: 'Role',
        value: ({ role }) => words.roles[role],
        cell: ({ made, role, traveler }) => !made && <RoleMark role={role} traveler={traveler} size={28} />,
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
  role: Role;
  traveler: number | undefined;
  says: string;
}
