import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import type { ReactNode } from 'react';
import { classes } from './classes.js';

/**
 * Rows that are put in order by their handle: dragged, or taken with the space bar and moved with the arrows.
 */
export function SortableList({
  label,
  ids,
  nameOf,
  onOrder,
  children,
}: {
  label: string;
  ids: readonly string[];
  nameOf: (id: string) => string;
  onOrder: (ids: string[]) => void;
  children: (id: string) => ReactNode;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    onOrder(arrayMove([...ids], ids.indexOf(String(active.id)), ids.indexOf(String(over.id))));
  };
  const placeOf = (id: string | number) => ids.indexOf(String(id)) + 1;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            'Space takes it up, the arrows move it, space puts it down, escape leaves it where it was.',
        },
        announcements: {
          onDragStart: ({ active }) => `${nameOf(String(active.id))} is taken up.`,
          // Said of where it would be put down; at first that is where it was.
          onDragOver: ({ active, over }) =>
            over ? `${nameOf(String(active.id))}, place ${placeOf(over.id)} of ${ids.length}.` : undefined,
          onDragEnd: ({ active }) => `${nameOf(String(active.id))} is put down.`,
          onDragCancel: ({ active }) => `${nameOf(String(active.id))} stays where it was.`,
        },
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        <ul aria-label={label}>
          {ids.map((id) => (
            <SortableRow key={id} id={id} name={nameOf(id)} single={ids.length < 2}>
              {children(id)}
            </SortableRow>
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

function SortableRow({
  id,
  name,
  single,
  children,
}: {
  id: string;
  name: string;
  single: boolean;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id, disabled: single });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={classes(
        'flex items-center gap-1 border-t border-rule',
        isDragging && 'relative z-10 bg-well',
      )}
    >
      {single ? (
        <span className="w-11 shrink-0" />
      ) : (
        <button
          type="button"
          ref={setActivatorNodeRef}
          aria-label={`Move ${name}`}
          className="flex size-11 shrink-0 cursor-grab touch-none items-center justify-center rounded-md hover:bg-well"
          {...attributes}
          {...listeners}
        >
          <GripVertical aria-hidden className="size-5 text-soft" />
        </button>
      )}
      <div className="min-w-0 flex-1">{children}</div>
    </li>
  );
}
