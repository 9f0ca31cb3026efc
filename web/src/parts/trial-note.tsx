import { deviceName, TRIAL_WORDS, type Trial } from '@inventario/core';
import { Link } from 'react-router';
import { useJob } from '../data/job-context.js';
import { paths } from './paths.js';

/** The one unit to buy and try before the rest, and where it teaches most. */
export function TrialNote({ trial }: { trial: Trial }) {
  const { job, known } = useJob();
  const device = known.devices.get(trial.deviceId);
  const [hardest] = trial.tests;
  return (
    <section aria-label="Trial unit" className="rounded-md border border-rule bg-sheet p-2 text-sm">
      <h2 className="font-bold">Buy one first</h2>
      <p>
        {deviceName(device)}, at{' '}
        <Link className="underline" to={paths.place(job.id, trial.boxId, trial.position)}>
          {known.boxes.get(trial.boxId)?.name}
        </Link>
        :{' '}
        {trial.places === 1
          ? 'its only place'
          : `of its ${trial.places} places the one where most is at stake`}
        {hardest && `, ${Math.round(hardest.share * 100)} % ${TRIAL_WORDS[hardest.what]}`}. What goes in and
        joins there does so elsewhere.
        {!trial.told && ' Not every conductor is labelled there yet.'}
      </p>
    </section>
  );
}
