import { boxesOfRoom, orderParts, putPart, RoomEntry, setParts } from '@inventario/core';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { FormNumber, FormText } from '../../parts/form-fields.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';
import { SortableList } from '../../ui/sortable-list.js';

export function RoomDialog({ id, onClose }: { id: string | null; onClose: () => void }) {
  const { job, known, attempt } = useJob();
  const before = id ? known.rooms.get(id) : undefined;
  const form = useRecordForm(
    RoomEntry,
    before ?? {
      id: newId(),
      name: '',
      floor: 0,
      order: Math.max(0, ...job.rooms.map((other) => other.order)) + 1,
    },
  );
  const { control } = form;
  return (
    <RecordForm
      title={before ? 'Change the room' : 'Add a room'}
      save={before ? 'Done' : 'Add the room'}
      form={form}
      onSave={(room) =>
        before
          ? attempt(setParts('room', room.id, before, room), `Change ${room.name}`)
          : attempt([putPart('room', room.id, room)], `Add ${room.name}`)
      }
      onClose={onClose}
    >
      <FormText control={control} name="name" label="Name" maxLength={100} autoFocus />
      <FormNumber
        control={control}
        name="floor"
        label="Floor"
        min={-5}
        max={50}
        whole
        hint="0 is the ground floor"
      />
      {before && <BoxOrder roomId={before.id} />}
    </RecordForm>
  );
}

/** The boxes of a room in walking order; recorded at once. */
function BoxOrder({ roomId }: { roomId: string }) {
  const { job, known, apply } = useJob();
  const boxes = boxesOfRoom(job, roomId);
  if (boxes.length < 2) return null;
  const nameOf = (id: string) => known.boxes.get(id)?.name || 'Unnamed box';
  return (
    <section aria-label="Boxes">
      <h3 className="mb-1 text-sm font-semibold text-soft">Boxes, in walking order</h3>
      <SortableList
        label="Boxes, in walking order"
        ids={boxes.map(({ id }) => id)}
        nameOf={nameOf}
        onOrder={(ids) => apply(orderParts(job, 'box', ids), 'Order of the boxes')}
      >
        {nameOf}
      </SortableList>
    </section>
  );
}
