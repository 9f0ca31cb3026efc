import { type Device, deviceName, namedStill, plural, removePart } from '@inventario/core';
import { Pencil, Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { DeviceFace } from '../../drawings/device-face.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';
import { useSay } from '../../ui/say.js';
import { pairingSteps } from './form/pairing-steps.js';
import { sheetRows } from './sheet-rows.js';

/** One device: drawn from behind with its connections, and everything its record says. */
export function DataSheet({ device, onEdit }: { device: Device; onEdit: () => void }) {
  const { job, known, applyAndSay } = useJob();
  const say = useSay();
  const units = useUnits(job);
  const places = job.selections.filter((selection) => selection.deviceId === device.id).length;
  const steps = pairingSteps(device);
  const remove = () => {
    const [named] = namedStill(job, 'devices', device.id);
    if (named) {
      say(`It is still named at ${named.path}.`);
      return;
    }
    const name = deviceName(device);
    applyAndSay([removePart('device', device.id)], `Delete ${name}`, `${name} is deleted.`);
  };
  return (
    <section
      aria-label={deviceName(device)}
      className="mb-4 max-w-4xl rounded-lg border-2 border-ink bg-ground p-3"
    >
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="flex-1 text-lg font-bold">{deviceName(device)}</h2>
        <Link className="flex min-h-11 items-center px-2 underline" to={paths.catalogue(job.id)}>
          Close the sheet
        </Link>
        <Button icon={Pencil} onClick={onEdit}>
          Change
        </Button>
        <Button
          kind="quiet"
          icon={Trash2}
          iconOnly
          disabled={places > 0}
          title={places > 0 ? 'It is chosen for this job' : 'Delete it'}
          onClick={remove}
        >
          Delete {device.model}
        </Button>
      </div>
      <div className="grid gap-4 sm:grid-cols-[minmax(0,18rem)_1fr]">
        <DeviceFace device={device} units={units} />
        <dl className="grid grid-cols-[minmax(7rem,auto)_1fr] content-start gap-x-3 gap-y-1 text-sm">
          {sheetRows(device, known, units)
            .filter((row) => row.text !== '')
            .map((row) => (
              <div key={row.name} className="contents">
                <dt className="text-soft">{row.name}</dt>
                <dd>{row.text}</dd>
              </div>
            ))}
          {places > 0 && (
            <>
              <dt className="text-soft">In this job</dt>
              <dd>chosen for {plural(places, 'place')}</dd>
            </>
          )}
        </dl>
      </div>
      {steps.length > 0 && (
        <ol className="mt-2 list-decimal pl-5 text-sm" aria-label="Pairing">
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
      )}
      {device.notes && <p className="mt-2 text-sm">{device.notes}</p>}
    </section>
  );
}
