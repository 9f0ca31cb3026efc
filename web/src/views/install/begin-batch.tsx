import { batchEvent, putPart, type SheetBatch } from '@inventario/core';
import { Link } from 'react-router';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { paths } from '../../parts/paths.js';
import { Button, buttonClass } from '../../ui/button.js';

export function BeginBatch({ batch }: { batch: SheetBatch }) {
  const { job, apply } = useJob();
  const begin = () => {
    const id = newId();
    apply([putPart('event', id, batchEvent(batch.boxIds, { id, at: instant() }))], 'A batch is begun');
  };
  return (
    <div className="flex flex-col gap-2">
      <Button kind="main" className="min-h-14 text-lg" onClick={begin}>
        Begin this batch
      </Button>
      <Link className={buttonClass('plain')} to={paths.day(job.id)}>
        Another one first: the day
      </Link>
    </div>
  );
}
