import {
  boxesOfRoom,
  enclosureChips,
  lengthText,
  type ManyBoxes,
  manyBoxesParts,
  plural,
  roomsInOrder,
  volumeText,
} from '@inventario/core';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { MATERIALS, PLATES } from '../../parts/enclosure-choices.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';

/** Several boxes set alike in one edit: room, circuit, enclosure, plate. */
export function ManyBoxesDialog({ onClose }: { onClose: () => void }) {
  const { job, applyAndSay } = useJob();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [set, setSet] = useState<ManyBoxes>({});
  const boxes = job.boxes.filter(({ id }) => chosen.has(id));
  const toggle = (ids: readonly string[], on: boolean) =>
    setChosen(new Set([...[...chosen].filter((id) => !ids.includes(id)), ...(on ? ids : [])]));
  const parts = manyBoxesParts(boxes, set);
  const apply = () => {
    const count = plural(parts.length, 'box', 'boxes');
    if (applyAndSay(parts, `Edit ${count} at once`, `${count} changed.`)) onClose();
  };
  return (
    <Dialog title="Edit several boxes" open onClose={onClose}>
      <div className="flex flex-col gap-3">
        {roomsInOrder(job).map((room) => {
          const own = boxesOfRoom(job, room.id);
          if (own.length === 0) return null;
          const all = own.every(({ id }) => chosen.has(id));
          return (
            <fieldset key={room.id} className="flex flex-wrap items-center gap-x-4">
              <legend className="sr-only">{room.name}</legend>
              <Tick
                label={`all of ${room.name}`}
                on={all}
                onTick={(on) =>
                  toggle(
                    own.map(({ id }) => id),
                    on,
                  )
                }
                strong
              />
              {own.map(({ id, name }) => (
                <Tick key={id} label={name} on={chosen.has(id)} onTick={(on) => toggle([id], on)} />
              ))}
            </fieldset>
          );
        })}
        <ManyFields set={set} onSet={(more) => setSet({ ...set, ...more })} like={boxes[0]?.id} />
        <Button kind="main" disabled={parts.length === 0} onClick={apply}>
          {parts.length === 0
            ? 'Choose boxes, and what to set'
            : `Set it in ${plural(parts.length, 'box', 'boxes')}`}
        </Button>
      </div>
    </Dialog>
  );
}

function ManyFields({
  set,
  onSet,
  like,
}: {
  set: ManyBoxes;
  onSet: (more: ManyBoxes) => void;
  like: string | undefined;
}) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const first = known.boxes.get(like ?? '');
  const sizes = first ? enclosureChips({ ...first, id: '' }, job) : [];
  return (
    <div className="grid grid-cols-2 gap-3">
      <PickOne
        label="Room"
        value={set.roomId ?? null}
        placeholder="as it is"
        options={roomsInOrder(job).map(({ id, name }) => ({ value: id, label: name }))}
        onChoice={(roomId) => roomId && onSet({ roomId })}
      />
      <PickOne
        label="Fed by"
        value={set.circuitId ?? null}
        placeholder="as it is"
        options={job.circuits.map(({ id, breaker, label }) => ({ value: id, label: `${breaker} ${label}` }))}
        onChoice={(circuitId) => circuitId && onSet({ circuitId })}
      />
      <PickOne
        label="Material"
        value={set.material ?? null}
        placeholder="as it is"
        options={MATERIALS}
        onChoice={(material) => material && onSet({ material })}
      />
      <PickOne
        label="Plate"
        value={set.plate ?? null}
        placeholder="as it is"
        options={PLATES}
        onChoice={(plate) => plate && onSet({ plate })}
      />
      <PickOne
        label="Volume and depth"
        value={set.size ? JSON.stringify(set.size) : null}
        placeholder={first ? 'as it is' : 'choose a box first'}
        options={sizes.map(({ capacity, depth, ml, from }) => ({
          value: JSON.stringify({ capacity, depth }),
          label: `${volumeText(ml, units)}, ${lengthText(depth, units)}`,
          hint: 'boxName' in from ? `as ${from.boxName}` : from.standard,
        }))}
        onChoice={(size) => size && onSet({ size: JSON.parse(size) })}
        className="col-span-2"
      />
    </div>
  );
}

function Tick({
  label,
  on,
  onTick,
  strong = false,
}: {
  label: string;
  on: boolean;
  onTick: (on: boolean) => void;
  strong?: boolean;
}) {
  return (
    <label
      className={
        strong ? 'flex min-h-11 w-full items-center gap-2 font-semibold' : 'flex min-h-11 items-center gap-2'
      }
    >
      <input
        type="checkbox"
        className="size-6 accent-ink"
        checked={on}
        onChange={(event) => onTick(event.target.checked)}
      />
      {label}
    </label>
  );
}
