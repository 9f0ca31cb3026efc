import {
  type Box,
  deviceName,
  type ExistingDevice,
  existingTerminals,
  joinGroupParts,
  leaveGroupParts,
  type Position,
  placeKey,
  placesOfSameLoad,
  type Words,
  withExisting,
} from '@inventario/core';
import { ArrowRight, Plus } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { LoadDialog } from '../../../parts/load-dialog.js';
import { paths } from '../../../parts/paths.js';
import { Button } from '../../../ui/button.js';
import { PickOne, PickSeveral, Segments } from '../../../ui/choice.js';
import { Toggle } from '../../../ui/toggle.js';
import type { ChangeBox } from '../change-box.js';
import { SmartAsFound } from './smart-as-found.js';

interface PositionProps {
  box: Box;
  position: Position;
  words: Words;
  change: ChangeBox;
  addingLoad: boolean;
  onAddLoad: (open: boolean) => void;
}

/** One control: what is there now, what it works, what the client wants of it. */
export function PositionPanel({ box, position, words, change, addingLoad, onAddLoad }: PositionProps) {
  const { job, known } = useJob();
  const need = position.need ?? {};
  const put = (more: Partial<Position>, label: string) => {
    const next = { ...position, ...more };
    change(
      { positions: box.positions.map((other) => (other.index === position.index ? next : other)) },
      label,
    );
  };
  const setExisting = (existing: ExistingDevice) => {
    const { deviceId, leads, replaces, ...rest } = position;
    const next = { ...rest, existing };
    change(
      withExisting(box, position.index, next, existingTerminals(next, known.devices)),
      `Position ${position.index}: ${words.existing[existing]}`,
    );
  };
  const [asFound, setAsFound] = useState(false);
  const selection = known.selections.get(placeKey(box.id, position.index));
  const device = selection?.deviceId ? known.devices.get(selection.deviceId) : undefined;
  return (
    <article
      aria-label={`Position ${position.index}`}
      className="flex flex-col gap-3 rounded-lg border border-rule bg-sheet p-3"
    >
      <div className="grid grid-cols-2 gap-3">
        <PickOne
          label={`Position ${position.index}, now`}
          value={position.existing}
          options={(Object.keys(words.existing) as ExistingDevice[]).map((value) => ({
            value,
            label: words.existing[value],
          }))}
          onChoice={(existing) => (existing === 'smart' ? setAsFound(true) : setExisting(existing))}
        />
        <PickSeveral
          label="Controls"
          placeholder="which load?"
          values={position.loadIds}
          options={job.loads.map((load) => ({ value: load.id, label: load.name }))}
          onChoice={(loadIds) => put({ loadIds }, 'What the position controls')}
        />
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <Toggle
          label="Wants a smart device"
          on={need.smart === true}
          onToggle={(smart) =>
            put({ need: { ...need, smart } }, smart ? 'Wants a smart device' : 'Stays as it is')
          }
        />
        <Button icon={Plus} kind="quiet" onClick={() => onAddLoad(true)}>
          New load
        </Button>
      </div>
      {position.existing === 'smart' && (
        <div className="flex flex-wrap items-center justify-between gap-2 text-sm">
          <span>
            {nameOfDevice(known.devices.get(position.deviceId ?? ''))}
            {position.replaces &&
              ', known as ' +
                `“${position.replaces.name}”${position.replaces.hub ? ` on ${position.replaces.hub}` : ''}`}
          </span>
          <Button kind="quiet" onClick={() => setAsFound(true)}>
            Change what was found
          </Button>
        </div>
      )}
      {need.smart && (
        <Segments
          label="Dimming"
          value={need.dim ?? null}
          options={[
            { value: 'must' as const, label: 'must' },
            { value: 'nice' as const, label: 'nice' },
            { value: 'no' as const, label: 'no' },
          ]}
          onChoice={(dim) => put({ need: { ...need, dim } }, `Dimming: ${dim}`)}
        />
      )}
      <GroupOf box={box} position={position} />
      {need.smart && (
        <Link
          to={paths.place(job.id, box.id, position.index)}
          className="flex min-h-11 items-center justify-between gap-2 rounded-md border border-ink px-3 font-semibold hover:bg-well"
        >
          <span>
            {device
              ? deviceName(device)
              : selection
                ? 'The mechanical switch stays'
                : 'Which devices fit here?'}
          </span>
          <ArrowRight aria-hidden className="size-5" />
        </Link>
      )}
      {asFound && <SmartAsFound box={box} position={position} onClose={() => setAsFound(false)} />}
      {addingLoad && (
        <LoadDialog
          id={null}
          roomId={box.roomId}
          onClose={() => onAddLoad(false)}
          onMade={(loadId) => put({ loadIds: [...position.loadIds, loadId] }, 'A new load')}
        />
      )}
    </article>
  );
}

const nameOfDevice = (device: { maker: string; model: string } | undefined) =>
  device ? deviceName(device) : 'A smart device';

/** Lights worked from several places: offered where other positions work the same load. */
function GroupOf({ box, position }: { box: Box; position: Position }) {
  const { job, known, apply } = useJob();
  const here = { boxId: box.id, position: position.index };
  const key = placeKey(box.id, position.index);
  const group = known.groups.get(key);
  const nameOf = (place: { boxId: string; position: number }) =>
    `${known.boxes.get(place.boxId)?.name ?? place.boxId}, ${place.position}`;
  if (group) {
    const rest = group.places.filter((place) => placeKey(place.boxId, place.position) !== key);
    return (
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <span>Controls it together with {rest.map(nameOf).join(' and ')}.</span>
        <Button
          kind="quiet"
          onClick={() => apply(leaveGroupParts(job, group, here), 'Not controlled together')}
        >
          Not so
        </Button>
      </div>
    );
  }
  const others = placesOfSameLoad(job, box, position);
  if (others.length === 0) return null;
  const join = () =>
    apply(
      joinGroupParts(job, { ...here, loadIds: position.loadIds }, others, newId),
      'Controlled from several places',
    );
  return (
    <div className="flex flex-wrap items-center gap-2 text-sm">
      <span>{others.map(nameOf).join(' and ')} controls the same load.</span>
      <Button onClick={join}>They control it together</Button>
    </div>
  );
}
