import {
  type ControlPoint,
  ControlPointEntry,
  deviceName,
  plural,
  putPart,
  removePart,
} from '@inventario/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import type { Plans } from '../../data/planner.worker.js';
import { FormPick, FormSegments, FormText } from '../../parts/form-fields.js';
import { RecordForm, useRecordForm } from '../../parts/record-form.js';
import { Button } from '../../ui/button.js';
import { PickSeveral } from '../../ui/choice.js';
import { VerdictWord } from '../../ui/verdict.js';

const MOUNTINGS = [
  { value: 'wall', label: 'stuck on the wall' },
  { value: 'extra-gang', label: 'a further gang of a wider plate' },
  { value: 'over-switch', label: 'over a switch left on' },
] as const;

const mountingWords = ({ mounting }: ControlPoint) =>
  MOUNTINGS.find((entry) => entry.value === mounting)?.label ?? 'on the wall';

/** Controls that have no box of their own; one may work several things. */
export function ControlPoints({ judged }: { judged: Plans['controls'] }) {
  const { job, known, apply } = useJob();
  const [editing, setEditing] = useState<ControlPoint | null>(null);
  const points = job.controlPoints ?? [];
  const fresh = (): ControlPoint => ({
    id: newId(),
    roomId: job.rooms[0]?.id ?? '',
    name: '',
    deviceId: '',
    mounting: 'wall',
    targets: [],
  });
  return (
    <section aria-label="Controls without a box" className="my-4 max-w-3xl">
      <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-lg font-bold">Controls without a box</h2>
        <Button icon={Plus} disabled={job.rooms.length === 0} onClick={() => setEditing(fresh())}>
          Add a control
        </Button>
      </div>
      {points.length === 0 && (
        <p className="text-soft">
          None. A battery control can be stuck on a wall or stand over a switch that is left on.
        </p>
      )}
      <ul>
        {points.map((point) => {
          const answer = judged.find((entry) => entry.id === point.id);
          const device = known.devices.get(point.deviceId);
          return (
            <li key={point.id} aria-label={point.name} className="border-t border-rule py-1.5">
              <div className="flex flex-wrap items-center gap-3">
                {answer && <VerdictWord verdict={answer.verdict} />}
                <button type="button" className="min-h-11 flex-1 text-left" onClick={() => setEditing(point)}>
                  <span className="font-semibold underline">{point.name}</span>
                  <span className="text-soft">
                    {' '}
                    {device ? deviceName(device) : point.deviceId}, {mountingWords(point)} in{' '}
                    {known.rooms.get(point.roomId)?.name}, controls {plural(point.targets.length, 'thing')}
                  </span>
                </button>
                <Button
                  kind="quiet"
                  icon={Trash2}
                  iconOnly
                  onClick={() => apply([removePart('controlPoint', point.id)], `Delete ${point.name}`)}
                >
                  Delete {point.name}
                </Button>
              </div>
              <ul className="text-sm">
                {answer?.reasons.map((reason) => (
                  <li key={reason.text}>{reason.text}</li>
                ))}
              </ul>
            </li>
          );
        })}
      </ul>
      {editing && <ControlDialog point={editing} onClose={() => setEditing(null)} />}
    </section>
  );
}

/** A target as a value of a list to pick from. */
const keyOf = ({ loadId, boxId, position }: ControlPoint['targets'][number]) =>
  loadId ? `load:${loadId}` : `place:${boxId}/${position}`;

function targetOf(key: string): ControlPoint['targets'][number] {
  const rest = key.slice(key.indexOf(':') + 1);
  if (key.startsWith('load:')) return { loadId: rest };
  const slash = rest.lastIndexOf('/');
  return { boxId: rest.slice(0, slash), position: Number(rest.slice(slash + 1)) };
}

/** What a control can work: devices that are chosen, and bulbs. */
function useTargets() {
  const { job, known } = useJob();
  return [
    ...job.selections.flatMap(({ boxId, position, deviceId }) => {
      const device = known.devices.get(deviceId ?? '');
      const box = known.boxes.get(boxId)?.name;
      return device ? [{ value: keyOf({ boxId, position }), label: `${box}, ${deviceName(device)}` }] : [];
    }),
    ...job.loads
      .filter((load) => load.kind === 'smart-bulb')
      .map((load) => ({ value: keyOf({ loadId: load.id }), label: `${load.name}, its bulbs` })),
  ];
}

function ControlDialog({ point, onClose }: { point: ControlPoint; onClose: () => void }) {
  const { job, attempt } = useJob();
  const form = useRecordForm(ControlPointEntry, { mounting: 'wall', ...point });
  const { control } = form;
  const controls = job.catalogue.devices.filter(
    (device) => device.mount === 'surface' && device.practices.includes(job.practice),
  );
  return (
    <RecordForm
      title="A control without a box"
      save="Keep the control"
      form={form}
      onSave={(made) => attempt([putPart('controlPoint', made.id, made)], `Control: ${made.name}`)}
      onClose={onClose}
    >
      <FormText control={control} name="name" label="Name" maxLength={100} autoFocus />
      <FormPick
        control={control}
        name="roomId"
        label="Room"
        options={job.rooms.map((room) => ({ value: room.id, label: room.name }))}
      />
      <FormPick
        control={control}
        name="deviceId"
        label="Device"
        placeholder={controls.length === 0 ? 'none in the catalogue goes on a wall' : 'Choose'}
        options={controls.map((device) => ({ value: device.id, label: deviceName(device) }))}
      />
      <FormSegments control={control} name="mounting" label="Where it sits" options={MOUNTINGS} />
      <PickSeveral
        label="What it controls"
        placeholder="nothing yet"
        values={form.watch('targets').map(keyOf)}
        options={useTargets()}
        onChoice={(keys) => form.setValue('targets', keys.map(targetOf))}
      />
    </RecordForm>
  );
}
