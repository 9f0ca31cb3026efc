import {
  type Box,
  type BoxProgress,
  blockerText,
  boxesOfRoom,
  feedOfNewBox,
  newBox,
  plural,
  putPart,
  type Room,
  repeatedBox,
  roomsInOrder,
  STAGES,
} from '@inventario/core';
import { ChevronRight, Copy, Plus } from 'lucide-react';
import { memo, useEffect, useRef, useState } from 'react';
import { NavLink, useMatch, useNavigate } from 'react-router';
import { newId } from '../data/ids.js';
import { useHouse, useJob } from '../data/job-context.js';
import { paths } from '../parts/paths.js';
import { Button } from '../ui/button.js';
import { classes } from '../ui/classes.js';

/** Rooms and boxes in walking order, each with how far it is; a room that is done folds away. */
export function Walk({ onGo }: { onGo?: () => void }) {
  const { job } = useJob();
  const house = useHouse();
  const rooms = roomsInOrder(job);
  const here = useMatch('/jobs/:jobId/box/:boxId/*')?.params.boxId;
  const place = useRef<HTMLElement>(null);
  // The box one is at stays in view, however long the walk is.
  useEffect(() => {
    if (here) place.current?.querySelector('[aria-current=page]')?.scrollIntoView({ block: 'nearest' });
  }, [here]);
  return (
    <nav ref={place} aria-label="Walk" className="flex flex-col gap-2 p-3">
      {rooms.length === 0 && (
        <p className="text-soft">No rooms yet. Add them under House; boxes then go in here.</p>
      )}
      {rooms.map((room) => {
        const boxes = boxesOfRoom(job, room.id);
        return (
          <WalkRoom
            key={room.id}
            room={room}
            boxes={boxes}
            progress={boxes.map((box) => house?.get(box.id)?.progress)}
            isHere={boxes.some(({ id }) => id === here)}
            onGo={onGo}
          />
        );
      })}
    </nav>
  );
}

function WalkRoom({
  room,
  boxes,
  progress,
  isHere,
  onGo,
}: {
  room: Room;
  boxes: readonly Box[];
  progress: readonly (BoxProgress | undefined)[];
  isHere: boolean;
  onGo: (() => void) | undefined;
}) {
  const { job } = useJob();
  const isDone = boxes.length > 0 && progress.every((entry) => entry?.next === null);
  const [open, setOpen] = useState<boolean | null>(null);
  const isOpen = open ?? (!isDone || isHere);
  return (
    <section aria-label={room.name}>
      <div className="flex items-center justify-between">
        <h2 className="min-w-0 flex-1">
          <button
            type="button"
            aria-expanded={isOpen}
            onClick={() => setOpen(!isOpen)}
            className="flex min-h-11 w-full items-center gap-1 text-left text-sm font-bold text-soft"
          >
            <ChevronRight
              aria-hidden
              className={classes('size-4 shrink-0 transition-transform', isOpen && 'rotate-90')}
            />
            <span className="truncate">{room.name}</span>
            {!isOpen && (
              <span className="shrink-0 font-normal">
                {isDone
                  ? `, ${plural(boxes.length, 'box', 'boxes')} done`
                  : `, ${plural(boxes.length, 'box', 'boxes')}`}
              </span>
            )}
          </button>
        </h2>
        <AddBox roomId={room.id} roomName={room.name} onGo={onGo} />
      </div>
      {isOpen && (
        <ul className="flex flex-col gap-1">
          {boxes.map((box, at) => (
            <li key={box.id}>
              <WalkStop
                to={paths.box(job.id, box.id)}
                name={withoutRoom(box.name, room.name)}
                fullName={box.name}
                progress={progress[at]}
                onGo={onGo}
              />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** `door` of `Guest bunk, door` in the guest bunk: the room stands above. */
function withoutRoom(name: string, room: string): string {
  const words = room.toLowerCase().split(' ');
  const start = [room.toLowerCase(), words.at(-1) ?? ''].find(
    (prefix) => prefix !== '' && name.toLowerCase().startsWith(`${prefix},`),
  );
  return start ? name.slice(start.length + 1).trim() || name : name;
}

/** Drawn again only when something of its box is new: a long walk must not slow the typing down. */
const WalkStop = memo(function WalkStop({
  to,
  name,
  fullName,
  progress,
  onGo,
}: {
  to: string;
  name: string;
  fullName: string;
  progress: BoxProgress | undefined;
  onGo: (() => void) | undefined;
}) {
  return (
    <NavLink
      to={to}
      onClick={onGo}
      className={({ isActive }) =>
        classes(
          'flex min-h-11 items-center gap-2 rounded-md border px-2.5 py-1',
          isActive ? 'border-2 border-ink bg-sheet' : 'border-transparent hover:bg-well',
        )
      }
    >
      <span className="min-w-0 flex-1 truncate leading-tight">
        <span className="font-semibold">
          {/* The room stands above; read aloud, the name is whole. */}
          <span className="sr-only">{fullName.slice(0, fullName.length - name.length)}</span>
          {name || 'Unnamed box'}
        </span>
        <span className="ml-2 text-sm text-soft">{summaryOf(progress)}</span>
      </span>
      <StageSteps progress={progress} />
    </NavLink>
  );
});

function summaryOf(progress: BoxProgress | undefined): string {
  if (!progress) return 'being worked out';
  if (progress.next === null) return 'done';
  const first = progress.blockers.find((blocker) => blocker.stage === progress.next);
  return first ? blockerText(first) : progress.next;
}

/** A tick a stage, filled when it is done. */
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
      {STAGES.map((stage) => {
        const state = progress?.stages[stage] ?? 'due';
        if (state === 'not-wanted') return null;
        return (
          <span
            key={stage}
            className={classes('h-3 w-1.5 border border-ink', state === 'done' ? 'bg-ink' : 'bg-transparent')}
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
    const usual = feedOfNewBox(job, { id, roomId, name });
    const box =
      repeat && last
        ? repeatedBox(last, { id, roomId, name, order }, newId)
        : newBox({ id, roomId, name, order }, job.practice, usual);
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
