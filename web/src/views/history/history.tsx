import {
  earlierRecords,
  findRecord,
  type HistoryEntry,
  type Job,
  partFacts,
  recordWords,
  setParts,
} from '@inventario/core';
import { useInfiniteQuery } from '@tanstack/react-query';
import { ArrowLeft, History } from 'lucide-react';
import { useEffect, useMemo } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { api, isPassing } from '../../data/api.js';
import { thisDevice } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { timeOf } from '../../parts/times.js';
import { Button } from '../../ui/button.js';
import { Empty } from '../../ui/empty.js';
import { useSay } from '../../ui/say.js';

/** More facts of one entry than these stay folded. */
const MOST_SHOWN = 4;

/**
 * What was done to the job, or to one box of it: which device, when, what; a box's earlier state can be put
 * back.
 */
export function HistoryView() {
  const { jobId = '' } = useParams();
  const [search] = useSearchParams();
  const { job, known, pending } = useJob();
  const box = known.boxes.get(search.get('box') ?? '');
  const record = box ? { kind: 'box', id: box.id } : null;
  const history = useInfiniteQuery({
    queryKey: ['history', jobId, box?.id ?? null],
    queryFn: ({ pageParam }) => api.history(jobId, record, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length < PAGE ? undefined : page.at(-1)?.sequence),
  });
  const { refetch } = history;
  // What is recorded here becomes history when the server has it.
  useEffect(() => {
    if (job && pending === 0) void refetch();
  }, [job, pending, refetch]);
  const entries = useMemo(() => history.data?.pages.flat() ?? [], [history.data]);
  return (
    <Bench
      title="History"
      glance={`${entries.length} entries`}
      reckoning={
        <p>
          {box
            ? 'Each entry can be put back: the box then is as it was before it, as a new edit that everyone sees and that undo takes back.'
            : 'Open the history of one box from its page to put an earlier state of it back.'}
        </p>
      }
    >
      <div className="mb-3 flex flex-wrap items-end gap-3">
        {box && (
          <Link to={paths.box(jobId, box.id)} className="flex min-h-11 items-center gap-2 underline">
            <ArrowLeft aria-hidden className="size-5" />
            {box.name}
          </Link>
        )}
        <h1 className="mr-auto text-lg font-bold">{box ? `History of ${box.name}` : 'History'}</h1>
        {box && (
          <Link to={paths.history(jobId)} className="flex min-h-11 items-center underline">
            Of the whole job
          </Link>
        )}
      </div>
      {history.isPending && <p>Reading the history …</p>}
      {history.isError && (
        <Empty title="The history cannot be read now">
          <p>
            {isPassing(history.error)
              ? 'It is kept on the server, which is not reached.'
              : history.error.message}
          </p>
          <Button onClick={() => void history.refetch()}>Try again</Button>
        </Empty>
      )}
      {history.isSuccess && entries.length === 0 && (
        <Empty title="Nothing has been changed yet">
          <p>Every edit stands here with its device and its time, from the first on.</p>
        </Empty>
      )}
      <ol className="flex flex-col gap-2">
        {box ? (
          <BoxEntries boxId={box.id} entries={entries} />
        ) : (
          entries.map((entry) => <Entry key={entry.sequence} job={job} entry={entry} />)
        )}
      </ol>
      {history.hasNextPage && (
        <Button className="mt-3" onClick={() => void history.fetchNextPage()}>
          Earlier entries
        </Button>
      )}
    </Bench>
  );
}

/** Entries the server gives at once. */
const PAGE = 100;

function BoxEntries({ boxId, entries }: { boxId: string; entries: readonly HistoryEntry[] }) {
  const { job, applyAndSay } = useJob();
  const say = useSay();
  const now = findRecord(job, 'box', boxId)?.record;
  const earlier = useMemo(() => earlierRecords('box', boxId, now, entries), [boxId, now, entries]);
  return earlier.map(({ entry, record }) => {
    const putBack = () => {
      if (!record || !now) return;
      const gone = Object.fromEntries(Object.keys(now).map((field) => [field, undefined]));
      const parts = setParts('box', boxId, now, { ...gone, ...record });
      if (parts.length === 0) return say('The box is as it was then.');
      applyAndSay(
        parts,
        `${String(record.name)} put back as it was ${timeOf(entry.at)}`,
        'The box is put back as it was.',
      );
    };
    return (
      <Entry key={entry.sequence} job={job} entry={entry} about={recordWords(job, 'box', boxId)}>
        {record && (
          <Button icon={History} onClick={putBack}>
            Put back as it was before
          </Button>
        )}
      </Entry>
    );
  });
}

function Entry({
  job,
  entry,
  about,
  children,
}: {
  job: Job;
  entry: HistoryEntry;
  about?: string;
  children?: React.ReactNode;
}) {
  const facts = (entry.parts ?? []).flatMap((part) => partFacts(job, part));
  // In the history of one box every line is about it.
  const what = (words: string) =>
    about && words.startsWith(`${about}: `) ? words.slice(about.length + 2) : words;
  const put = entry.parts === null;
  return (
    <li className="flex flex-wrap items-start gap-3 rounded-md border border-rule bg-sheet p-3">
      <div className="min-w-0 flex-1 basis-72">
        <p className="font-semibold">{put ? 'The whole job was replaced by a file' : entry.label}</p>
        <p className="text-sm text-soft">
          {timeOf(entry.at)}, {deviceWords(entry.deviceId)}
        </p>
        {facts.length > 0 && (
          <ul className="mt-1 text-sm">
            {facts.slice(0, MOST_SHOWN).map((fact) => (
              <li key={`${fact.what}${fact.now}`}>
                <span className="text-soft">{what(fact.what)}:</span> {fact.was && `${fact.was} → `}
                {fact.now}
              </li>
            ))}
            {facts.length > MOST_SHOWN && <li className="text-soft">and {facts.length - MOST_SHOWN} more</li>}
          </ul>
        )}
      </div>
      {children}
    </li>
  );
}

function deviceWords(deviceId: string | null): string {
  if (deviceId === null) return 'taken in';
  return deviceId === thisDevice() ? 'this device' : `device ${deviceId.slice(-4)}`;
}
