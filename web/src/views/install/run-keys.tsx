import {
  type BatchStands,
  BEFORE_SWITCHING,
  type Box,
  holdEvent,
  type JobLookup,
  listed,
  openElsewhere,
  openElsewhereText,
  putPart,
  type RunStep,
  type Symptoms,
} from '@inventario/core';
import { Link } from 'react-router';
import { felt } from '../../data/felt.js';
import { instant, newId, thisDevice } from '../../data/ids.js';
import { useJob, useWiring } from '../../data/job-context.js';
import { useDay } from '../../data/plan-answers.js';
import { useBoxPower, useJobPower } from '../../data/power.js';
import { paths } from '../../parts/paths.js';
import { StepHead, StepKeys } from '../../parts/wiring/step-bar.js';
import { useWork } from '../../parts/wiring/use-work.js';
import { Button, buttonClass } from '../../ui/button.js';
import { BeginBatch } from './begin-batch.js';
import { TryKeys } from './try-keys.js';

/** What is done now, in a few words. */
export function runTitle(next: RunStep, known: JobLookup): string {
  const name = (boxId: string) => known.boxes.get(boxId)?.name ?? 'the box';
  switch (next.kind) {
    case 'switch':
      return `Switch ${next.to}: ${breakers(next.circuitIds, known)}`;
    case 'identify':
      return `Not ready to be wired: ${name(next.boxId)}`;
    case 'wire':
      return name(next.boxId);
    case 'wait':
      return 'The rest is in other hands';
    case 'try':
      return `Try ${name(next.boxId)}`;
    case 'done':
      return 'This batch is done';
  }
}

function breakers(circuitIds: readonly string[], known: JobLookup): string {
  return listed(
    circuitIds.map((id) => {
      const circuit = known.circuits.get(id);
      return `${circuit?.breaker} ${circuit?.label}`;
    }),
  );
}

/** The keys of the one thing that is done now. */
export function RunKeys({ stands, seen }: { stands: BatchStands; seen: Symptoms }) {
  const { job, known } = useJob();
  const { next } = stands;
  switch (next.kind) {
    case 'switch':
      return <SwitchKeys next={next} stands={stands} />;
    case 'identify':
      return (
        <div className="flex flex-col gap-2">
          <p>Something of its plan is missing; what it is stands at the plan.</p>
          <Link className={buttonClass('main', 'min-h-14 text-lg')} to={paths.wire(job.id, next.boxId)}>
            What is missing
          </Link>
        </div>
      );
    case 'wire':
      return <WireKeys key={next.boxId} boxId={next.boxId} stands={stands} />;
    case 'wait':
      return (
        <p>
          {next.boxIds.map((id) => known.boxes.get(id)?.name).join(', ')}: somebody else has{' '}
          {next.boxIds.length > 1 ? 'them' : 'it'} in hand. Power is not switched before they are done.
        </p>
      );
    case 'try':
      return <TryKeys boxId={next.boxId} position={next.position} seen={seen} />;
    case 'done':
      return <NextBatch />;
  }
}

function SwitchKeys({ next, stands }: { next: Extract<RunStep, { kind: 'switch' }>; stands: BatchStands }) {
  const { job, known, apply } = useJob();
  const power = useJobPower();
  const boxes = stands.boxes.map(({ boxId }) => ({ boxId, steps: [], ready: true }));
  const open = openElsewhere(next, { boxes, known, power, by: thisDevice() });
  const record = () => {
    felt();
    const at = instant();
    apply(
      next.circuitIds.map((circuitId) => {
        const id = newId();
        const event = { id, kind: 'switched', circuitId, state: next.to, at, by: thisDevice() };
        return putPart('event', id, event);
      }),
      `Switched ${next.to}: ${breakers(next.circuitIds, known)}`,
    );
  };
  return (
    <div className="flex flex-col gap-2">
      <p>{BEFORE_SWITCHING[next.for]}</p>
      {open.length > 0 && (
        <p role="status" className="rounded-md border-2 border-stop p-2 font-semibold">
          {openElsewhereText(open, known)}
        </p>
      )}
      <Button kind="main" className="min-h-14 text-lg" onClick={record}>
        Record: switched {next.to}
      </Button>
      <Link className={buttonClass('plain')} to={paths.panel(job.id)}>
        The panel
      </Link>
    </div>
  );
}

/** The step of the box that is next, once it is in these hands. */
function WireKeys({ boxId, stands }: { boxId: string; stands: BatchStands }) {
  const { known, apply } = useJob();
  const box = known.boxes.get(boxId) as Box;
  const answer = useWiring(boxId);
  const power = useBoxPower(boxId);
  const { circuits } = useJobPower();
  const work = useWork(box, answer, { power, circuits, way: 'planned' });
  const holder = stands.boxes.find((entry) => entry.boxId === boxId)?.holder ?? null;
  if (!work || !power) return <p>Being worked out …</p>;
  if (holder === null) {
    const take = () => {
      const id = newId();
      const event = holdEvent('taken', boxId, { id, at: instant(), by: thisDevice() });
      apply([putPart('event', id, event)], `${box.name} in hand`);
    };
    return (
      <Button kind="main" className="min-h-14 text-lg" onClick={take}>
        Take {box.name} in hand
      </Button>
    );
  }
  return (
    <div className="flex flex-col gap-2">
      <StepHead work={work} />
      <StepKeys box={box} work={work} power={power} />
    </div>
  );
}

function NextBatch() {
  const day = useDay();
  const batch = day?.sheet.batches[0];
  return batch ? <BeginBatch batch={batch} /> : <p>Nothing is left after it.</p>;
}
