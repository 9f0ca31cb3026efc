import {
  boxesOfRoom,
  editionOf,
  LOAD_WORDS,
  orderParts,
  plural,
  profileOf,
  removalOf,
  roomsInOrder,
} from '@inventario/core';
import { Boxes, Pencil, Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { LoadDialog } from '../../parts/load-dialog.js';
import { Button } from '../../ui/button.js';
import { SortableList } from '../../ui/sortable-list.js';
import { CircuitDialog } from './circuit-dialog.js';
import { JobDialog } from './job-dialog.js';
import { ManyBoxesDialog } from './many-boxes.js';
import { RoomDialog } from './room-dialog.js';

type Editing = { kind: 'job' } | { kind: 'boxes' } | { kind: 'room' | 'circuit' | 'load'; id: string | null };

/** What is being changed; without an id a new one is made. */
type Edit = (editing: Editing) => void;

/** The house before the walk: its rooms, what the breakers feed, what the switches work. */
export function HouseView() {
  const { job } = useJob();
  const [editing, setEditing] = useState<Editing | null>(null);
  return (
    <Bench
      title="House"
      glance={`${job.rooms.length} rooms, ${job.circuits.length} circuits, ${job.loads.length} loads`}
      reckoning={<HouseReckoning />}
    >
      <JobHead onEdit={() => setEditing({ kind: 'job' })} onMany={() => setEditing({ kind: 'boxes' })} />
      <div className="grid grid-cols-1 gap-6 xl:grid-cols-2">
        <Rooms onEdit={setEditing} />
        <Circuits onEdit={setEditing} />
        <Loads onEdit={setEditing} />
      </div>
      {editing && <EditDialog editing={editing} onClose={() => setEditing(null)} />}
    </Bench>
  );
}

function EditDialog({ editing, onClose }: { editing: Editing; onClose: () => void }) {
  switch (editing.kind) {
    case 'job':
      return <JobDialog onClose={onClose} />;
    case 'boxes':
      return <ManyBoxesDialog onClose={onClose} />;
    case 'room':
      return <RoomDialog id={editing.id} onClose={onClose} />;
    case 'circuit':
      return <CircuitDialog id={editing.id} onClose={onClose} />;
    case 'load':
      return <LoadDialog id={editing.id} onClose={onClose} />;
  }
}

function JobHead({ onEdit, onMany }: { onEdit: () => void; onMany: () => void }) {
  const { job } = useJob();
  const edition = editionOf(job);
  const says = [
    profileOf(job).words.practice,
    edition ? `${edition} edition` : '',
    job.client?.name,
    job.address,
  ];
  return (
    <div className="mb-4 flex flex-wrap items-start gap-2">
      <div className="mr-auto">
        <h1 className="text-xl font-bold">{job.name}</h1>
        <p className="text-soft">{says.filter(Boolean).join(' · ')}</p>
      </div>
      <Button icon={Boxes} onClick={onMany}>
        Edit several boxes
      </Button>
      <Button icon={Pencil} onClick={onEdit}>
        Job details
      </Button>
    </div>
  );
}

/** Rooms by floor; within a floor their order is the installer's. */
function Rooms({ onEdit }: { onEdit: Edit }) {
  const { job, known, apply } = useJob();
  const floors = [...new Set(roomsInOrder(job).map(({ floor }) => floor))];
  const nameOf = (id: string) => known.rooms.get(id)?.name ?? id;
  return (
    <Section
      title="Rooms, in walking order"
      add="Add a room"
      onAdd={() => onEdit({ kind: 'room', id: null })}
      empty="Begin with the rooms you will walk through."
      isEmpty={floors.length === 0}
    >
      {floors.map((floor) => (
        <SortableList
          key={floor}
          label={`Rooms of floor ${floor}`}
          ids={roomsInOrder(job).flatMap((room) => (room.floor === floor ? [room.id] : []))}
          nameOf={nameOf}
          onOrder={(ids) => apply(orderParts(job, 'room', ids), 'Order of the rooms')}
        >
          {(id) => (
            <Row
              kind="room"
              id={id}
              name={nameOf(id)}
              says={`floor ${floor}, ${plural(boxesOfRoom(job, id).length, 'box', 'boxes')}`}
              onEdit={onEdit}
            />
          )}
        </SortableList>
      ))}
    </Section>
  );
}

function Circuits({ onEdit }: { onEdit: Edit }) {
  const { job } = useJob();
  return (
    <Section
      title="Circuits"
      add="Add a circuit"
      onAdd={() => onEdit({ kind: 'circuit', id: null })}
      empty="Read the panel: number, label, rating of each breaker."
      isEmpty={job.circuits.length === 0}
    >
      <ul>
        {job.circuits.map(({ id, breaker, label, panel, amps, volts, leg }) => (
          <li key={id} className="border-t border-rule">
            <Row
              kind="circuit"
              id={id}
              name={`${breaker} ${label}`}
              says={`${panel}, ${amps} A, ${volts} V${leg ? `, leg ${leg}` : ''}`}
              taken={`breaker ${breaker}`}
              onEdit={onEdit}
            />
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Loads({ onEdit }: { onEdit: Edit }) {
  const { job, known } = useJob();
  return (
    <Section
      title="Loads"
      add="Add a load"
      onAdd={() => onEdit({ kind: 'load', id: null })}
      empty="What the switches work: lamps, fans, receptacles."
      isEmpty={job.loads.length === 0}
    >
      <ul>
        {job.loads.map(({ id, name, roomId, count, wattsEach, kind }) => (
          <li key={id} className="border-t border-rule">
            <Row
              kind="load"
              id={id}
              name={name}
              says={`${known.rooms.get(roomId)?.name ?? ''}: ${count} × ${wattsEach} W, ${LOAD_WORDS[kind]}`}
              onEdit={onEdit}
            />
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Section({
  title,
  add,
  onAdd,
  empty,
  isEmpty,
  children,
}: {
  title: string;
  add: string;
  onAdd: () => void;
  empty: string;
  isEmpty: boolean;
  children: ReactNode;
}) {
  return (
    <section aria-label={title}>
      <div className="mb-1 flex flex-wrap items-center justify-between">
        <h2 className="font-bold">{title}</h2>
        <Button icon={Plus} onClick={onAdd}>
          {add}
        </Button>
      </div>
      {isEmpty ? <p className="py-3 text-soft">{empty}</p> : children}
    </section>
  );
}

/** A record that is changed by a touch and taken out with the way back. */
function Row({
  kind,
  id,
  name,
  says,
  taken = name,
  onEdit,
}: {
  kind: 'room' | 'circuit' | 'load';
  id: string;
  name: string;
  says: string;
  /** What it is called when it is deleted. */
  taken?: string;
  onEdit: Edit;
}) {
  const { job, applyAndSay } = useJob();
  return (
    <div className="flex items-center gap-1">
      <button
        type="button"
        onClick={() => onEdit({ kind, id })}
        className="min-h-13 min-w-0 flex-1 rounded-md px-1 py-1 text-left hover:bg-well"
      >
        <span className="block leading-tight font-semibold">{name}</span>
        <span className="block truncate text-sm text-soft">{says}</span>
      </button>
      <Button
        kind="quiet"
        icon={Trash2}
        iconOnly
        onClick={() => applyAndSay(removalOf(job, kind, id), `Delete ${taken}`, `${taken} is deleted.`)}
      >
        Delete {name}
      </Button>
    </div>
  );
}

function HouseReckoning() {
  const { job } = useJob();
  const perCircuit = job.circuits.map((circuit) => {
    const boxes = job.boxes.filter((box) => box.circuitIds.includes(circuit.id));
    const loads = new Set(boxes.flatMap((box) => box.positions.flatMap((position) => position.loadIds)));
    const watts = job.loads
      .filter((load) => loads.has(load.id))
      .reduce((sum, load) => sum + load.count * load.wattsEach, 0);
    return { circuit, boxes: boxes.length, watts };
  });
  const unfed = job.boxes.filter((box) => box.circuitIds.length === 0);
  return (
    <div className="flex flex-col gap-4">
      <h2 className="font-bold">What each breaker feeds</h2>
      {perCircuit.length === 0 && <p className="text-soft">No circuits recorded.</p>}
      <ul className="flex flex-col gap-2">
        {perCircuit.map(({ circuit, boxes, watts }) => (
          <li key={circuit.id} className="rounded-md border border-rule bg-sheet p-3">
            <span className="font-semibold">
              {circuit.breaker} {circuit.label}
            </span>
            <span className="block text-sm text-soft">
              {plural(boxes, 'box', 'boxes')}, {watts} W of {circuit.amps * circuit.volts} W switched from
              them
            </span>
          </li>
        ))}
      </ul>
      {unfed.length > 0 && (
        <p>
          {plural(unfed.length, 'box names', 'boxes name')} no circuit:{' '}
          {unfed.map((box) => box.name).join(', ')}.
        </p>
      )}
      <p className="text-sm text-soft">What a breaker’s label says is a hint: switching and testing tells.</p>
    </div>
  );
}
