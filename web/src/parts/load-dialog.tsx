import { LOAD_WORDS, type Load, type LoadKind, putPart, roomsInOrder, setParts } from '@inventario/core';
import { useState } from 'react';
import { newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { PickOne, Segments } from '../ui/choice.js';
import { NumberField, TextField } from '../ui/field.js';
import { RecordForm } from './record-form.js';

const KINDS = (Object.keys(LOAD_WORDS) as LoadKind[]).map((value) => ({ value, label: LOAD_WORDS[value] }));

/**
 * @param roomId where a new load is, @param onMade what to do with a new one: a position takes it up at once
 */
export function LoadDialog({
  id,
  roomId,
  onClose,
  onMade,
}: {
  id: string | null;
  roomId?: string;
  onClose: () => void;
  onMade?: (loadId: string) => void;
}) {
  const { job, known, attempt } = useJob();
  const rooms = roomsInOrder(job);
  const before = id ? known.loads.get(id) : undefined;
  const [load, setLoad] = useState<Load>(
    before ?? {
      id: newId(),
      name: '',
      roomId: roomId ?? rooms[0]?.id ?? '',
      kind: 'led',
      count: 1,
      wattsEach: 9,
    },
  );
  const change = (more: Partial<Load>) => setLoad({ ...load, ...more });
  const save = () => {
    if (load.name.trim() === '') return 'Give the load a name the client would use.';
    if (load.roomId === '') return 'Add a room first: a load is in one.';
    const hindered = before
      ? attempt(setParts('load', load.id, before, load), `Change ${load.name}`)
      : attempt([putPart('load', load.id, load)], `Add ${load.name}`);
    if (!hindered && !before) onMade?.(load.id);
    return hindered;
  };
  const dimmable = load.dimmable === undefined ? 'unknown' : load.dimmable ? 'yes' : 'no';
  return (
    <RecordForm
      title={before ? 'Change the load' : 'Add a load'}
      save={before ? 'Keep the change' : 'Add the load'}
      onSave={save}
      onClose={onClose}
    >
      <TextField
        label="Name"
        value={load.name}
        onText={(name) => change({ name })}
        maxLength={100}
        autoFocus
      />
      <div className="grid grid-cols-2 gap-3">
        <PickOne label="Kind" value={load.kind} options={KINDS} onChoice={(kind) => change({ kind })} />
        <PickOne
          label="Room"
          value={load.roomId}
          options={rooms.map((room) => ({ value: room.id, label: room.name }))}
          onChoice={(room) => change({ roomId: room })}
        />
        <NumberField
          label="How many"
          whole
          value={load.count}
          max={500}
          onNumber={(count) => change({ count })}
        />
        <NumberField
          label="Each"
          unit="W"
          value={load.wattsEach}
          max={20_000}
          onNumber={(wattsEach) => change({ wattsEach })}
        />
      </div>
      <Segments
        label="Can it be dimmed?"
        value={dimmable}
        options={[
          { value: 'yes', label: 'yes, marked so' },
          { value: 'no', label: 'no' },
          { value: 'unknown', label: 'not known' },
        ]}
        onChoice={(answer) => change({ dimmable: answer === 'unknown' ? undefined : answer === 'yes' })}
      />
    </RecordForm>
  );
}
