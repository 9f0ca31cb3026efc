import {
  CATALOGUE_LISTS,
  type CatalogueList,
  catalogueDocument,
  catalogueRows,
  type Device,
  deviceName,
  moneyText,
  type Problem,
  RADIO_WORDS,
  readCatalogue,
  recordsFromRows,
  type TakenIn,
  takeIn,
} from '@inventario/core';
import { Columns3, FileDown, FileUp, Plus, Sheet } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { downloadCsv, downloadJson, rowsOfCsv } from '../../data/downloads.js';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { classes } from '../../ui/classes.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';
import { useSay } from '../../ui/say.js';
import { CompareDialog } from './compare-dialog.js';
import { DataSheet } from './data-sheet.js';
import { DeviceForm } from './form/device-form.js';
import { freshDevice } from './form/fresh-device.js';
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
  const { job, apply, undo } = useJob();
  const navigate = useNavigate();
  const say = useSay();
  const file = useRef<HTMLInputElement>(null);
  const [refused, setRefused] = useState<readonly Problem[] | null>(null);
  const list = CATALOGUE_LISTS.find((entry) => entry === kind) ?? 'devices';

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
    <Bench
      title="Catalogue"
      glance={
        `${job.catalogue.devices.length} devices, ${job.catalogue.hubs.length} hubs, ` +
        `${job.catalogue.parts.length} parts`
      }
      reckoning={
        <div className="flex flex-col gap-3">
          <h2 className="font-bold">In and out</h2>
          <Button
            icon={FileDown}
            onClick={() => downloadJson(job, 'catalogue', catalogueDocument(job.catalogue))}
          >
            Save the whole catalogue as JSON
          </Button>
          <Button
            icon={Sheet}
            onClick={() => void downloadCsv(job, list, catalogueRows(job.catalogue[list]))}
          >
            Save this list as CSV
          </Button>
          <Button icon={FileUp} onClick={() => file.current?.click()}>
            Take in a JSON or CSV file
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
        </div>
      }
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
                ? 'border-strong bg-strong text-onstrong'
                : 'border-rule bg-sheet hover:border-ink',
            )}
          >
            {LIST_WORDS[entry]} <span className="tabular-nums">{job.catalogue[entry].length}</span>
          </Link>
        ))}
      </nav>
      {list === 'devices' ? (
        <DeviceList onGo={(id) => navigate(paths.catalogueDevice(job.id, id))} />
      ) : (
        <RecordList key={list} list={list} />
      )}
      <Dialog title="The file cannot be taken in" open={refused !== null} onClose={() => setRefused(null)}>
        <ul className="max-h-80 overflow-y-auto rounded-md border border-rule bg-sheet p-3 font-mono text-sm">
          {refused?.slice(0, 60).map((problem) => (
            <li key={`${problem.path}${problem.message}`}>
              <strong>{problem.path || '(whole file)'}</strong> {problem.message}
            </li>
          ))}
        </ul>
        <p className="mt-2 text-soft">Nothing here was changed.</p>
      </Dialog>
    </Bench>
  );
}

const MOST_PARTS = 400;
const MOST_COMPARED = 4;

function DeviceList({ onGo }: { onGo: (id: string) => void }) {
  const { job } = useJob();
  const { deviceId } = useParams();
  const [search, setSearch] = useState('');
  const [family, setFamily] = useState('');
  const [compared, setCompared] = useState<readonly string[]>([]);
  const [comparing, setComparing] = useState(false);
  const [editing, setEditing] = useState<Device | null>(null);
  const { devices } = job.catalogue;
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const shown = devices.filter(
    (device) =>
      (family === '' || device.family === family) && words.every((word) => searchText(device).includes(word)),
  );
  const device = devices.find((entry) => entry.id === deviceId);
  const families = [...new Set(devices.map((entry) => entry.family))];
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <TextField
          label="Find"
          placeholder="dimmer, no neutral, mesh …"
          value={search}
          onText={setSearch}
          boxClass="w-64"
        />
        <PickOne
          label="Family"
          value={family}
          className="w-44"
          options={[
            { value: '', label: 'every family' },
            ...families.map((name) => ({ value: name, label: name })),
          ]}
          onChoice={setFamily}
        />
        <Button icon={Columns3} disabled={compared.length < 2} onClick={() => setComparing(true)}>
          Compare {compared.length > 0 ? compared.length : 'two to four'}
        </Button>
        <Button icon={Plus} onClick={() => setEditing(freshDevice(job.practice))}>
          Add a device
        </Button>
      </div>
      {device && <DataSheet device={device} onEdit={() => setEditing(device)} />}
      <ul aria-label="Devices" className="max-w-4xl">
        {shown.map((entry) => (
          <li
            key={entry.id}
            className={classes(
              'flex items-center gap-3 border-t border-rule',
              entry.id === deviceId && 'bg-sheet',
            )}
          >
            <label className="flex min-h-11 min-w-11 items-center justify-center">
              <input
                type="checkbox"
                className="size-5 accent-(--strong)"
                aria-label={`Compare ${deviceName(entry)}`}
                checked={compared.includes(entry.id)}
                disabled={!compared.includes(entry.id) && compared.length >= MOST_COMPARED}
                onChange={() =>
                  setCompared(
                    compared.includes(entry.id)
                      ? compared.filter((id) => id !== entry.id)
                      : [...compared, entry.id],
                  )
                }
              />
            </label>
            <button
              type="button"
              className="flex min-h-11 flex-1 flex-wrap items-baseline gap-x-3 py-1 text-left"
              onClick={() => onGo(entry.id)}
            >
              <span className="font-semibold underline">{deviceName(entry)}</span>
              <span className="text-sm text-soft">{briefly(entry)}</span>
            </button>
            <span className="tabular-nums">{moneyText(entry.price, job.money?.currency)}</span>
          </li>
        ))}
      </ul>
      {shown.length === 0 && <p className="text-soft">No device answers to that.</p>}
      {comparing && (
        <CompareDialog
          devices={devices.filter((entry) => compared.includes(entry.id))}
          onClose={() => setComparing(false)}
        />
      )}
      {editing && <DeviceForm key={editing.id} device={editing} onClose={() => setEditing(null)} />}
    </>
  );
}

function briefly(device: Device): string {
  const channels = device.channels.map((channel) => channel.kind).join(' + ') || 'no channel';
  return [
    channels,
    device.needs.neutral ? 'neutral' : device.terminals.length > 0 ? 'no neutral' : 'no wires',
    RADIO_WORDS[device.radio],
    device.actuator,
  ]
    .filter(Boolean)
    .join(', ');
}

function searchText(device: Device): string {
  return (
    `${deviceName(device)} ${device.family} ${briefly(device)} ${device.senses?.join(' ') ?? ''} ` +
    `${device.scenes ? 'scenes' : ''} ` +
    `${device.multiLocation?.map((entry) => entry.strategy).join(' ') ?? ''}`.toLowerCase()
  );
}
