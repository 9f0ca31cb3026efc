import { type JobFigure, putPart, removePart, ruleFigures, ruleNote } from '@inventario/core';
import { Pencil, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { Bench } from '../../parts/bench.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
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
  const { job, apply } = useJob();
  const [changing, setChanging] = useState<JobFigure | null>(null);
  const figures = ruleFigures(job);
  const own = figures.filter((figure) => figure.own);
  return (
    <Bench
      title="Figures"
      glance={own.length === 0 ? 'All figures are the usual ones' : `${own.length} of this job’s own`}
      reckoning={
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
      }
    >
      <h1 className="mb-1 text-xl font-bold">Where the figures come from</h1>
      <p className="mb-3">
        Change one only where the local code or the maker says so; the note is shown wherever it matters.
      </p>
      {(Object.keys(GROUPS) as JobFigure['group'][]).map((group) => {
        const rows = figures.filter((figure) => figure.group === group);
        if (rows.length === 0) return null;
        return (
          <section key={group} aria-label={GROUPS[group]} className="mb-5">
            <h2 className="mb-1 font-bold">{GROUPS[group]}</h2>
            <ul>
              {rows.map((figure) => (
                <li
                  key={figure.id}
                  id={figure.id}
                  className="flex flex-wrap items-center gap-x-4 border-t border-rule py-1 target:bg-sheet"
                >
                  <p className="min-w-48 flex-1">
                    {figure.name}
                    <span className="block text-sm text-soft">{figure.source}</span>
                    {figure.own && (
                      <span className="block text-sm font-semibold">
                        Of this job: {figure.own.note || 'no note'}
                      </span>
                    )}
                  </p>
                  <p className="text-right tabular-nums">
                    <span className={classes(figure.own && 'text-soft line-through')}>
                      <Value figure={figure} value={figure.value} />
                    </span>
                    {figure.own && (
                      <strong className="block">
                        <Value figure={figure} value={figure.own.value} />
                      </strong>
                    )}
                  </p>
                  {figure.setOn ? (
                    <span className="w-28 text-sm text-soft">{SET_ON[figure.setOn]}</span>
                  ) : (
                    <Button kind="quiet" icon={Pencil} iconOnly onClick={() => setChanging(figure)}>
                      Set our own: {figure.name}
                    </Button>
                  )}
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
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      {changing && (
        <FigureDialog
          figure={changing}
          onClose={() => setChanging(null)}
          onKeep={(value, note) => {
            const kept = apply(
              [putPart('override', changing.id, { figure: changing.id, value, note })],
              `Own figure: ${changing.name}`,
            );
            if (kept) setChanging(null);
          }}
        />
      )}
    </Bench>
  );
}

function Value({ figure, value }: { figure: JobFigure; value: number }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { shown, unit } = shownAs(figure.unit, value, units);
  return `${shown} ${unit}`.trim();
}
