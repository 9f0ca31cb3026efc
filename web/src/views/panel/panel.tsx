import {
  type Circuit,
  eventRecord,
  type JobEvent,
  listed,
  neutralFamilies,
  panelLabel,
  plural,
  roomsInOrder,
  STOP_WORDS,
} from '@inventario/core';
import { CircleCheck, Search } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useJobPower } from '../../data/power.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { PowerShape } from '../../parts/power-shape.js';
import { timeOf } from '../../parts/times.js';
import { Button } from '../../ui/button.js';
import { classes } from '../../ui/classes.js';
import { Empty } from '../../ui/empty.js';
import { BreakerSearch } from './breaker-search.js';

/**
 * What feeds what, what is on? The panel as it hangs on the wall: odd breakers left, even ones right, where
 * it is numbered so.
 */
export function PanelView() {
  const { job } = useJob();
  const [finding, setFinding] = useState(false);
  const panels = [...new Set(job.circuits.map((circuit) => circuit.panel))];
  return (
    <Bench title="Panel" glance={`${job.circuits.length} breakers`} reckoning={<PanelReckoning />}>
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-xl font-bold">Panel</h1>
        <Button
          kind="main"
          icon={Search}
          disabled={job.boxes.length === 0 || job.circuits.length < 2}
          onClick={() => setFinding(true)}
        >
          Which breaker is it?
        </Button>
      </div>
      {panels.length === 0 && (
        <Empty title="No breakers recorded">
          <Link className="underline" to={paths.house(job.id)}>
            Read the panel under House
          </Link>
        </Empty>
      )}
      {panels.map((panel) => (
        <PanelFace
          key={panel}
          name={panel}
          circuits={job.circuits.filter((circuit) => circuit.panel === panel)}
        />
      ))}
      {finding && <BreakerSearch onClose={() => setFinding(false)} />}
    </Bench>
  );
}

function PanelFace({ name, circuits }: { name: string; circuits: readonly Circuit[] }) {
  const { job } = useJob();
  const numbered = circuits.every((circuit) => /^\d+/.test(circuit.breaker));
  const side = (odd: boolean) =>
    circuits
      .filter((circuit) => !numbered || (Number.parseInt(circuit.breaker, 10) % 2 === 1) === odd)
      .sort((a, b) => Number.parseInt(a.breaker, 10) - Number.parseInt(b.breaker, 10));
  const columns = (numbered ? [side(true), side(false)] : [[...circuits]]).map(pairsTogether);
  function pairsTogether(column: Circuit[]): Circuit[] {
    // Breakers that share a neutral stand side by side, so that the pair is seen; the others keep their
    // place.
    const placed = new Set<string>();
    return column.flatMap((circuit) => {
      if (placed.has(circuit.id)) return [];
      const family = column.filter((other) => neutralFamilies(job).of(circuit.id).has(other.id));
      for (const member of family) placed.add(member.id);
      return family;
    });
  }
  function tieOf(circuit: Circuit, column: readonly Circuit[]): Tie {
    const family = neutralFamilies(job).of(circuit.id);
    if (family.size < 2) return 'none';
    const here = column.filter((other) => family.has(other.id));
    const at = here.indexOf(circuit);
    if (here.length === 1) return 'alone';
    if (at === 0) return 'top';
    return at === here.length - 1 ? 'bottom' : 'middle';
  }
  return (
    <section aria-label={`${name} panel`} className="mb-5 rounded-lg border-2 border-ink bg-well p-3">
      <h2 className="mb-2 font-bold">{name}</h2>
      <div className={classes('grid gap-2', columns.length > 1 && 'sm:grid-cols-2')}>
        {columns.map((column, index) => (
          <ul key={index === 0 ? 'left' : 'right'} className="flex flex-col gap-2">
            {column.map((circuit) => (
              <Breaker key={circuit.id} circuit={circuit} tie={tieOf(circuit, column)} />
            ))}
          </ul>
        ))}
      </div>
    </section>
  );
}

const WITH_ARTICLE = { inverter: 'an inverter', generator: 'a generator', mains: 'the mains' } as const;

/** Where a breaker stands in the bracket drawn round those of its column that share one neutral. */
type Tie = 'none' | 'alone' | 'top' | 'middle' | 'bottom';

