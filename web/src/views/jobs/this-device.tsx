import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { keptStore } from '../../data/session/kept-store.js';
import { askToStay } from '../../data/session/shelf.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { Dialog } from '../../ui/dialog.js';

/** A job as this device keeps it. */
export type JobHere = Awaited<ReturnType<ReturnType<typeof keptStore>['jobs']>>[number];

/** What is kept here, how much room it takes, and whether the browser may clear it. */
export function ThisDevice({
  jobs,
  open,
  onClose,
}: {
  jobs: readonly JobHere[];
  open: boolean;
  onClose: () => void;
}) {
  const queries = useQueryClient();
  const room = useQuery({ queryKey: ['room'], queryFn: roomHere, enabled: open });
  const forget = async (job: JobHere) => {
    await keptStore().forget(job.id);
    await queries.invalidateQueries({ queryKey: ['kept-jobs'] });
    await room.refetch();
  };
  return (
    <Dialog title="This device" open={open} onClose={onClose}>
      <div className="flex flex-col gap-4">
        <p>{room.data ? roomWords(room.data) : 'Asking the browser …'}</p>
        {room.data && !room.data.stays && (
          <div className="flex flex-wrap items-center gap-3">
            <p className="min-w-0 flex-1">
              When room gets short, the browser may clear what is kept here. Send before you leave the house.
            </p>
            <Button onClick={() => void askToStay().then(() => room.refetch())}>
              Ask the browser to keep it
            </Button>
          </div>
        )}
        <ul className="flex flex-col gap-1">
          {jobs.length === 0 && <li>No job is kept here yet. One that was opened is.</li>}
          {jobs.map((job) => (
            <li key={job.id} className="flex items-center gap-3 border-t border-rule py-1">
              <Link className="min-w-0 flex-1 underline" to={paths.board(job.id)}>
                {job.name}
              </Link>
              {job.unsent > 0 || job.made ? (
                <span className="text-sm text-stop">
                  {job.made ? 'not on the server yet' : `${job.unsent} not sent yet`}
                </span>
              ) : (
                <Button
                  kind="quiet"
                  icon={Trash2}
                  iconOnly
                  title="Take it off this device"
                  onClick={() => void forget(job)}
                >
                  Take {job.name} off this device
                </Button>
              )}
            </li>
          ))}
        </ul>
      </div>
    </Dialog>
  );
}

interface Room {
  /** Bytes; null where the browser does not tell. */
  used: number | null;
  left: number | null;
  /** The browser will not clear it by itself. */
  stays: boolean;
}

async function roomHere(): Promise<Room> {
  const estimate = await navigator.storage?.estimate?.().catch(() => undefined);
  const stays = (await navigator.storage?.persisted?.().catch(() => false)) ?? false;
  const used = estimate?.usage ?? null;
  return { used, left: used !== null && estimate?.quota !== undefined ? estimate.quota - used : null, stays };
}

const megabytes = (bytes: number) =>
  bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;

function roomWords({ used, left, stays }: Room): string {
  const stay = stays ? ' The browser keeps it until you take it off.' : '';
  if (used === null) return `The browser does not tell how much room is used.${stay}`;
  const rest = left === null ? '' : `, ${megabytes(left)} left`;
  return `${megabytes(used)} used here${rest}.${stay}`;
}
