import { type BoxAssessment, ruleFigures } from '@inventario/core';
import { Link } from 'react-router';
import { useJob } from '../data/job-context.js';
import { paths } from './paths.js';

/** Figures the job set itself and this result rests on, each with its note. */
export function OwnFigures({ own }: { own: BoxAssessment['own'] }) {
  const { job } = useJob();
  if (own.length === 0) return null;
  return (
    <ul className="rounded-md border border-ink bg-sheet p-2 text-sm">
      {own.map((figure) => (
        <li key={figure.id}>
          <Link className="underline" to={`${paths.figures(job.id)}#${figure.id}`}>
            {figure.name}
          </Link>
          : of this job’s own. {figure.note}
        </li>
      ))}
    </ul>
  );
}

/** The job's own figures of a group, for results that carry none of their own. */
export function OwnFiguresOf({ groups }: { groups: readonly ('loads' | 'conductor')[] }) {
  const { job } = useJob();
  const own = ruleFigures(job).flatMap(({ id, name, unit, group, own: set }) =>
    set && (groups as readonly string[]).includes(group)
      ? [{ id, name, unit, value: set.value, note: set.note }]
      : [],
  );
  return <OwnFigures own={own} />;
}
