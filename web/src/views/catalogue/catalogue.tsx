import {
  CATALOGUE_LISTS,
  type CatalogueList,
  catalogueDocument,
  catalogueRows,
  type Problem,
  readCatalogue,
  recordsFromRows,
  type TakenIn,
  takeIn,
} from '@inventario/core';
import { FileDown, FileUp, Sheet } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { downloadCsv, downloadJson, rowsOfCsv } from '../../data/downloads.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { Dialog } from '../../ui/dialog.js';
import { useSay } from '../../ui/say.js';
import { DeviceList } from './device-list.js';
import { RecordList } from './record-list.js';

const LIST_WORDS: Record<CatalogueList, string> = {
  devices: 'Devices',
  hubs: 'Hubs',
  parts: 'Parts',
  connectors: 'Connectors',
  enclosures: 'Enclosures',
  platforms: 'Assistants',
};

/** What does this device need and offer? The catalogue of this job, list by list. */
export function CatalogueView() {
  const { kind = 'devices' } = useParams();
  const { job } = useJob();
  const list = CATALOGUE_LISTS.find((entry) => entry === kind) ?? 'devices';
  return (
    <Bench
      title="Catalogue"
      glance={
        `${job.catalogue.devices.length} devices, ${job.catalogue.hubs.length} hubs, ` +
        `${job.catalogue.parts.length} parts`
      }
      reckoning={<InAndOut list={list} />}
    >
      <h1 className="mb-2 text-xl font-bold">Catalogue of this job</h1>
      <nav aria-label="Lists" className="mb-3 flex flex-wrap gap-1">
        {CATALOGUE_LISTS.map((entry) => (
          <Link
            key={entry}
            to={paths.catalogue(job.id, entry)}
            aria-current={entry === list ? 'page' : undefined}
            className={classes(
              'flex min-h-11 items-center gap-2 rounded-md border px-3',
              entry === list
                ? 'border-ink bg-well font-semibold ring-2 ring-ink'
                : 'border-edge bg-sheet hover:border-ink',
            )}
          >
            {LIST_WORDS[entry]} <span className="tabular-nums">{job.catalogue[entry].length}</span>
          </Link>
        ))}
      </nav>
      {list === 'devices' ? <DeviceList /> : <RecordList key={list} list={list} />}
    </Bench>
  );
}

/** The catalogue as files: out whole or list by list, and in from others'. */
function InAndOut({ list }: { list: CatalogueList }) {
  const { job, apply, undo } = useJob();
  const say = useSay();
  const file = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<readonly Problem[] | null>(null);

  const takeFile = async (chosen: File) => {
    const text = await chosen.text();
    let taken: TakenIn;
    if (/\.csv$/i.test(chosen.name)) {
      const { rows, problems } = await rowsOfCsv(text);
      taken =
        problems.length > 0 ? { ok: false, problems } : takeIn({ [list]: recordsFromRows(list, rows) }, job);
    } else taken = readCatalogue(text, job);
    if (!taken.ok) {
      setRefused(taken.problems);
      return;
    }
    // An edit holds so many parts at most; a long list goes in several.
    for (let from = 0; from < taken.parts.length; from += MOST_PARTS)
      if (!apply(taken.parts.slice(from, from + MOST_PARTS), `Catalogue from ${chosen.name}`)) return;
    say(`${taken.added} added, ${taken.replaced} replaced.`, { label: 'Undo', run: undo });
  };
  return (
    <div className="flex flex-col gap-3">
      <h2 className="font-bold">In and out</h2>
      <Button
        icon={FileDown}
        onClick={() => downloadJson(job, 'catalogue', catalogueDocument(job.catalogue))}
      >
        Save the whole catalogue as JSON
      </Button>
      <Button icon={Sheet} onClick={() => void downloadCsv(job, list, catalogueRows(job.catalogue[list]))}>
        Save this list as CSV
      </Button>
      <Button icon={FileUp} onClick={() => file.current?.click()}>
        Import a JSON or CSV file
      </Button>
      <input
        ref={file}
        type="file"
        accept=".json,.csv,application/json,text/csv"
        aria-label="Catalogue file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void takeFile(chosen);
        }}
      />
      <p className="text-sm text-soft">
        A JSON file may hold every list; a CSV file is read into the list in view,{' '}
        {LIST_WORDS[list].toLowerCase()}. What has the same id takes the place of what is here.
      </p>
      <Dialog title="The file cannot be imported" open={refused !== null} onClose={() => setRefused(null)}>
        <ul className="max-h-80 overflow-y-auto rounded-md border border-rule bg-sheet p-3 font-mono text-sm">
          {refused?.slice(0, 60).map((problem) => (
            <li key={`${problem.path}${problem.message}`}>
              <strong>{problem.path || '(whole file)'}</strong> {problem.message}
            </li>
          ))}
        </ul>
        <p className="mt-2 text-soft">Nothing here was changed.</p>
      </Dialog>
    </div>
  );
}

const MOST_PARTS = 400;
