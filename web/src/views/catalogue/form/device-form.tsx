import { type Device, deviceName, takeIn } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { FormProblems, useCheckedForm } from '../../../parts/record-form.js';
import { Button } from '../../../ui/button.js';
import { WideDialog } from '../../../ui/dialog.js';
import { Basics, Body, Living, RadioAndPower } from './form-device.js';
import { Handling } from './form-handling.js';
import { Channels, SeveralPlaces, Terminals } from './form-wiring.js';

/**
 * A data sheet typed in from the maker's leaflet. What does not hold together is named by its field, and
 * nothing typed is lost.
 */
export function DeviceForm({ device: first, onClose }: { device: Device; onClose: () => void }) {
  const { job, attempt } = useJob();
  const form = useCheckedForm<Device>(first, (device) => {
    const unnamed = (['maker', 'model', 'family'] as const).filter((field) => device[field].trim() === '');
    if (unnamed.length > 0) return unnamed.map((field) => ({ path: `/${field}`, message: 'is empty' }));
    const taken = takeIn({ devices: [pruned(device)] }, job);
    return taken.ok
      ? []
      : taken.problems.map(({ path, message }) => ({
          path: path.replace(/^\/catalogue\/devices\/\d+/, ''),
          message,
        }));
  });
  const device = form.watch();
  const set = (more: Partial<Device>) => {
    for (const [field, value] of Object.entries(more)) form.setValue(field as keyof Device, value as never);
  };
  const submit = form.handleSubmit((made) => {
    const taken = takeIn({ devices: [pruned(made)] }, job);
    const hindered = taken.ok ? attempt(taken.parts, `Data sheet: ${deviceName(made)}`) : null;
    if (hindered) form.setError('root', { message: hindered });
    else onClose();
  });
  return (
    <WideDialog title={`Data sheet: ${deviceName(device) || 'a new device'}`} open onClose={onClose}>
      <form noValidate onSubmit={(event) => void submit(event)} className="flex flex-col gap-4">
        <Basics device={device} set={set} />
        <Body device={device} set={set} />
        <RadioAndPower device={device} set={set} />
        <Living device={device} set={set} />
        <Terminals device={device} set={set} />
        <Channels device={device} set={set} />
        <SeveralPlaces device={device} set={set} />
        <Handling device={device} set={set} />
        <FormProblems problems={Object.entries(form.formState.errors)} />
        <Button kind="main" type="submit">
          Keep the data sheet
        </Button>
      </form>
    </WideDialog>
  );
}

/** Without the fields that were emptied: absent and empty are two things in the file. */
function pruned(device: Device): Device {
  return Object.fromEntries(Object.entries(device).filter(([, value]) => value !== undefined)) as Device;
}
