import {
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { CSS } from '@dnd-kit/utilities';
import {
  type Box,
  clockAfter,
  durationText,
  plural,
  type RunSheet,
  type SheetBatch,
  setParts,
} from '@inventario/core';
import { ArrowRightLeft, GripVertical, Router } from 'lucide-react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useMoved } from '../../data/plan-answers.js';
import { useJobPower } from '../../data/power.js';
import { paths } from '../../parts/paths.js';
import { PowerShape } from '../../parts/power-shape.js';
import { classes } from '../../ui/classes.js';
import { Menu } from '../../ui/menu.js';
import { useSay } from '../../ui/say.js';
import { USUAL_START } from './run-settings.js';

/** Batches side by side; a box goes to another one by its handle, or by its menu. */
export function BatchColumns({ sheet }: { sheet: RunSheet }) {
  const { known } = useJob();
  const move = useMove(sheet);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor),
  );
  const nameOf = (id: string | number) => known.boxes.get(String(id))?.name ?? 'The box';
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) void move(String(active.id), Number(over.id));
  };
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={drop}
      accessibility={{
        screenReaderInstructions: {
          draggable: 'Space takes it up, the arrows move it, space puts it down, escape leaves it.',
        },
        announcements: {
          onDragStart: ({ active }) => `${nameOf(active.id)} is taken up.`,
          onDragOver: ({ active, over }) =>
            over ? `${nameOf(active.id)} over batch ${Number(over.id) + 1}.` : undefined,
          onDragEnd: ({ active }) => `${nameOf(active.id)} is put down.`,
          onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
        },
      }}
    >
      <ol className="grid gap-3 sm:grid-cols-2 xl:grid-cols-3">
        {sheet.batches.map((batch, at) => (
          <BatchColumn key={batch.boxIds.join()} sheet={sheet} batch={batch} at={at} onMove={move} />
        ))}
        <NewBatch at={sheet.batches.length} />
      </ol>
    </DndContext>
  );
}

type Move = (boxId: string, to: number) => Promise<void>;

/** Moves a box, and says what that costs; or why it cannot be. */
function useMove(sheet: RunSheet): Move {
  const { job, known, apply, undo } = useJob();
  const say = useSay();
  const moved = useMoved();
  return async (boxId, to) => {
    if (sheet.batches[to]?.boxIds.includes(boxId)) return;
    const name = known.boxes.get(boxId)?.name ?? 'The box';
    const result = await moved(boxId, to);
    if (!result) return;
    if (result.because === 'feeds')
      return say(`${name} stays: one of these boxes feeds the other, so they are not open together.`);
    if (result.because === 'too-many')
      return say(`${name} stays: more boxes would be open than the day allows.`);
    const run = { ...job.run, batches: result.batches };
    if (apply(setParts('job', job.id, job, { run }), `${name} to another batch`))
      say(`${name} moved: ${costText(result.moreTrips)}.`, { label: 'Undo', run: undo });
  };
}

function costText(moreTrips: number): string {
  if (moreTrips === 0) return 'as many trips as before';
  return moreTrips > 0 ? `${plural(moreTrips, 'trip')} more` : `${plural(-moreTrips, 'trip')} fewer`;
}

