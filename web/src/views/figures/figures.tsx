import { type JobFigure, putPart, removePart, ruleFigures, ruleNote } from '@inventario/core';
import { Pencil, Undo2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { Bench } from '../../parts/bench.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { DataTable, type TableColumn } from '../../ui/data-table.js';
import { FigureDialog } from './figure-dialog.js';
import { shownAs } from './shown-as.js';

const GROUPS: Record<JobFigure['group'], string> = {
  fill: 'Box fill',
  depth: 'Depth',
  packing: 'Packing',
  loads: 'Loads',
  conductor: 'Conductor and breaker',
  boxes: 'Standard boxes',
  bodies: 'Devices as found',
};

const SET_ON: Record<NonNullable<JobFigure['setOn']>, string> = {
  load: 'set on the load',
  enclosure: 'read off the box',
  device: 'by its data sheet',
};

/**
 * Where does it come from? Every figure the rules rest on, with its source; a job can set its own, with a
 * note.
 */
export function FiguresView() {
  const { job, attempt } = useJob();
  const [changing, setChanging] = useState<JobFigure | null>(null);
  const figures = ruleFigures(job);
  const own = figures.filter((figure) => figure.own);
  return (
    <Bench
      title="Figures"
      glance={own.length === 0 ? 'All figures are the usual ones' : `${own.length} of this job’s own`}
      reckoning={<OwnFiguresList own={own} />}
    >
      <h1 className="mb-1 text-xl font-bold">Where the figures come from</h1>
      <p className="mb-3">
        Change one only where the local code or the maker says so; the note is shown wherever it matters.
      </p>
      {(Object.keys(GROUPS) as JobFigure['group'][]).map((group) => (
        <FigureGroup
          key={group}
          title={GROUPS[group]}
          figures={figures.filter((figure) => figure.group === group)}
          onChange={setChanging}
        />
      ))}
      {changing && (
        <FigureDialog
          figure={changing}
          onClose={() => setChanging(null)}
          onKeep={(value, note) =>
            attempt(
              [putPart('override', changing.id, { figure: changing.id, value, note })],
              `Own figure: ${changing.name}`,
            )
          }
        />
      )}
    </Bench>
  );
}

function OwnFiguresList({ own }: { own: readonly JobFigure[] }) {
  const { job } = useJob();
  return (
    <div className="flex flex-col gap-3">
      <p>{own.length === 0 ? 'This job uses the usual figures throughout.' : 'This job sets its own:'}</p>
      <ul className="flex flex-col gap-2">
        {own.map((figure) => (
          <li key={figure.id}>
            <strong>{figure.name}</strong>: {figure.own?.note || 'no note'}
          </li>
        ))}
      </ul>
      <p className="text-sm text-soft">{ruleNote(job)}</p>
    </div>
  );
}

function FigureGroup({
  title,
  figures,
  onChange,
}: {
  title: string;
  figures: readonly JobFigure[];
  onChange: (figure: JobFigure) => void;
}) {
  const columns = useMemo<TableColumn<JobFigure>[]>(
    () => [
      {
        id: 'name',
        head: 'Figure and source',
        names: true,
        value: ({ name }) => name,
        cell: (figure) => <FigureName figure={figure} />,
      },
      {
        id: 'value',
        head: 'Value',
        align: 'right',
        value: ({ own, value }) => own?.value ?? value,
        className: 'w-32',
        cell: (figure) => <Values figure={figure} />,
      },
      {
        id: 'change',
        head: 'Change',
        hideHead: true,
        align: 'right',
        className: 'w-28',
        cell: (figure) => <Change figure={figure} onChange={onChange} />,
      },
    ],
    [onChange],
  );
  if (figures.length === 0) return null;
  return (
    <section aria-label={title} className="mb-5 max-w-4xl">
      <h2 className="font-bold">{title}</h2>
      <DataTable label={title} rows={figures} columns={columns} idOf={({ id }) => id} />
    </section>
  );
}

function FigureName({ figure: { name, source, own } }: { figure: JobFigure }) {
  return (
    <>
      {name}
      <span className="block text-sm text-soft">{source}</span>
      {own && <span className="block text-sm font-semibold">Of this job: {own.note || 'no note'}</span>}
    </>
  );
}

function Values({ figure }: { figure: JobFigure }) {
  return (
    <>
      <span className={classes(figure.own && 'text-soft line-through')}>
        <Value figure={figure} value={figure.value} />
      </span>
      {figure.own && (
        <strong className="block">
          <Value figure={figure} value={figure.own.value} />
        </strong>
      )}
    </>
  );
}

function Change({ figure, onChange }: { figure: JobFigure; onChange: (figure: JobFigure) => void }) {
  const { apply } = useJob();
  if (figure.setOn) return <span className="text-sm text-soft">{SET_ON[figure.setOn]}</span>;
  return (
    <span className="flex justify-end">
      <Button kind="quiet" icon={Pencil} iconOnly onClick={() => onChange(figure)}>
        Set our own: {figure.name}
      </Button>
      {figure.own && (
        <Button
          kind="quiet"
          icon={Undo2}
          iconOnly
          onClick={() => apply([removePart('override', figure.id)], 'Back to the usual figure')}
        >
          Back to the usual figure: {figure.name}
        </Button>
      )}
    </span>
  );
}

function Value({ figure, value }: { figure: JobFigure; value: number }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { shown, unit } = shownAs(figure.unit, value, units);
  return `${shown} ${unit}`.trim();
}
