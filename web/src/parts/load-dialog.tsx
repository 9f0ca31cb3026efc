import {
  LOAD_WORDS,
  type Load,
  LoadEntry,
  type LoadKind,
  putPart,
  roomsInOrder,
  setParts,
} from '@inventario/core';
import { newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { FormNumber, FormPick, FormText, FormYesNo } from './form-fields.js';
import { RecordForm, useRecordForm } from './record-form.js';

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
  const form = useRecordForm(
    LoadEntry,
    before ?? {
      id: newId(),
      name: '',
      roomId: roomId ?? rooms[0]?.id ?? '',
      kind: 'led',
      count: 1,
      wattsEach: 9,
    },
  );
  const { control } = form;
  const save = (load: Load) => {
    const hindered = before
      ? attempt(setParts('load', load.id, before, load), `Change ${load.name}`)
      : attempt([putPart('load', load.id, load)], `Add ${load.name}`);
    if (!hindered && !before) onMade?.(load.id);
    return hindered;
  };
  return (
    <RecordForm
      title={before ? 'Change the load' : 'Add a load'}
      save={before ? 'Done' : 'Add the load'}
      form={form}
      onSave={save}
      onClose={onClose}
    >
      <FormText control={control} name="name" label="Name" maxLength={100} autoFocus />
      <div className="grid grid-cols-2 gap-3">
        <FormPick control={control} name="kind" label="Kind" options={KINDS} />
        <FormPick
          control={control}
          name="roomId"
          label="Room"
          options={rooms.map((room) => ({ value: room.id, label: room.name }))}
        />
        <FormNumber control={control} name="count" label="How many" whole max={500} />
        <FormNumber control={control} name="wattsEach" label="Each" unit="W" max={20_000} />
      </div>
      <FormYesNo
        control={control}
        name="dimmable"
        label="Can it be dimmed?"
        words={{ yes: 'yes, marked so', no: 'no', untold: 'not known' }}
      />
    </RecordForm>
  );
}