function BatchColumn({
  sheet,
  batch,
  at,
  onMove,
}: {
  sheet: RunSheet;
  batch: SheetBatch;
  at: number;
  onMove: Move;
}) {
  const { job, known } = useJob();
  const { setNodeRef, isOver } = useDroppable({ id: String(at) });
  const time = sheet.times[at];
  const starts = job.run?.starts ?? USUAL_START;
  const rooms = batch.darkRooms.flatMap((id) => known.rooms.get(id)?.name ?? []);
  const several = (time?.hands.length ?? 0) > 1;
  return (
    <li
      ref={setNodeRef}
      className={classes(
        'flex flex-col gap-2 rounded-lg border-2 bg-sheet p-3',
        isOver ? 'border-ink' : 'border-rule',
      )}
    >
      <div className="flex items-baseline gap-2">
        <h2 className="text-lg font-bold">Batch {at + 1}</h2>
        {time && (
          <p className="ml-auto font-semibold tabular-nums">
            {clockAfter(starts, time.from)} to {clockAfter(starts, time.to)}
          </p>
        )}
      </div>
      <Circuits batch={batch} />
      <p>
        {plural(batch.panelTrips, 'trip')}
        {sharedWords(sheet, at)}
        {batch.needsCheck && ', with an energised check'}
      </p>
      <ul aria-label={`Boxes of batch ${at + 1}`}>
        {batch.boxIds.map((id) => (
          <BatchBox
            key={id}
            box={known.boxes.get(id) as Box}
            hand={several ? (time?.hands.findIndex((ids) => ids.includes(id)) ?? null) : null}
            batches={sheet.batches.length}
            at={at}
            onMove={onMove}
          />
        ))}
      </ul>
      <p className="text-sm leading-snug">
        <span className="font-semibold">Without light </span>
        {rooms.length > 0 ? rooms.join(', ') : 'nobody'}
        {time && rooms.length > 0 && `, ${durationText(time.dark)} of ${durationText(time.to - time.from)}`}
      </p>
      {batch.routerCircuits.length > 0 && (
        <p className="flex items-center gap-2 text-sm font-semibold">
          <Router aria-hidden className="size-5 shrink-0" />
          The router goes dark too: pairing waits
        </p>
      )}
    </li>
  );
}

/** Trips that the batch before makes for it. */
function sharedWords(sheet: RunSheet, at: number): string {
  const before = sheet.batches[at - 1];
  const shared = sheet.batches[at]?.panels.filter((panel) => before?.panels.includes(panel)).length ?? 0;
  return before && shared > 0 ? `, ${shared} of them batch ${at}’s last` : '';
}

function Circuits({ batch }: { batch: SheetBatch }) {
  const { known } = useJob();
  const { circuits } = useJobPower();
  return (
    <ul className="flex flex-wrap gap-x-3 gap-y-1">
      {batch.circuitIds.map((id) => {
        const circuit = known.circuits.get(id);
        const state = circuits.find(({ circuitId }) => circuitId === id)?.state ?? 'unknown';
        return (
          <li key={id} className={classes('flex items-center gap-1.5', state === 'on' && 'text-live')}>
            <PowerShape state={state} />
            {circuit?.breaker} {circuit?.label}
            <span className="sr-only">{state === 'unknown' ? 'not known' : state}</span>
          </li>
        );
      })}
    </ul>
  );
}

function BatchBox({
  box,
  hand,
  batches,
  at,
  onMove,
}: {
  box: Box;
  hand: number | null;
  batches: number;
  at: number;
  onMove: Move;
}) {
  const { job, known } = useJob();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, isDragging } = useDraggable({
    id: box.id,
  });
  const others = Array.from({ length: batches + 1 }, (_, to) => to).filter((to) => to !== at);
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform) }}
      className={classes(
        'flex items-center gap-1 border-t border-rule bg-sheet',
        isDragging && 'relative z-20 shadow-lg',
      )}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        aria-label={`Move ${box.name}`}
        className="flex size-11 shrink-0 cursor-grab touch-none items-center justify-center rounded-md hover:bg-well"
        {...attributes}
        {...listeners}
      >
        <GripVertical aria-hidden className="size-5 text-soft" />
      </button>
      <Link className="min-w-0 flex-1 py-1 leading-tight hover:underline" to={paths.wire(job.id, box.id)}>
        <span className="block font-semibold">{box.name}</span>
        <span className="block text-sm text-soft">
          {known.rooms.get(box.roomId)?.name}
          {hand !== null && `, ${hand === 0 ? 'first' : 'second'} installer`}
        </span>
      </Link>
      <Menu
        name={`Batch of ${box.name}`}
        icon={ArrowRightLeft}
        entries={others.map((to) => ({
          label: to === batches ? 'To a batch of its own' : `To batch ${to + 1}`,
          onPick: () => void onMove(box.id, to),
        }))}
      />
    </li>
  );
}

function NewBatch({ at }: { at: number }) {
  const { setNodeRef, isOver } = useDroppable({ id: String(at) });
  return (
    <li
      ref={setNodeRef}
      className={classes(
        'hidden min-h-24 items-center justify-center rounded-lg border-2 border-dashed p-3 text-soft sm:flex',
        isOver ? 'border-ink text-ink' : 'border-rule',
      )}
    >
      A box dropped here is a batch of its own
    </li>
  );
}
