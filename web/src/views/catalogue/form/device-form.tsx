import { type Device, deviceName, type Problem, takeIn } from '@inventario/core';
import { type FormEvent, useState } from 'react';
import { useJob } from '../../../data/job-context.js';
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
  const { job, apply } = useJob();
  const [device, setDevice] = useState(first);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const set = (more: Partial<Device>) => setDevice(pruned({ ...device, ...more }));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const unnamed = (['maker', 'model', 'family'] as const).filter((field) => device[field].trim() === '');
    if (unnamed.length > 0) {
      setProblems(unnamed.map((field) => ({ path: `/${field}`, message: 'is empty', severity: 'error' })));
      return;
    }
    const taken = takeIn({ devices: [device] }, job);
    if (!taken.ok) {
      setProblems(
        taken.problems.map((problem) => ({
          ...problem,
          path: problem.path.replace(/^\/catalogue\/devices\/\d+/, ''),
        })),
      );
      return;
    }
    if (apply(taken.parts, `Data sheet: ${deviceName(device)}`)) onClose();
  };
  return (
    <WideDialog title={`Data sheet: ${deviceName(device).trim() || 'a new device'}`} open onClose={onClose}>
      <form onSubmit={submit} className="flex flex-col gap-4">
        <Basics device={device} set={set} />
        <Body device={device} set={set} />
        <RadioAndPower device={device} set={set} />
        <Living device={device} set={set} />
        <Terminals device={device} set={set} />
        <Channels device={device} set={set} />
        <SeveralPlaces device={device} set={set} />
        <Handling device={device} set={set} />
        {problems.length > 0 && (
          <ul role="alert" className="rounded-md border border-stop p-2 text-stop">
            {problems.map((problem) => (
              <li key={`${problem.path}${problem.message}`}>
                <strong>{problem.path || 'The sheet'}</strong> {problem.message}
              </li>
            ))}
          </ul>
        )}
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
