import { putPart, removePart, roomsInOrder, type Thing } from '@inventario/core';
import { X } from 'lucide-react';
import { useForm } from 'react-hook-form';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { PickOne, PickSeveral } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';

const KINDS = (['plug', 'bulb', 'sensor', 'shade', 'speaker', 'other'] as const).map((value) => ({
  value,
  label: value,
}));

/** Plugs, bulbs, sensors and the like that are in no box and take part in rules. */
export function ThingsDialog({ onClose }: { onClose: () => void }) {
  const { job, known, apply } = useJob();
  const rooms = roomsInOrder(job).map(({ id, name }) => ({ value: id, label: name }));
  const platforms = job.catalogue.platforms.map(({ name }) => ({ value: name, label: name }));
  const fresh = {
    name: '',
    kind: 'plug' as Thing['kind'],
    roomId: rooms[0]?.value ?? '',
    platforms: (job.brief?.platforms ?? []).map(({ name }) => name),
  };
  const { watch, setValue, handleSubmit, reset } = useForm({ defaultValues: fresh });
  const typed = watch();
  const add = handleSubmit((thing) => {
    const id = newId();
    if (apply([putPart('thing', id, { id, ...thing, name: thing.name.trim() })], `${thing.name} added`))
      reset(fresh);
  });
  return (
    <Dialog title="Things outside boxes" open onClose={onClose}>
      <ul className="mb-3">
        {(job.things ?? []).map((thing) => (
          <li key={thing.id} className="flex items-center gap-2 border-t border-rule py-1">
            <span className="flex-1">
              <b>{thing.name}</b>, {thing.kind}, {known.rooms.get(thing.roomId)?.name}
            </span>
            <Button
              kind="quiet"
              icon={X}
              iconOnly
              onClick={() => apply([removePart('thing', thing.id)], `${thing.name} taken out`)}
            >
              {`Take out ${thing.name}`}
            </Button>
          </li>
        ))}
      </ul>
      <form className="flex flex-col gap-2" onSubmit={(event) => void add(event)}>
        <TextField
          label="Name"
          value={typed.name}
          maxLength={100}
          onText={(text) => setValue('name', text)}
        />
        <div className="grid grid-cols-2 gap-2">
          <PickOne
            label="Kind"
            value={typed.kind}
            options={KINDS}
            onChoice={(kind) => setValue('kind', kind)}
          />
          <PickOne
            label="Room"
            value={typed.roomId}
            options={rooms}
            onChoice={(room) => setValue('roomId', room)}
          />
        </div>
        <PickSeveral
          label="In the apps"
          values={typed.platforms}
          options={platforms}
          placeholder="None"
          onChoice={(names) => setValue('platforms', names)}
        />
        <Button kind="main" type="submit" disabled={typed.name.trim() === '' || typed.roomId === ''}>
          Add it
        </Button>
      </form>
    </Dialog>
  );
}
