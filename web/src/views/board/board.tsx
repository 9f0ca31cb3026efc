import {
  type BoxPower,
  type BoxProgress,
  blockerText,
  boardRows,
  boxesOfRoom,
  capital,
  durationText,
  plural,
  roomsInOrder,
  STAGES,
  STOP_WORDS,
  type Stage,
  worstBlockers,
} from '@inventario/core';
import { Check, Download, FileArchive, FileDown, OctagonX, Printer } from 'lucide-react';
import { Link } from 'react-router';
import { api } from '../../data/api.js';
import { downloadCsv, downloadJob } from '../../data/downloads.js';
import { type House, useHouse, useJob } from '../../data/job-context.js';
import { useDay } from '../../data/plan-answers.js';
import { useJobPower } from '../../data/power.js';
import { AgainstAdvice } from '../../parts/against-advice.js';
import { Bench } from '../../parts/bench.js';
import { LiveNow } from '../../parts/live-now.js';
import { paths } from '../../parts/paths.js';
import { PowerShape } from '../../parts/power-shape.js';
import { timeOf } from '../../parts/times.js';
import { Button, buttonClass } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';

/**
 * What is left, and what holds us up? Rooms down, stages across; every cell leads to the box it waits for.
 */
export function BoardView() {
  const { job, known } = useJob();
  const house = useHouse();
  const progressOf = (boxId: string) => house?.get(boxId)?.progress ?? [];
  const rooms = roomsInOrder(job);
  const worst = worstBlockers(progressOfAll(house));
  const inOrder = rooms.flatMap((room) => boxesOfRoom(job, room.id)).flatMap((box) => progressOf(box.id));
  return (
    <Bench title="Board" glance={glanceOf(house, worst)} reckoning={<BoardReckoning />}>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-xl font-bold">{job.name}</h1>
        <Button icon={Download} className="print:hidden" onClick={() => downloadJob(job)}>
          Job file
        </Button>
        {job.photos.length > 0 && (
          <a href={api.archiveAddress(job.id)} download className={buttonClass('plain', 'print:hidden')}>
            <FileArchive aria-hidden className="size-5 shrink-0" />
            With photographs
          </a>
        )}
        <Button
          icon={Printer}
          iconOnly
          title="Print the board"
          className="print:hidden"
          onClick={() => window.print()}
        >
          Print the board
        </Button>
        <Button
          icon={FileDown}
          className="print:hidden"
          onClick={() => void downloadCsv(job, 'board', boardRows(known, inOrder))}
        >
          Board as CSV
        </Button>
      </div>
      {rooms.length === 0 ? (
        <Empty title="An empty house">
          <p>Add the rooms, the breakers and what the switches control; then walk from box to box.</p>
          <Link className="min-h-11 font-semibold underline" to={paths.house(job.id)}>
            Set the house up
          </Link>
        </Empty>
      ) : (
        <>
          <div className="mb-3 flex flex-col gap-3 lg:hidden print:hidden">
            <Stops />
            <Blockers />
          </div>
          <BoardTable
            rooms={rooms.map((room) => ({
              id: room.id,
              name: room.name,
              boxes: boxesOfRoom(job, room.id).flatMap((box) => progressOf(box.id)),
            }))}
          />
        </>
      )}
    </Bench>
  );
}

/** What holds the job up in a few words; before anybody looked, that is said. */
function glanceOf(house: House | null, worst: ReturnType<typeof worstBlockers>): string {
  if (!house) return 'The house is being worked out …';
  const [first] = worst;
  return first
    ? `${first.boxIds.length} × ${blockerText({ code: first.code, count: 1 })}`
    : 'Nothing holds the job up';
}

function progressOfAll(house: House | null): BoxProgress[] {
  return [...(house?.values() ?? [])].map((reckoning) => reckoning.progress);
}

interface BoardRoom {
  id: string;
  name: string;
  boxes: BoxProgress[];
}

