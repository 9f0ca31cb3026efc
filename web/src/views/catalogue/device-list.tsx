import { type Device, deviceName, moneyText, RADIO_WORDS } from '@inventario/core';
import { Columns3, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { DataTable, type TableColumn } from '../../ui/data-table.js';
import { TextField } from '../../ui/field.js';
import { CompareDialog } from './compare-dialog.js';
import { DataSheet } from './data-sheet.js';
import { DeviceForm } from './form/device-form.js';
import { freshDevice } from './form/fresh-device.js';

const MOST_COMPARED = 4;

/** The devices of the catalogue: found by words and family, sorted, compared, opened. */
export function DeviceList() {
  const { job } = useJob();
  const { deviceId } = useParams();
  const [search, setSearch] = useState('');
  const [family, setFamily] = useState('');
  const [compared, setCompared] = useState<readonly string[]>([]);
  const [comparing, setComparing] = useState(false);
  const [editing, setEditing] = useState<Device | null>(null);
  const { devices } = job.catalogue;
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
      <DeviceTable
        devices={devices.filter((entry) => family === '' || entry.family === family)}
        search={search}
        openId={deviceId}
        compared={compared}
        onCompare={setCompared}
      />
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

function DeviceTable({
  devices,
  search,
  openId,
  compared,
  onCompare,
}: {
  devices: readonly Device[];
  search: string;
  openId: string | undefined;
  compared: readonly string[];
  onCompare: (ids: readonly string[]) => void;
}) {
  const { job } = useJob();
  const navigate = useNavigate();
  const currency = job.money?.currency;
  const columns = useMemo<TableColumn<Device>[]>(
    () => [
      {
        id: 'compare',
        head: 'Compare',
        hideHead: true,
        className: 'w-11',
        cell: (device) => <CompareTick device={device} compared={compared} onCompare={onCompare} />,
      },
      {
        id: 'device',
        head: 'Device',
        names: true,
        value: deviceName,
        cell: (device) => (
          <button
            type="button"
            className="flex min-h-11 w-full flex-wrap items-baseline gap-x-3 py-1 text-left"
            onClick={() => navigate(paths.catalogueDevice(job.id, device.id))}
          >
            <span className="font-semibold underline">{deviceName(device)}</span>
            <span className="text-sm text-soft">{briefly(device)}</span>
          </button>
        ),
      },
      {
        id: 'price',
        head: 'Price',
        align: 'right',
        value: (device) => device.price ?? -1,
        cell: (device) => moneyText(device.price, currency),
      },
    ],
    [job.id, navigate, currency, compared, onCompare],
  );
  return (
    <div className="max-w-4xl">
      <DataTable
        label="Devices"
        rows={devices}
        columns={columns}
        idOf={({ id }) => id}
        nameOf={deviceName}
        search={search}
        words={searchText}
        rowClass={({ id }) => id === openId && 'bg-sheet'}
        nothing="No device answers to that."
      />
    </div>
  );
}

function CompareTick({
  device,
  compared,
  onCompare,
}: {
  device: Device;
  compared: readonly string[];
  onCompare: (ids: readonly string[]) => void;
}) {
  const { id } = device;
  const ticked = compared.includes(id);
  return (
    <label className="flex min-h-11 min-w-11 items-center justify-center">
      <input
        type="checkbox"
        className="size-5 accent-(--strong)"
        aria-label={`Compare ${deviceName(device)}`}
        checked={ticked}
        disabled={!ticked && compared.length >= MOST_COMPARED}
        onChange={() => onCompare(ticked ? compared.filter((other) => other !== id) : [...compared, id])}
      />
    </label>
  );
}

function neutralWords(device: Device): string {
  if (device.needs.neutral) return 'neutral';
  return device.terminals.length > 0 ? 'no neutral' : 'no wires';
}

function briefly(device: Device): string {
  const channels = device.channels.map((channel) => channel.kind).join(' + ') || 'no channel';
  return [channels, neutralWords(device), RADIO_WORDS[device.radio], device.actuator]
    .filter(Boolean)
    .join(', ');
}

function searchText(device: Device): string {
  const strategies = device.multiLocation?.map((entry) => entry.strategy) ?? [];
  return [
    deviceName(device),
    device.family,
    briefly(device),
    ...(device.senses ?? []),
    device.scenes ? 'scenes' : '',
    ...strategies,
  ].join(' ');
}