function Breaker({ circuit, tie }: { circuit: Circuit; tie: Tie }) {
  const { job, known } = useJob();
  const { circuits, boxes: powers } = useJobPower();
  const power = circuits.find((entry) => entry.circuitId === circuit.id);
  const boxes = job.boxes.filter((box) => box.circuitIds.includes(circuit.id));
  const loads = [
    ...new Set(boxes.flatMap((box) => box.positions.flatMap((position) => position.loadIds))),
  ].flatMap((id) => known.loads.get(id)?.name ?? []);
  const dead = powers.filter(
    ({ boxId, dead }) => dead === 'device-out' && boxes.some((box) => box.id === boxId),
  ).length;
  const state = power?.state ?? 'unknown';
  const label = panelLabel(circuit, job);
  const sharing = [...neutralFamilies(job).of(circuit.id)].filter((id) => id !== circuit.id);
  return (
    <li
      className={classes(
        'relative rounded-md border border-rule bg-sheet p-2.5',
        sharing.length > 0 &&
          'ml-5 before:absolute before:inset-y-0 before:-left-5 before:w-3 before:border-ink before:border-l-4',
        tie === 'top' && 'before:top-1/2 before:-bottom-3 before:rounded-tl-lg before:border-t-4',
        tie === 'middle' && 'before:-bottom-3',
        tie === 'bottom' && 'before:bottom-1/2 before:rounded-bl-lg before:border-b-4',
        tie === 'alone' && 'before:top-1/2 before:bottom-auto before:h-0 before:border-l-0 before:border-t-4',
      )}
    >
      <div className="flex items-center gap-2">
        <span className={state === 'on' ? 'text-live' : state === 'off' ? 'text-off' : ''}>
          <PowerShape state={state} />
        </span>
        <span className="font-bold">
          {circuit.breaker} {label.asFound || 'no label'}
        </span>
        <span className="ml-auto text-sm text-soft">
          {circuit.amps} A{circuit.leg ? `, leg ${circuit.leg}` : ''}
          {circuit.protection && circuit.protection !== 'none' ? `, ${circuit.protection.toUpperCase()}` : ''}
        </span>
      </div>
      {sharing.length > 0 && (
        <p className="text-sm font-semibold">
          Shares its neutral with {listed(sharing.map((id) => known.circuits.get(id)?.breaker ?? id))}
          {circuit.commonTrip === true
            ? ', common trip'
            : circuit.commonTrip === false
              ? ', no common trip'
              : ''}
        </p>
      )}
      {(circuit.isolatesNeutral || (circuit.source && circuit.source !== 'mains')) && (
        <p className="text-sm">
          {[
            circuit.isolatesNeutral && 'opens the neutral too',
            circuit.source && circuit.source !== 'mains' && `fed by ${WITH_ARTICLE[circuit.source]}`,
          ]
            .filter(Boolean)
            .join('; ')}
        </p>
      )}
      <p className="text-sm">
        {state === 'unknown'
          ? 'Never switched on record.'
          : `Recorded ${power?.since ? timeOf(power.since) : ''}: ${state}.`}
        {dead > 0 && ` ${plural(dead, 'box', 'boxes')} proved dead.`}
      </p>
      <p className="text-sm text-soft">
        {boxes.length === 0
          ? 'Feeds no box that is known.'
          : `Said to feed ${boxes.map((box) => box.name).join('; ')}`}
        {loads.length > 0 && `. Controls ${loads.join('; ')}.`}
      </p>
      {label.asProved && (
        <p className="mt-1 flex items-start gap-1.5 text-sm font-semibold">
          <CircleCheck aria-hidden className="mt-0.5 size-4 shrink-0" />
          <span>
            Proved: {label.asProved}
            {label.supposed.length > 0 && (
              <span className="font-normal text-soft">; {label.supposed.length} not proved yet</span>
            )}
          </span>
        </p>
      )}
    </li>
  );
}

function PanelReckoning() {
  const { job, known } = useJob();
  const two = job.boxes.filter((box) => box.circuitIds.length > 1);
  const none = roomsInOrder(job).flatMap((room) =>
    job.boxes.filter((box) => box.roomId === room.id && box.circuitIds.length === 0),
  );
  const record = eventRecord(job);
  const log = job.events
    .filter((event) => ['switched', 'proved', 'traced', 'cleared', 'mounted'].includes(event.kind))
    .sort((a, b) => (b.at ?? '').localeCompare(a.at ?? ''));
  const link = (id: string) => (
    <Link className="underline" to={paths.box(job.id, id)}>
      {known.boxes.get(id)?.name}
    </Link>
  );
  const said = (event: JobEvent) => {
    const breaker = `breaker ${known.circuits.get(event.circuitId ?? '')?.breaker}`;
    const box = known.boxes.get(event.boxId ?? '')?.name;
    if (event.kind === 'switched') return `${breaker} ${event.state}`;
    if (event.kind === 'traced') return `${box} found on ${breaker}`;
    if (event.kind === 'mounted') return `${box} mounted`;
    const { stage, hazard } = event as { stage?: string; hazard?: keyof typeof STOP_WORDS };
    if (event.kind === 'cleared')
      return `${box}: ${(hazard && STOP_WORDS[hazard]?.name.toLowerCase()) ?? hazard} put right`;
    return `${box} proved dead ${stage === 'device-out' ? 'with the device out' : 'at the face'}`;
  };
  return (
    <div className="flex flex-col gap-5">
      <section>
        <h2 className="mb-1 font-bold">Boxes on two breakers</h2>
        {two.length === 0 ? (
          <p className="text-soft">None known.</p>
        ) : (
          <ul>
            {two.map((box) => (
              <li key={box.id}>
                {link(box.id)}: {box.circuitIds.map((id) => known.circuits.get(id)?.breaker).join(' and ')},
                both off before it is opened
              </li>
            ))}
          </ul>
        )}
      </section>
      <section>
        <h2 className="mb-1 font-bold">Boxes without a breaker</h2>
        {none.length === 0 ? (
          <p className="text-soft">Every box names one.</p>
        ) : (
          <ul>
            {none.map((box) => (
              <li key={box.id}>{link(box.id)}</li>
            ))}
          </ul>
        )}
      </section>
      <section>
        <h2 className="mb-1 font-bold">Log</h2>
        {log.length === 0 && <p className="text-soft">Nothing switched yet.</p>}
        <ol aria-label="Log of switchings" className="flex flex-col gap-1 text-sm">
          {log.slice(0, 40).map((event) => (
            <li key={event.id} className={record.isStruck({ event }) ? 'text-soft line-through' : ''}>
              {event.at && timeOf(event.at)}: {said(event)}
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}
