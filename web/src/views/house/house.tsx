import { editionOf, LOAD_WORDS, plural, profileOf, removalOf, roomsInOrder } from '@inventario/core';
import { Pencil, Plus, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { Bench } from '../../parts/bench.js';
import { LoadDialog } from '../../parts/load-dialog.js';
import { Button } from '../../ui/button.js';
import { CircuitDialog } from './circuit-dialog.js';
import { JobDialog } from './job-dialog.js';
import { RoomDialog } from './room-dialog.js';

type Editing = { kind: 'job' } | { kind: 'room' | 'circuit' | 'load'; id: string | null };

/** The house before the walk: its rooms, what the breakers feed, what the switches work. */
export function HouseView() {
  const { job, known, applyAndSay } = useJob();
  const edition = editionOf(job);
  const [editing, setEditing] = useState<Editing | null>(null);
  const close = () => setEditing(null);
  const remove = (kind: 'room' | 'circuit' | 'load', id: string, name: string) => {
    applyAndSay(removalOf(job, kind, id), `Take out ${name}`, `${name} is taken out.`);
  };
  const idOf = (kind: Editing['kind']) =>
    editing && editing.kind === kind && 'id' in editing ? editing.id : null;
  const boxesIn = (roomId: string) => job.boxes.filter((box) => box.roomId === roomId).length;

  return (
    <Bench
      title="House"
      glance={`${job.rooms.length} rooms, ${job.circuits.length} circuits, ${job.loads.length} loads`}
      reckoning={<HouseReckoning />}
    >
      <div className="mb-4 flex flex-wrap items-start gap-2">
        <div className="mr-auto">
          <h1 className="text-xl font-bold">{job.name}</h1>
          <p className="text-soft">
            {[
              profileOf(job).words.practice,
              edition ? `${edition} edition` : '',
              job.client?.name,
              job.address,
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
        </div>
        <Button icon={Pencil} onClick={() => setEditing({ kind: 'job' })}>
          The job
        </Button>
      </div>
      <div className="grid gap-6 xl:grid-cols-2">
        <List
          title="Rooms, in walking order"
          add="Add a room"
          onAdd={() => setEditing({ kind: 'room', id: null })}
          empty="Begin with the rooms you will walk through."
        >
          {roomsInOrder(job).map((room) => (
            <Row
              key={room.id}
              name={room.name}
              says={`floor ${room.floor}, ${boxesIn(room.id)} box${boxesIn(room.id) === 1 ? '' : 'es'}`}
              onEdit={() => setEditing({ kind: 'room', id: room.id })}
              onRemove={() => remove('room', room.id, room.name)}
            />
          ))}
        </List>
        <List
          title="Circuits"
          add="Add a circuit"
          onAdd={() => setEditing({ kind: 'circuit', id: null })}
          empty="Read the panel: number, label, rating of each breaker."
        >
          {job.circuits.map((circuit) => (
            <Row
              key={circuit.id}
              name={`${circuit.breaker} ${circuit.label}`}
              says={
                `${circuit.panel}, ${circuit.amps} A, ${circuit.volts} ` +
                `V${circuit.leg ? `, leg ${circuit.leg}` : ''}`
              }
              onEdit={() => setEditing({ kind: 'circuit', id: circuit.id })}
              onRemove={() => remove('circuit', circuit.id, `breaker ${circuit.breaker}`)}
            />
          ))}
        </List>
        <List
          title="Loads"
          add="Add a load"
          onAdd={() => setEditing({ kind: 'load', id: null })}
          empty="What the switches work: lamps, fans, receptacles."
        >
          {job.loads.map((load) => (
            <Row
              key={load.id}
              name={load.name}
              says={
                `${known.rooms.get(load.roomId)?.name ?? ''}: ${load.count} × ${load.wattsEach} W, ` +
                `${LOAD_WORDS[load.kind]}`
              }
              onEdit={() => setEditing({ kind: 'load', id: load.id })}
              onRemove={() => remove('load', load.id, load.name)}
            />
          ))}
        </List>
      </div>
      {editing?.kind === 'job' && <JobDialog onClose={close} />}
      {editing?.kind === 'room' && <RoomDialog id={idOf('room')} onClose={close} />}
      {editing?.kind === 'circuit' && <CircuitDialog id={idOf('circuit')} onClose={close} />}
      {editing?.kind === 'load' && <LoadDialog id={idOf('load')} onClose={close} />}
    </Bench>
  );
}

function List({
  title,
  add,
  onAdd,
  empty,
  children,
}: {
  title: string;
  add: string;
  onAdd: () => void;
  empty: string;
  children: ReactNode[];
}) {
  return (
    <section aria-label={title}>
      <div className="mb-1 flex items-center justify-between">
        <h2 className="font-bold">{title}</h2>
        <Button icon={Plus} onClick={onAdd}>
          {add}
        </Button>
      </div>
      {children.length === 0 ? <p className="py-3 text-soft">{empty}</p> : <ul>{children}</ul>}
    </section>
  );
}

function Row({
  name,
  says,
  onEdit,
  onRemove,
}: {
  name: string;
  says: string;
  onEdit: () => void;
  onRemove: () => void;
}) {
  return (
    <li className="flex items-center gap-1 border-t border-rule">
      <button
        type="button"
        onClick={onEdit}
        className="min-h-13 min-w-0 flex-1 rounded-md px-1 py-1 text-left hover:bg-well"
      >
        <span className="block leading-tight font-semibold">{name}</span>
        <span className="block truncate text-sm text-soft">{says}</span>
      </button>
      <Button kind="quiet" icon={Trash2} iconOnly onClick={onRemove}>
        Take out {name}
      </Button>
    </li>
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
          {unfed.length} box{unfed.length === 1 ? ' names' : 'es name'} no circuit:{' '}
          {unfed.map((box) => box.name).join(', ')}.
        </p>
      )}
      <p className="text-sm text-soft">What a breaker’s label says is a hint: switching and testing tells.</p>
    </div>
  );
}
