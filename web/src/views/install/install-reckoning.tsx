import { type BatchStands, boxesAside, durationText, plural } from '@inventario/core';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useDay } from '../../data/plan-answers.js';
import { paths } from '../../parts/paths.js';

/** What comes after this batch, what was put aside, and how to stop for the day. */
export function InstallReckoning({ stands }: { stands: BatchStands | null }) {
  const { job, known } = useJob();
  const day = useDay();
  const aside = [...boxesAside(job)];
  const open = stands?.boxes.filter(({ mounted, done }) => !mounted && done > 0) ?? [];
  return (
    <div className="flex flex-col gap-4">
      {day && day.sheet.batches.length > 0 && (
        <section>
          <h2 className="mb-1 font-bold">{stands ? 'After this batch' : 'The day'}</h2>
          <p>
            {plural(day.sheet.batches.length, 'batch', 'batches')}, {plural(day.sheet.panelTrips, 'trip')} to
            the panel, about {durationText(day.sheet.minutes)}.
          </p>
          <Link className="flex min-h-11 items-center underline" to={paths.day(job.id)}>
            The day
          </Link>
        </section>
      )}
      {aside.length > 0 && (
        <section>
          <h2 className="mb-1 font-bold">Put aside</h2>
          <ul>
            {aside.map(([boxId, note]) => (
              <li key={boxId}>
                <Link className="block min-h-11 underline" to={paths.wire(job.id, boxId)}>
                  {known.boxes.get(boxId)?.name}
                </Link>
                {note}
              </li>
            ))}
          </ul>
        </section>
      )}
      {open.length > 0 && (
        <section>
          <h2 className="mb-1 font-bold">To stop here</h2>
          <p>
            {plural(open.length, 'box is', 'boxes are')} begun:{' '}
            {open.map(({ boxId }) => known.boxes.get(boxId)?.name).join(', ')}. Cap every end, close or guard
            the box, lock the breaker off and say so. Everything is kept: on another day it goes on at the
            same step, after a new proof.
          </p>
        </section>
      )}
      <p className="text-sm text-soft">
        Off on this record is not dead: each box is proved before a hand goes in. Local codes and licensed
        practice rule.
      </p>
    </div>
  );
}
