import { type Box, type BoxPower, hinderText, provingHinders } from '@inventario/core';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { paths } from '../paths.js';

/** What keeps the box from being proved now. */
export function ProofHinders({ box, power }: { box: Box; power: BoxPower }) {
  const { job } = useJob();
  const hindered = provingHinders(power);
  if (hindered.length === 0) return null;
  return (
    <div>
      <p className="font-semibold">Before it can be proved:</p>
      <ul className="list-disc pl-5">
        {hindered.map((hinder) => (
          <li key={`${hinder.code}${hinder.circuitId}${hinder.readingId}`}>{hinderText(hinder, box, job)}</li>
        ))}
      </ul>
      <Link className="flex min-h-11 items-center underline" to={paths.panel(job.id)}>
        To the panel
      </Link>
    </div>
  );
}
