import { putPart, type Room, setParts } from '@inventario/core';
import { useState } from 'react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { RecordForm } from '../../parts/record-form.js';
import { NumberField, TextField } from '../../ui/field.js';

export function RoomDialog({ id, onClose }: { id: string | null; onClose: () => void }) {
  const { job, known, attempt } = useJob();
  const before = id ? known.rooms.get(id) : undefined;
  const [room, setRoom] = useState<Room>(
    before ?? {
      id: newId(),
      name: '',
      floor: 0,
      order: Math.max(0, ...job.rooms.map((other) => other.order)) + 1,
    },
  );
  const save = () => {
    if (room.name.trim() === '') return 'Give the room a name.';
    return before
      ? attempt(setParts('room', room.id, before, room), `Change ${room.name}`)
      : attempt([putPart('room', room.id, room)], `Add ${room.name}`);
  };
  return (
    <RecordForm
      title={before ? 'Change the room' : 'Add a room'}
      save={before ? 'Keep the change' : 'Add the room'}
      onSave={save}
      onClose={onClose}
    >
      <TextField
        label="Name"
        value={room.name}
        onText={(name) => setRoom({ ...room, name })}
        maxLength={100}
        autoFocus
      />
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Floor"
          value={room.floor}
          min={-5}
          max={50}
          whole
          onNumber={(floor) => setRoom({ ...room, floor })}
          hint="0 is the ground floor"
        />
        <NumberField
          label="Order in the walk"
          value={room.order}
          onNumber={(order) => setRoom({ ...room, order })}
        />
      </div>
    </RecordForm>
  );
}
