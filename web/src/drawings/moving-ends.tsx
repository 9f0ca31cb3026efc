import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { type Box, conductorTitle, type EndTarget } from '@inventario/core';
import type { ReactNode } from 'react';
import { useJob } from '../data/job-context.js';
import { classes } from '../ui/classes.js';
import { endWords } from './conductor-words.js';
import type { FanLayout } from './fan-layout.js';
import type { FanMetrics } from './fan-metrics.js';

/** One end of a conductor: a piece made in the box has two. */
export interface PickedEnd {
  conductorId: string;
  end: 0 | 1;
}

/** Ends touched one after the other, or dragged. */
export interface EndTouch {
  picked: PickedEnd | null;
  onPick: (picked: PickedEnd | null) => void;
  onJoint: (jointId: string) => void;
  onMove: (picked: PickedEnd, target: EndTarget) => void;
}

const keyOf = ({ conductorId, end }: PickedEnd) => `${conductorId}/${end}`;

/**
 * A handle on every end, and a place on everything an end can go to. Touch an end and then its new place, or
 * drag it there; both are buttons, so that keys do it too.
 */
export function MovingEnds({
  box,
  layout,
  metrics,
  touch,
}: {
  box: Box;
  layout: FanLayout;
  metrics: FanMetrics;
  touch: EndTouch;
}) {
  const { job } = useJob();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const { picked } = touch;
  const ends = layout.columns.flatMap((column) =>
    column.ends.map((_, which) => ({
      picked: { conductorId: column.conductor.id, end: which as 0 | 1 },
      says: `${conductorTitle(box, column.conductor.id, job)}, ${endWords(column, layout)[which]}`,
      ...metrics.endAt(column, which),
    })),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    const from = active.data.current as PickedEnd | undefined;
    const target = over?.data.current as EndTarget | undefined;
    if (from && target && String(active.id) !== String(over?.id).replace('onto:', ''))
      touch.onMove(from, target);
  };
  const press = (own: PickedEnd) => {
    if (!picked) touch.onPick(own);
    else if (keyOf(picked) === keyOf(own)) touch.onPick(null);
    else touch.onMove(picked, { conductorId: own.conductorId, end: own.end });
  };
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      {layout.joints.map((joint) => (
        <Place
          key={joint.jointId}
          id={`joint:${joint.jointId}`}
          target={{ joint: joint.jointId }}
          says={picked ? `Into joint ${joint.number}` : `Joint ${joint.number}: its connector, or split it`}
          x={(metrics.centre(joint.from) + metrics.centre(joint.to)) / 2}
          y={metrics.jointY(joint.row)}
          width={metrics.centre(joint.to) - metrics.centre(joint.from) + 30}
          onTouch={() =>
            picked ? touch.onMove(picked, { joint: joint.jointId }) : touch.onJoint(joint.jointId)
          }
        />
      ))}
      {layout.devices.flatMap((device) =>
        device.screws
          .filter(({ free }) => free)
          .map(({ terminal, column }) => (
            <Place
              key={`${device.position}.${terminal}`}
              id={`terminal:${device.position}.${terminal}`}
              target={{ position: device.position, terminal }}
              says={`To terminal ${terminal} of position ${device.position}`}
              x={metrics.centre(column)}
              y={metrics.screwY(device.row)}
              width={44}
              disabled={!picked}
              onTouch={() => picked && touch.onMove(picked, { position: device.position, terminal })}
            />
          )),
      )}
      {ends.map(({ picked: own, says, x, y }) => (
        <Handle
          key={keyOf(own)}
          own={own}
          x={x}
          y={y}
          isPicked={picked !== null && keyOf(picked) === keyOf(own)}
          says={picked && keyOf(picked) !== keyOf(own) ? `Join with ${says}` : says}
          onTouch={() => press(own)}
        />
      ))}
    </DndContext>
  );
}

interface Spot {
  x: number;
  y: number;
  says: string;
  onTouch: () => void;
}

function Handle({ own, x, y, says, isPicked, onTouch }: Spot & { own: PickedEnd; isPicked: boolean }) {
  const id = keyOf(own);
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id, data: own });
  const onto = useDroppable({ id: `onto:${id}`, data: { conductorId: own.conductorId, end: own.end } });
  return (
    <button
      ref={(node) => {
        setNodeRef(node);
        onto.setNodeRef(node);
      }}
      type="button"
      aria-pressed={isPicked}
      aria-label={says}
      data-end={id}
      {...listeners}
      onClick={onTouch}
      className={classes(
        'absolute z-10 flex size-11 touch-none items-center justify-center rounded-full',
        isDragging && 'z-20',
      )}
      style={{
        left: x - 22,
        top: y - 22,
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
    >
      <Ring lit={isPicked || isDragging || onto.isOver} />
    </button>
  );
}

const Ring = ({ lit }: { lit: boolean }): ReactNode => (
  <span
    aria-hidden
    className={classes(
      'rounded-full border-ink',
      lit ? 'size-8 border-4 bg-lit' : 'size-5 border-3 bg-sheet',
    )}
  />
);

function Place({
  id,
  target,
  x,
  y,
  width,
  says,
  disabled = false,
  onTouch,
}: Spot & { id: string; target: EndTarget; width: number; disabled?: boolean }) {
  const { setNodeRef, isOver } = useDroppable({ id, data: target });
  return (
    <button
      ref={setNodeRef}
      type="button"
      aria-label={says}
      disabled={disabled}
      onClick={onTouch}
      className={classes(
        'absolute rounded-lg border-3',
        isOver ? 'border-ink bg-lit/70' : 'border-transparent',
      )}
      style={{ left: x - width / 2, top: y - 22, width, height: 44 }}
    />
  );
}