function BoardTable({ rooms }: { rooms: readonly BoardRoom[] }) {
  const total = rooms.flatMap((room) => room.boxes);
  return (
    <table className="w-full table-fixed border-collapse">
      <thead>
        <tr className="text-left text-sm text-soft">
          <th scope="col" className="py-2 pr-2 font-semibold">
            Room
          </th>
          {STAGES.map((stage) => (
            <th key={stage} scope="col" className="w-[14%] p-1 text-center font-semibold sm:p-2">
              <span className="hidden sm:inline">{stage}</span>
              <abbr className="text-xs no-underline sm:hidden" title={stage}>
                {SHORT[stage]}
              </abbr>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rooms.map((room) => (
          <tr key={room.id} className="border-t border-rule align-top">
            <th scope="row" className="py-2 pr-2 text-left font-semibold">
              {room.name}
              <span className="block text-sm font-normal text-soft">
                {room.boxes.length === 0 ? 'no boxes' : `${plural(room.boxes.length, 'box', 'boxes')}`}
              </span>
            </th>
            {STAGES.map((stage) => (
              <StageCell key={stage} room={room} stage={stage} />
            ))}
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="border-t-2 border-ink">
          <th scope="row" className="py-2 text-left font-bold">
            House
          </th>
          {STAGES.map((stage) => (
            <td key={stage} className="p-1 text-center font-bold sm:p-2">
              {countsOf(total, stage).done}/{countsOf(total, stage).of}
            </td>
          ))}
        </tr>
      </tfoot>
    </table>
  );
}

const SHORT: Record<Stage, string> = {
  surveyed: 'survey',
  identified: 'ident.',
  chosen: 'choose',
  wired: 'wire',
  paired: 'pair',
};

function countsOf(boxes: readonly BoxProgress[], stage: Stage): { done: number; of: number } {
  const wanted = boxes.filter((box) => box.stages[stage] !== 'not-wanted');
  return { done: wanted.filter((box) => box.stages[stage] === 'done').length, of: wanted.length };
}

/** The count, and below it the first blocker of the first box that waits for this stage. */
function StageCell({ room, stage }: { room: BoardRoom; stage: Stage }) {
  const { job, known } = useJob();
  const { done, of } = countsOf(room.boxes, stage);
  if (of === 0) return <td className="p-1 text-center text-soft sm:p-2">–</td>;
  const waiting = room.boxes.find((box) => box.stages[stage] === 'due');
  const blocker = waiting?.blockers.find((entry) => entry.stage === stage);
  const turn = waiting?.next === stage;
  return (
    <td className="p-0.5 sm:p-1">
      {waiting ? (
        <Link
          to={paths.box(job.id, waiting.boxId)}
          aria-label={
            `${room.name}, ${stage}: ${done} of ${of}. ${known.boxes.get(waiting.boxId)?.name}: ` +
            `${blocker ? blockerText(blocker) : ''}`
          }
          className={classes(
            'flex h-13 flex-col items-center justify-center rounded-md border px-1 text-center leading-tight',
            turn ? 'border-ink bg-sheet' : 'border-transparent text-soft',
          )}
        >
          <span className="font-semibold">
            {done}/{of}
          </span>
          {blocker && turn && (
            <span className="hidden w-full truncate text-sm sm:block">{blockerText(blocker)}</span>
          )}
        </Link>
      ) : (
        <span className="flex h-13 items-center justify-center gap-1 rounded-md bg-well px-1 font-semibold">
          <Check aria-hidden className="size-4" />
          {done}/{of}
          <span className="sr-only"> done</span>
        </span>
      )}
    </td>
  );
}

/** Boxes at which work stops: those that are alive with their breakers off first. */
function Stops() {
  const { job, known } = useJob();
  const isAlive = ({ stops }: BoxPower) => stops.some(({ code }) => code === 'live-while-off');
  const boxes = useJobPower().boxes.filter(({ stops }) => stops.length > 0);
  if (boxes.length === 0) return null;
  return (
    <section aria-label="Stops" className="rounded-lg border-2 border-stop p-3">
      <h2 className="mb-2 flex items-center gap-2 font-bold text-stop">
        <OctagonX aria-hidden className="size-6" />
        Stop, and call an electrician
      </h2>
      <ul className="flex flex-col gap-2">
        {[...boxes.filter(isAlive), ...boxes.filter((box) => !isAlive(box))].map(({ boxId, stops }) => (
          <li key={boxId}>
            <Link
              to={`${paths.box(job.id, boxId)}#stop`}
              className="block min-h-11 rounded-md px-1 hover:bg-well"
            >
              <span className="font-semibold">{known.boxes.get(boxId)?.name}</span>
              <span className="block text-sm">
                {stops.map(({ code }) => STOP_WORDS[code].name).join('; ')}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The three worst, each with the way to the first box it holds up. */
function Blockers() {
  const { job, known } = useJob();
  const house = useHouse();
  const worst = worstBlockers(progressOfAll(house)).slice(0, 3);
  const says = () => {
    if (job.boxes.length === 0) return 'No boxes yet.';
    return house ? 'Nothing holds the job up.' : 'The house is being worked out …';
  };
  return (
    <section aria-label="What holds the job up">
      <h2 className="mb-2 font-bold">What holds the job up</h2>
      {worst.length === 0 && <p className="text-soft">{says()}</p>}
      <ol className="flex flex-col gap-2">
        {worst.map((blocker, at) => {
          const first = known.boxes.get(blocker.boxIds[0] ?? '');
          return (
            <li
              key={blocker.code}
              className="flex items-center gap-2 rounded-md border border-rule bg-sheet p-2 pl-3"
            >
              <p className="min-w-0 flex-1">
                <span className="font-semibold">
                  {capital(blockerText({ code: blocker.code, count: 1 }))}
                </span>
                <span className="block text-sm text-soft">
                  {first?.name}
                  {blocker.boxIds.length > 1 && ` and ${blocker.boxIds.length - 1} more`}
                </span>
              </p>
              <Link
                to={paths.box(job.id, blocker.boxIds[0] ?? '')}
                className={buttonClass(at === 0 ? 'main' : 'plain')}
              >
                Open<span className="sr-only"> {first?.name}</span>
              </Link>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

/** What the day still takes by its sheet. */
function TimeLeft() {
  const { job } = useJob();
  const day = useDay();
  if (!day || day.sheet.batches.length === 0) return null;
  const { batches, panelTrips, minutes } = day.sheet;
  return (
    <section>
      <h2 className="mb-1 font-bold">Left by the day</h2>
      <p>
        {durationText(minutes)}, {plural(batches.length, 'batch', 'batches')}, {plural(panelTrips, 'trip')} to
        the panel
      </p>
      <Link className="flex min-h-11 items-center underline" to={paths.day(job.id)}>
        The day
      </Link>
    </section>
  );
}

function BoardReckoning() {
  const { job, known } = useJob();
  const { circuits } = useJobPower();
  const on = circuits.filter((state) => state.state === 'on');
  return (
    <div className="flex flex-col gap-5">
      <LiveNow />
      <Stops />
      <Blockers />
      <TimeLeft />
      <AgainstAdvice boxes={job.boxes} />
      <section>
        <h2 className="mb-2 font-bold">Circuits on</h2>
        {on.length === 0 && (
          <p className="text-soft">
            {circuits.some(({ state }) => state !== 'unknown') ? 'None is on.' : 'No switching recorded.'}
          </p>
        )}
        <ul className="flex flex-col gap-1.5">
          {on.map((state) => {
            const circuit = known.circuits.get(state.circuitId);
            return (
              <li key={state.circuitId} className="flex items-center gap-2 text-live">
                <PowerShape state="on" />
                <span>
                  Breaker {circuit?.breaker}, {circuit?.label}, {state.since && timeOf(state.since)}
                </span>
              </li>
            );
          })}
        </ul>
      </section>
      <p className="text-sm text-soft">
        A circuit that is off on this record is not dead: isolate, lock and prove dead at every box. Local
        codes and licensed practice rule.
      </p>
    </div>
  );
}
