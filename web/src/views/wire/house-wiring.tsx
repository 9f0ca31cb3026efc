import { type Box, boxesOfRoom, eventRecord, plural, roomsInOrder, wireProgress } from '@inventario/core';
import { CheckCheck, CircleCheck, CircleSlash2, Wrench } from 'lucide-react';
import { Link } from 'react-router';
import type { WiringRow } from '../../data/engines.worker.js';
import { useHouseWiring, useJob } from '../../data/job-context.js';
import { useJobPower } from '../../data/power.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Empty } from '../../ui/empty.js';

/** Which boxes are ready to be wired, and what is missing at the others? */
export function HouseWiringView() {
  const { job } = useJob();
  const rows = useHouseWiring();
  const ready = rows?.filter((row) => row.ready).length ?? 0;
  const glance = rows ? `${ready} of ${plural(rows.length, 'plan')} ready` : 'Being worked out';
  return (
    <Bench title="Wire" glance={glance} reckoning={<Reckoning rows={rows} />}>
      <h1 className="mb-1 text-xl font-bold">How does it go together?</h1>
      <p className="mb-3">
        {glance}. A plan is ready when it was run in every state of its breakers and switches, and did what it
        should.
      </p>
      {rows?.length === 0 && (
        <Empty title="Nothing is chosen yet">
          <Link className="underline" to={paths.plans(job.id)}>
            To the plans of the house
          </Link>
        </Empty>
      )}
      {rows &&
        roomsInOrder(job).map((room) => {
          const boxes = boxesOfRoom(job, room.id).flatMap((box) => {
            const row = rows.find(({ boxId }) => boxId === box.id);
            return row ? [{ box, row }] : [];
          });
          return boxes.length === 0 ? null : (
            <section key={room.id} aria-label={room.name} className="mb-4">
              <h2 className="mb-1 font-bold">{room.name}</h2>
              <ul className="flex flex-col gap-1.5">
                {boxes.map(({ box, row }) => (
                  <WiringLine key={box.id} box={box} row={row} />
                ))}
              </ul>
            </section>
          );
        })}
    </Bench>
  );
}

function WiringLine({ box, row }: { box: Box; row: WiringRow }) {
  const { job } = useJob();
  const { boxes, circuits } = useJobPower();
  const power = boxes.find(({ boxId }) => boxId === box.id);
  const begun = power ? wireProgress(row.steps, { job, power, circuits }) : null;
  const recorded = [...(begun?.done.values() ?? [])].filter(({ eventId }) => eventId !== undefined).length;
  const mounted = eventRecord(job).latest('mounted', box.id) !== undefined;
  const state = stateOf(row, { mounted, recorded });
  const Icon = state.icon;
  const first = row.findings.find(({ severity }) => severity === 'error') ?? row.findings[0];
  return (
    <li>
      <Link
        to={paths.wire(job.id, box.id)}
        className="flex min-h-14 items-center gap-3 rounded-md border border-edge bg-sheet px-3 py-2 hover:border-ink"
      >
        <Icon aria-hidden className="size-6 shrink-0" />
        <span className="min-w-0 flex-1">
          <strong className="block">{box.name}</strong>
          <span className="block text-sm">
            {row.ready || mounted || !first
              ? `${plural(row.joints, 'joint')}, ${plural(row.pieces, 'piece')} to make`
              : first.says}
          </span>
        </span>
        <span className="shrink-0 font-semibold">{state.word}</span>
      </Link>
    </li>
  );
}

function stateOf(row: WiringRow, { mounted, recorded }: { mounted: boolean; recorded: number }) {
  if (mounted) return { word: 'Mounted', icon: CheckCheck };
  if (recorded > 0) return { word: `${recorded} of ${row.steps.length} steps`, icon: Wrench };
  return row.ready ? { word: 'Ready', icon: CircleCheck } : { word: 'Not ready', icon: CircleSlash2 };
}

function Reckoning({ rows }: { rows: WiringRow[] | null }) {
  const { job } = useJob();
  if (!rows) return null;
  const chosen = new Set(rows.map(({ boxId }) => boxId));
  const waiting = job.boxes.filter(
    (box) => !chosen.has(box.id) && box.positions.some(({ need }) => need?.smart),
  );
  const mounted = rows.filter(({ boxId }) => eventRecord(job).latest('mounted', boxId)).length;
  const open = rows.filter(({ ready }) => !ready);
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">The house</h2>
        <ul>
          <li>{plural(rows.length - open.length, 'plan')} ready</li>
          <li>{open.length} not ready</li>
          <li>{plural(mounted, 'box', 'boxes')} mounted</li>
          <li>
            {plural(
              rows.reduce((sum, { joints }) => sum + joints, 0),
              'joint',
            )}{' '}
            to make
          </li>
        </ul>
      </section>
      <BoxLinks
        title="Not ready"
        boxes={job.boxes.filter(({ id }) => open.some(({ boxId }) => boxId === id))}
      />
      <BoxLinks title="Nothing chosen yet" boxes={waiting} />
    </div>
  );
}

function BoxLinks({ title, boxes }: { title: string; boxes: readonly Box[] }) {
  const { job } = useJob();
  if (boxes.length === 0) return null;
  return (
    <section>
      <h2 className="mb-1 font-bold">{title}</h2>
      <ul className="flex flex-col">
        {boxes.map((box) => (
          <li key={box.id}>
            <Link className="flex min-h-11 items-center underline" to={paths.wire(job.id, box.id)}>
              {box.name}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
