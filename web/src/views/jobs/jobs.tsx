import { type JobSummary, STAGES } from '@inventario/core';
import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, HardDriveDownload, Moon, Plus, Smartphone, Sun, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { api, isPassing } from '../../data/api.js';
import { lastPlace } from '../../data/last-place.js';
import { usePreferences } from '../../data/preferences.js';
import { keptStore } from '../../data/session/kept-store.js';
import { keepForLater, shelvedCatalogue } from '../../data/session/shelf.js';
import { useTitle } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { timeOf } from '../../parts/times.js';
import { Button, buttonClass } from '../../ui/button.js';
import { Empty } from '../../ui/empty.js';
import { TextField } from '../../ui/field.js';
import { Menu } from '../../ui/menu.js';
import { useSay } from '../../ui/say.js';
import { ImportDialog, type Refused } from './import-dialog.js';
import { NewJobDialog } from './new-job-dialog.js';
import { type JobHere, ThisDevice } from './this-device.js';

const isArchive = (file: File) => file.type === 'application/zip' || file.name.endsWith('.zip');
/** With fewer jobs than these nobody needs to search. */
const MANY = 3;

/** Jobs taken in, into the bin and back, and kept on this device; what hinders is said. */
function useJobsInAndOut() {
  const queries = useQueryClient();
  const say = useSay();
  const [refused, setRefused] = useState<Refused | null>(null);
  const changed = () => queries.invalidateQueries({ queryKey: ['jobs'] });

  const takeIn = async (chosen: File, existing?: 'replace' | 'copy') => {
    try {
      const { id } = isArchive(chosen)
        ? await api.takeInArchive(chosen, existing)
        : await api.takeIn(JSON.parse((await chosen.text()).replace(/^\uFEFF/, '')), existing);
      setRefused(null);
      say(`“${chosen.name}” is in as ${id}.`);
      await changed();
    } catch (error) {
      setRefused({ file: chosen, error });
    }
  };
  const remove = async (summary: JobSummary) => {
    await api.remove(summary.id);
    await changed();
    say(`${summary.name} is in the bin for 30 days.`, {
      label: 'Put it back',
      run: () => void api.bringBack(summary.id).then(changed),
    });
  };
  const keep = async (summary: JobSummary) => {
    await keepForLater(summary.id);
    await queries.invalidateQueries({ queryKey: ['kept-jobs'] });
    say(`${summary.name} is on this device: it opens without a network.`);
  };
  const failing = (work: Promise<void>) =>
    void work.catch((error: unknown) => say(error instanceof Error ? error.message : String(error)));
  return {
    refused,
    forgetRefused: () => setRefused(null),
    takeIn: (chosen: File, existing?: 'replace' | 'copy') => void takeIn(chosen, existing),
    remove: (summary: JobSummary) => failing(remove(summary)),
    keep: (summary: JobSummary) => failing(keep(summary)),
  };
}

/** Where was I? The job last touched stands first. */
export function JobsView() {
  useTitle('Jobs');
  const [search, setSearch] = useState('');
  const jobs = useInfiniteQuery({
    queryKey: ['jobs', search],
    queryFn: ({ pageParam }) => api.jobs(search, pageParam),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  });
  const here = useQuery({ queryKey: ['kept-jobs'], queryFn: () => keptStore().jobs() });
  const { refused, forgetRefused, takeIn, remove, keep } = useJobsInAndOut();
  // What a new job begins with is brought while there is a network.
  useEffect(() => void shelvedCatalogue().catch(() => {}), []);

  const listed = jobs.data?.pages.flatMap((page) => page.jobs) ?? [];
  const onlyHere = (here.data ?? []).filter(
    (job) => job.made || (jobs.isError && !jobs.data) || isLeftBehind(job, listed, jobs.isSuccess),
  );
  const keptIds = new Set((here.data ?? []).map((job) => job.id));
  return (
    <div className="mx-auto flex min-h-dvh max-w-5xl flex-col gap-5 p-4 sm:p-8">
      <JobsHeader here={here.data ?? []} onFile={takeIn} />
      <Insecure />
      <main className="flex flex-col gap-3">
        {jobs.isPending && <p>Looking for your jobs …</p>}
        {jobs.isError && (
          <Empty title={isPassing(jobs.error) ? 'The server is not reached' : 'The jobs cannot be read'}>
            <p>
              {isPassing(jobs.error)
                ? 'Jobs opened on this device before can still be read and worked on; what you record is sent later.'
                : jobs.error.message}
            </p>
            <Button onClick={() => void jobs.refetch()}>Try again</Button>
          </Empty>
        )}
        <OnThisDevice jobs={onlyHere} />
        {(listed.length >= MANY || search !== '') && (
          <TextField
            label="Search by name"
            value={search}
            onText={setSearch}
            type="search"
            maxLength={200}
            boxClass="max-w-md"
          />
        )}
        {jobs.isSuccess && listed.length === 0 && search !== '' && <p>No job is called so.</p>}
        {jobs.isSuccess && listed.length === 0 && search === '' && onlyHere.length === 0 && (
          <Empty title="No jobs yet">
            <p>Begin with a new job, or import a job file from another device.</p>
          </Empty>
        )}
        {listed.map((summary) => (
          <JobCard
            key={summary.id}
            summary={summary}
            isKept={keptIds.has(summary.id)}
            onKeep={() => keep(summary)}
            onRemove={() => remove(summary)}
          />
        ))}
        {jobs.hasNextPage && <Button onClick={() => void jobs.fetchNextPage()}>More jobs</Button>}
      </main>
      <footer className="mt-auto pt-6 text-sm text-soft">
        Work on fixed wiring can kill and can burn a house down. Inventario records and computes; local codes,
        the maker’s instructions and licensed practice rule.
      </footer>
      <ImportDialog refused={refused} onClose={forgetRefused} onTake={takeIn} />
    </div>
  );
}

