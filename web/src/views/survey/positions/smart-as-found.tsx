import {
  asFoundDevice,
  type Box,
  deviceName,
  existingTerminals,
  type FoundTerminal,
  type Position,
  putPart,
  setParts,
  USUAL_FOUND_TERMINALS,
  withExisting,
} from '@inventario/core';
import { useState } from 'react';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { RecordForm } from '../../../parts/record-form.js';
import { PickOne } from '../../../ui/choice.js';
import { TextField } from '../../../ui/field.js';
import { Toggle } from '../../../ui/toggle.js';

const UNLISTED = 'unlisted';

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
  const [deviceId, setDevice] = useState(position.deviceId ?? UNLISTED);
  const [maker, setMaker] = useState('');
  const [model, setModel] = useState('');
  const [terminals, setTerminals] = useState<readonly FoundTerminal[]>(USUAL_FOUND_TERMINALS.slice(0, 4));
  const [name, setName] = useState(position.replaces?.name ?? '');
  const [hub, setHub] = useState(position.replaces?.hub ?? '');
  const [removed, setRemoved] = useState(position.replaces?.removed ?? false);
  const has = (id: string) => terminals.some((terminal) => terminal.id === id);
  const toggle = (terminal: FoundTerminal, on: boolean) =>
    setTerminals(on ? [...terminals, terminal] : terminals.filter((other) => other.id !== terminal.id));
  const change = (id: string, mark: string) =>
    setTerminals(terminals.map((entry) => (entry.id === id ? { ...entry, mark } : entry)));

  const save = () => {
    if (deviceId === UNLISTED && model.trim() === '')
      return 'Say what stands on it: a model, or a few words of what it looks like.';
    const made =
      deviceId === UNLISTED
        ? asFoundDevice(newId(), maker.trim() || 'Unmarked', model.trim(), terminals, job.practice)
        : undefined;
    const id = made?.id ?? deviceId;
    const { leads, replaces, ...rest } = position;
    const old = {
      ...replaces,
      name: name.trim(),
      ...(hub.trim() ? { hub: hub.trim() } : { hub: undefined }),
      removed,
    };
    const next: Position = {
      ...rest,
      existing: 'smart',
      deviceId: id,
      ...(name.trim() === '' ? {} : { replaces: old }),
    };
    const devices = made ? new Map([...known.devices, [made.id, made]]) : known.devices;
    return attempt(
      [
        ...(made ? [putPart('device', made.id, made)] : []),
        ...setParts(
          'box',
          box.id,
          box,
          withExisting(box, position.index, next, existingTerminals(next, devices)),
        ),
      ],
      `Position ${position.index}: a smart device as found (${box.name})`,
    );
  };
  return (
    <RecordForm
      title={`Position ${position.index}: a smart device as found`}
      save="Record it"
      onSave={save}
      onClose={onClose}
    >
      <PickOne
        label="Which one"
        value={deviceId}
        options={[
          { value: UNLISTED, label: 'not in the catalogue', hint: 'recorded as found; no plan buys it' },
          ...job.catalogue.devices.map((device) => ({
            value: device.id,
            label: deviceName(device),
          })),
        ]}
        onChoice={setDevice}
      />
      {deviceId === UNLISTED && (
        <>
          <div className="grid grid-cols-2 gap-3">
            <TextField label="Maker" value={maker} onText={setMaker} maxLength={60} />
            <TextField label="Model, or what it looks like" value={model} onText={setModel} maxLength={100} />
          </div>
          <fieldset className="flex flex-col gap-1">
            <legend className="text-sm font-semibold text-soft">
              Its terminals, with the mark beside each
            </legend>
            {USUAL_FOUND_TERMINALS.map((terminal) => (
              <div key={terminal.id} className="flex items-center gap-3">
                <div className="w-36 shrink-0">
                  <Toggle
                    label={terminal.role}
                    on={has(terminal.id)}
                    onToggle={(on) => toggle(terminal, on)}
                  />
                </div>
                {has(terminal.id) && (
                  <TextField
                    label={`Mark of ${terminal.role}`}
                    value={terminals.find((entry) => entry.id === terminal.id)?.mark ?? ''}
                    onText={(mark) => change(terminal.id, mark)}
                    maxLength={20}
                    boxClass="flex-1"
                  />
                )}
              </div>
            ))}
            <p className="text-sm text-soft">
              A terminal that nobody recognises is picked at the conductor: “not recognised, 1” to “4”.
            </p>
          </fieldset>
        </>
      )}
      <div className="grid grid-cols-2 gap-3">
        <TextField label="Its name in the client’s app" value={name} onText={setName} maxLength={100} />
        <TextField label="Its hub, if it has one" value={hub} onText={setHub} maxLength={100} />
      </div>
      {name.trim() !== '' && (
        <Toggle label="It has been taken out of its hub or app" on={removed} onToggle={setRemoved} />
      )}
    </RecordForm>
  );
}
