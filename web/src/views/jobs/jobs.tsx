import { type JobSummary, STAGES } from '@inventario/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FileUp, Moon, Plus, Sun, Trash2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { paths } from '../../app/paths.js';
import { usePreferences } from '../../app/preferences.js';
import { timeOf } from '../../app/times.js';
import { api, UnreachableError } from '../../data/api.js';
import { keptJobs } from '../../data/pending-log.js';
import { Button } from '../../ui/button.js';
import { Empty } from '../../ui/empty.js';
import { Menu } from '../../ui/menu.js';
import { useSay } from '../../ui/say.js';
import { ImportDialog, type Refused } from './import-dialog.js';
import { NewJobDialog } from './new-job-dialog.js';

const isArchive = (file: File) => file.type === 'application/zip' || file.name.endsWith('.zip');

/** Where was I? The job last touched stands first. */
export function JobsView() {
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: api.jobs });
  const kept = useQuery({ queryKey: ['kept-jobs'], queryFn: keptJobs, enabled: jobs.isError });
  const queries = useQueryClient();
  const say = useSay();
  const { theme, setTheme } = usePreferences();
  const [making, setMaking] = useState(false);
  const [refused, setRefused] = useState<Refused | null>(null);
  const file = useRef<HTMLInputElement>(null);
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
    const { job } = await api.job(summary.id);
    await api.remove(summary.id);
    await changed();
    say(`${summary.name} is taken out.`, { label: 'Put it back', run: () => void api.takeIn(job).then(changed) });
  };

  return (
    <div className="mx-auto flex min-h-dvh max-w-5xl flex-col gap-5 p-4 sm:p-8">
      <header className="flex flex-wrap items-center gap-3">
        <img src="/mark.svg" alt="" className="size-10 rounded dark:bg-ink" />
        <h1 className="mr-auto text-2xl font-bold">Inventario</h1>
        <Button kind="main" icon={Plus} onClick={() => setMaking(true)}>
          New job
        </Button>
        <Button icon={FileUp} onClick={() => file.current?.click()}>
          Take in a job file
        </Button>
        <Button kind="quiet" icon={theme === 'dark' ? Sun : Moon} iconOnly onClick={() => setTheme(theme === 'dark' ? 'light' : 'dark')}>
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
            if (chosen) void takeIn(chosen);
          }}
        />
      </header>
      <main className="flex flex-col gap-3">
        {jobs.isPending && <p>Looking for your jobs …</p>}
        {jobs.isError && (
          <Empty title={jobs.error instanceof UnreachableError ? 'The server is not reached' : 'The jobs cannot be read'}>
            <p>
              {jobs.error instanceof UnreachableError
                ? 'Jobs opened on this device before can still be read and worked on; what you record is sent later.'
                : jobs.error.message}
            </p>
            {kept.data?.map((job) => (
              <Link key={job.id} className="min-h-11 text-lg underline" to={paths.board(job.id)}>
                {job.name}
              </Link>
            ))}
            <Button onClick={() => void jobs.refetch()}>Try again</Button>
          </Empty>
        )}
        {jobs.data?.length === 0 && (
          <Empty title="No jobs yet">
            <p>Begin with a new job, or take in a job file from another device.</p>
          </Empty>
        )}
        {jobs.data?.map((summary) => (
          <JobCard key={summary.id} summary={summary} onRemove={() => void remove(summary)} />
        ))}
      </main>
      <footer className="mt-auto pt-6 text-sm text-soft">
        Work on fixed wiring can kill and can burn a house down. Inventario records and computes; local codes, the maker’s instructions and
        licensed practice rule.
      </footer>
      <NewJobDialog open={making} onClose={() => setMaking(false)} />
      <ImportDialog refused={refused} onClose={() => setRefused(null)} onTake={(chosen, existing) => void takeIn(chosen, existing)} />
    </div>
  );
}

function JobCard({ summary, onRemove }: { summary: JobSummary; onRemove: () => void }) {
  return (
    <article className="flex items-start gap-2 rounded-lg border border-rule bg-sheet p-4">
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
        </p>
      </Link>
      <Menu name={`More for ${summary.name}`} entries={[{ label: 'Take this job out', icon: Trash2, stop: true, onPick: onRemove }]} />
    </article>
  );
}
