import {
  type Box,
  deviceName,
  FoundDeviceEntry,
  foundDeviceParts,
  type Position,
  UNLISTED,
  USUAL_FOUND_TERMINALS,
} from '@inventario/core';
import type { UseFormReturn } from 'react-hook-form';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { FormPick, FormText, FormToggle } from '../../../parts/form-fields.js';
import { RecordForm, useRecordForm } from '../../../parts/record-form.js';
import { Toggle } from '../../../ui/toggle.js';

/**
 * An old smart device as it is found: which one, its terminals, and the name and hub that the client's rules
 * know it by.
 */
export function SmartAsFound({
  box,
  position,
  onClose,
}: {
  box: Box;
  position: Position;
  onClose: () => void;
}) {
  const { job, known, attempt } = useJob();
  const form = useRecordForm(FoundDeviceEntry, {
    deviceId: position.deviceId ?? UNLISTED,
    maker: '',
    model: '',
    terminals: USUAL_FOUND_TERMINALS.slice(0, 4),
    name: position.replaces?.name ?? '',
    hub: position.replaces?.hub ?? '',
    removed: position.replaces?.removed ?? false,
  });
  const { control } = form;
  const [deviceId, name] = form.watch(['deviceId', 'name']);
  return (
    <RecordForm
      title={`Position ${position.index}: a smart device as found`}
      save="Record it"
      form={form}
      onSave={(found) =>
        attempt(
          foundDeviceParts(box, position, found, known, newId),
          `Position ${position.index}: a smart device as found (${box.name})`,
        )
      }
      onClose={onClose}
    >
      <FormPick
        control={control}
        name="deviceId"
        label="Which one"
        options={[
          { value: UNLISTED, label: 'not in the catalogue', hint: 'recorded as found; no plan buys it' },
          ...job.catalogue.devices.map((device) => ({ value: device.id, label: deviceName(device) })),
        ]}
      />
      {deviceId === UNLISTED && <Unlisted form={form} />}
      <div className="grid grid-cols-2 gap-3">
        <FormText control={control} name="name" label="Its name in the client’s app" maxLength={100} />
        <FormText control={control} name="hub" label="Its hub, if it has one" maxLength={100} />
      </div>
      {name.trim() !== '' && (
        <FormToggle control={control} name="removed" label="It has been taken out of its hub or app" />
      )}
    </RecordForm>
  );
}

/** What stands on a device that no catalogue has, and its terminals by their marks. */
function Unlisted({ form }: { form: UseFormReturn<FoundDeviceEntry> }) {
  const terminals = form.watch('terminals');
  const set = (next: FoundDeviceEntry['terminals']) => form.setValue('terminals', next);
  return (
    <>
      <div className="grid grid-cols-2 gap-3">
        <FormText control={form.control} name="maker" label="Maker" maxLength={60} />
        <FormText control={form.control} name="model" label="Model, or what it looks like" maxLength={100} />
      </div>
      <fieldset className="flex flex-col gap-1">
        <legend className="text-sm font-semibold text-soft">Its terminals, with the mark beside each</legend>
        {USUAL_FOUND_TERMINALS.map((terminal) => {
          const at = terminals.findIndex(({ id }) => id === terminal.id);
          return (
            <div key={terminal.id} className="flex items-center gap-3">
              <div className="w-36 shrink-0">
                <Toggle
                  label={terminal.role}
                  on={at >= 0}
                  onToggle={(on) => set(on ? [...terminals, terminal] : terminals.toSpliced(at, 1))}
                />
              </div>
              {at >= 0 && (
                <FormText
                  control={form.control}
                  name={`terminals.${at}.mark`}
                  label={`Mark of ${terminal.role}`}
                  maxLength={20}
                  boxClass="flex-1"
                />
              )}
            </div>
          );
        })}
        <p className="text-sm text-soft">
          A terminal that nobody recognises is picked at the conductor: “not recognised, 1” to “4”.
        </p>
      </fieldset>
    </>
  );
}
