import {
  type BoxProgress,
  blockerText,
  boxesOfRoom,
  newBox,
  putPart,
  repeatedBox,
  roomsInOrder,
  STAGES,
} from '@inventario/core';
import { Copy, Plus } from 'lucide-react';
import { memo } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { newId } from '../data/ids.js';
import { useHouse, useJob } from '../data/job-context.js';
import { paths } from '../parts/paths.js';
import { Button } from '../ui/button.js';
import { classes } from '../ui/classes.js';

/** Rooms and boxes in walking order, each with how far it is and what holds it up. */
export function Walk({ onGo }: { onGo?: () => void }) {
  const { job } = useJob();
  const house = useHouse();
  const rooms = roomsInOrder(job);
  return (
    <nav aria-label="Walk" className="flex flex-col gap-3 p-3">
      {rooms.length === 0 && (
        <p className="text-soft">No rooms yet. Add them under House; boxes then go in here.</p>
      )}
      {rooms.map((room) => (
        <section key={room.id} aria-label={room.name}>
          <div className="flex items-center justify-between">
            <h2 className="text-sm font-bold text-soft">{room.name}</h2>
            <AddBox roomId={room.id} roomName={room.name} onGo={onGo} />
          </div>
          <ul className="flex flex-col gap-1">
            {boxesOfRoom(job, room.id).map((box) => (
              <li key={box.id}>
                <WalkStop
                  to={paths.box(job.id, box.id)}
                  name={box.name}
                  progress={house?.get(box.id)?.progress}
                  onGo={onGo}
                />
              </li>
            ))}
          </ul>
        </section>
      ))}
    </nav>
  );
}

/** Drawn again only when something of its box is new: a long walk must not slow the typing down. */
const WalkStop = memo(function WalkStop({
  to,
  name,
  progress,
  onGo,
}: {
  to: string;
  name: string;
  progress: BoxProgress | undefined;
  onGo: (() => void) | undefined;
}) {
  return (
    <NavLink
      to={to}
      onClick={onGo}
      className={({ isActive }) =>
        classes(
          'block rounded-md border px-2.5 py-1.5',
          isActive ? 'border-ink bg-sheet' : 'border-transparent hover:bg-well',
        )
      }
    >
      <span className="flex items-center justify-between gap-2 leading-tight font-semibold">
        {name || 'Unnamed box'}
        <StageSteps progress={progress} />
      </span>
      <span className="block truncate text-sm text-soft">{summaryOf(progress)}</span>
    </NavLink>
  );
});

function summaryOf(progress: BoxProgress | undefined): string {
  if (!progress) return 'being worked out';
  if (progress.next === null) return 'done';
  const first = progress.blockers.find((blocker) => blocker.stage === progress.next);
  return first ? blockerText(first) : progress.next;
}

/** Five steps, filled as they are done. */
function StageSteps({ progress }: { progress: BoxProgress | undefined }) {
  const done = progress ? STAGES.filter((stage) => progress.stages[stage] === 'done').length : 0;
  const wanted = progress
    ? STAGES.filter((stage) => progress.stages[stage] !== 'not-wanted').length
    : STAGES.length;
  return (
    <span
      role="img"
      aria-label={`${done} of ${wanted} stages done`}
      className="flex shrink-0 items-end gap-0.5"
    >
      {STAGES.map((stage, index) => {
        const state = progress?.stages[stage] ?? 'due';
        if (state === 'not-wanted') return null;
        return (
          <span
            key={stage}
            className={classes('w-1.5 border border-ink', state === 'done' ? 'bg-ink' : 'bg-transparent')}
            style={{ height: 6 + index * 2 }}
          />
        );
      })}
    </span>
  );
}

function AddBox({
  roomId,
  roomName,
  onGo,
}: {
  roomId: string;
  roomName: string;
  onGo: (() => void) | undefined;
}) {
  const { job, apply } = useJob();
  const navigate = useNavigate();
  const inRoom = boxesOfRoom(job, roomId);
  const last = inRoom.at(-1) ?? job.boxes.at(-1);
  const add = (repeat: boolean) => {
    const id = newId();
    const order = Math.max(0, ...job.boxes.map((box) => box.order)) + 1;
    const name = `${roomName}, box ${inRoom.length + 1}`;
    const usual = inRoom.at(-1)?.circuitIds ?? [];
    const box =
      repeat && last
        ? repeatedBox(last, { id, roomId, name, order }, newId)
        : newBox({ id, roomId, name, order }, job.practice, [...usual]);
    apply([putPart('box', id, box)], `Add ${name}`);
    onGo?.();
    navigate(paths.box(job.id, id));
  };
  return (
    <span className="flex">
      {last && last.conductors.length > 0 && (
        <Button kind="quiet" icon={Copy} iconOnly title={`Box like ${last.name}`} onClick={() => add(true)}>
          Add a box to {roomName} like {last.name}
        </Button>
      )}
      <Button kind="quiet" icon={Plus} iconOnly title="Add a box" onClick={() => add(false)}>
        Add a box to {roomName}
      </Button>
    </span>
  );
}