/** Unsent work on a job the server does not list any more. */
const isLeftBehind = (job: JobHere, listed: readonly JobSummary[], known: boolean) =>
  known && job.unsent > 0 && !listed.some((summary) => summary.id === job.id);

function JobsHeader({ here, onFile }: { here: readonly JobHere[]; onFile: (file: File) => void }) {
  const { theme, setTheme } = usePreferences();
  const [making, setMaking] = useState(false);
  const [device, setDevice] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  return (
    <header className="flex flex-wrap items-center gap-3">
      <img src="/mark.svg" alt="" className="size-10 rounded dark:bg-ink" />
      <h1 className="mr-auto text-2xl font-bold">Inventario</h1>
      <Button kind="main" icon={Plus} onClick={() => setMaking(true)}>
        New job
      </Button>
      <Button icon={FileUp} onClick={() => file.current?.click()}>
        Import a job file
      </Button>
      <Button icon={Smartphone} onClick={() => setDevice(true)}>
        This device
      </Button>
      <Button
        kind="quiet"
        icon={theme === 'dark' ? Sun : Moon}
        iconOnly
        onClick={() => setTheme(theme === 'dark' ? 'light' : 'dark')}
      >
        {theme === 'dark' ? 'Light theme' : 'Dark theme'}
      </Button>
      <input
        ref={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        className="hidden"
        aria-label="Job file"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) onFile(chosen);
        }}
      />
      {making && <NewJobDialog onClose={() => setMaking(false)} />}
      <ThisDevice jobs={here} open={device} onClose={() => setDevice(false)} />
    </header>
  );
}

/**
 * Over plain HTTP from another machine a browser keeps no application: said before somebody relies on it in a
 * cellar.
 */
function Insecure() {
  if (window.isSecureContext) return null;
  return (
    <div role="alert" className="rounded-lg border-2 border-stop bg-sheet p-4">
      <p className="font-semibold">Without the network nothing opens here.</p>
      <p>
        This page came over plain HTTP, and a browser keeps no application from there. What you record is
        kept, but the page cannot be opened again without the server. Start Inventario with{' '}
        <code className="font-mono">INVENTARIO_TLS=make</code>: it makes a certificate and shows its
        fingerprint, to be compared once on this device.
      </p>
    </div>
  );
}

function OnThisDevice({ jobs }: { jobs: readonly JobHere[] }) {
  if (jobs.length === 0) return null;
  return (
    <section aria-label="On this device" className="flex flex-col gap-2 rounded-lg border border-rule p-4">
      <h2 className="font-bold">On this device</h2>
      <ul>
        {jobs.map((job) => (
          <li key={job.id}>
            <Link className="inline-flex min-h-11 items-center text-lg underline" to={paths.board(job.id)}>
              {job.name}
            </Link>{' '}
            <span className="text-soft">
              {job.made ? 'not on the server yet' : ''}
              {job.unsent > 0 ? ` ${job.unsent} not sent yet` : ''}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function JobCard({
  summary,
  isKept,
  onKeep,
  onRemove,
}: {
  summary: JobSummary;
  isKept: boolean;
  onKeep: () => void;
  onRemove: () => void;
}) {
  const last = lastPlace(summary.id);
  return (
    <article className="flex flex-wrap items-start gap-2 rounded-lg border border-rule bg-sheet p-4">
      <Link to={paths.board(summary.id)} className="flex min-w-0 flex-1 flex-col gap-2">
        <h2 className="text-xl font-bold">{summary.name}</h2>
        <ul className="flex flex-wrap gap-x-5 gap-y-1">
          {STAGES.map((stage) => {
            const { done, of } = summary.stages[stage] ?? { done: 0, of: 0 };
            return (
              <li key={stage} className="flex items-center gap-2">
                <span aria-hidden className="flex h-3 w-14 border border-ink">
                  <span className="bg-ink" style={{ width: `${of === 0 ? 0 : (100 * done) / of}%` }} />
                </span>
                <span>
                  {stage} {done}/{of}
                </span>
              </li>
            );
          })}
        </ul>
        <p className="text-soft">
          {summary.rooms} rooms, {summary.boxes} boxes. Last touched {timeOf(summary.updatedAt)}.{' '}
          {summary.blocker ? `Held up by: ${summary.blocker}.` : 'Nothing holds it up.'}
          {isKept ? ' On this device.' : ''}
        </p>
      </Link>
      <Menu
        name={`More for ${summary.name}`}
        entries={[
          {
            label: isKept ? 'Bring what is here up to date' : 'Keep on this device',
            icon: HardDriveDownload,
            onPick: onKeep,
          },
          { label: 'Delete this job', icon: Trash2, stop: true, onPick: onRemove },
        ]}
      />
      {last && (
        <Link className={buttonClass('plain', 'w-full')} to={paths.box(summary.id, last.boxId)}>
          Go on at {last.name}
        </Link>
      )}
    </article>
  );
}
