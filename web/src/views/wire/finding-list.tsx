import type { Box } from '@inventario/core';
import { CircleAlert, CircleSlash2 } from 'lucide-react';
import { Link } from 'react-router';
import type { WiringAnswer } from '../../data/engines.worker.js';
import { useJob } from '../../data/job-context.js';
import { paths } from '../../parts/paths.js';

type Finding = NonNullable<WiringAnswer['planned']>['findings'][number];

/** Why the plan is not ready, and where that is changed. */
export function FindingList({ box, findings }: { box: Box; findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  const sorted = [...findings].sort((a, b) => a.severity.localeCompare(b.severity));
  return (
    <ul aria-label="What is found" className="flex flex-col gap-1">
      {sorted.map((finding) => (
        <li
          key={`${finding.code}${finding.about.join()}${finding.position}`}
          className="flex items-start gap-2 rounded-md border border-edge bg-sheet p-2"
        >
          {finding.severity === 'error' ? (
            <CircleSlash2 aria-hidden className="mt-0.5 size-5 shrink-0" />
          ) : (
            <CircleAlert aria-hidden className="mt-0.5 size-5 shrink-0" />
          )}
          <p className="min-w-0 flex-1">
            <span className="sr-only">{finding.severity === 'error' ? 'Stops it: ' : 'Mind: '}</span>
            {finding.says}
          </p>
          <WayOut box={box} finding={finding} />
        </li>
      ))}
    </ul>
  );
}

/** Codes that the survey changes, by a label or what is recorded; most others another choice does. */
const BY_SURVEY: ReadonlySet<Finding['code']> = new Set([
  'labels-clash',
  'stop',
  'no-ground',
  'too-few-travelers',
  'made-neutral',
]);

function WayOut({ box, finding }: { box: Box; finding: Finding }) {
  const { job, known } = useJob();
  const link = (to: string, words: string) => (
    <Link className="flex min-h-11 shrink-0 items-center underline" to={to}>
      {words}
    </Link>
  );
  if (finding.code === 'no-connector') return link(paths.brief(job.id), 'Brief');
  const tested = finding.code === 'unidentified' || finding.code === 'contradicted';
  if (tested) return link(`${paths.box(job.id, box.id)}?test=1`, 'Test it');
  if (BY_SURVEY.has(finding.code)) return link(paths.box(job.id, box.id), 'Survey');
  const [about = ''] = finding.about;
  const other = known.boxes.get(about);
  const place = (other ?? box).positions.find(({ index, need }) =>
    other ? need?.smart : index === (finding.position ?? index),
  );
  return place ? link(paths.place(job.id, (other ?? box).id, place.index), 'Choose') : null;
}
