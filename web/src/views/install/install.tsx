import {
  type BatchInHand,
  batchInHand,
  batchStands,
  plural,
  type RunStep,
  type Symptoms,
} from '@inventario/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { thisDevice } from '../../data/ids.js';
import { useHouseWiring, useJob } from '../../data/job-context.js';
import { useDay } from '../../data/plan-answers.js';
import { useJobPower } from '../../data/power.js';
import { useStayAwake } from '../../data/wake-lock.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Empty } from '../../ui/empty.js';
import { BatchHead } from './batch-head.js';
import { BatchList } from './batch-list.js';
import { BeginBatch } from './begin-batch.js';
import { BoxInHand } from './box-in-hand.js';
import { InstallReckoning } from './install-reckoning.js';
import { RunKeys, runTitle } from './run-keys.js';
import { TrySheet } from './try-sheet.js';

/** What do I do now, and is it dead? */
export function InstallView() {
  const { job } = useJob();
  useStayAwake();
  const inHand = batchInHand(job);
  return inHand ? <Batch inHand={inHand} /> : <NoBatch />;
}

function NoBatch() {
  const { job } = useJob();
  const day = useDay();
  const batch = day?.sheet.batches[0];
  return (
    <Bench
      title="Install"
      glance={batch ? 'No batch is begun' : 'Nothing to install'}
      reckoning={<InstallReckoning stands={null} />}
      {...(batch
        ? { bar: { head: <strong>No batch is begun</strong>, keys: <BeginBatch batch={batch} /> } }
        : {})}
    >
      <h1 className="mb-2 text-xl font-bold">Install</h1>
      {!day && <p>The day is being worked out …</p>}
      {day && !batch && (
        <Empty title="Nothing is left to be installed">
          <Link className="min-h-11 underline" to={paths.pair(job.id)}>
            On to pairing
          </Link>
        </Empty>
      )}
      {batch && day && <BatchHead batch={batch} left={day.sheet.batches.length - 1} />}
    </Bench>
  );
}

/** The batch in hand: its power, its boxes, and the one thing to do. */
function Batch({ inHand }: { inHand: BatchInHand }) {
  const { known } = useJob();
  const rows = useHouseWiring();
  const power = useJobPower();
  const by = thisDevice();
  const [tried, setTried] = useState<{ place: string; seen: Symptoms }>(NOTHING_TRIED);
  const stands = useMemo(() => {
    if (!rows) return null;
    const boxes = inHand.boxIds.flatMap((id) => rows.find(({ boxId }) => boxId === id) ?? []);
    return batchStands({ boxes, known, power, by });
  }, [rows, inHand.boxIds, known, power, by]);
  if (!stands)
    return (
      <Bench title="Install" glance="Being worked out" reckoning={null}>
        <p>The batch is being worked out …</p>
      </Bench>
    );
  const { next } = stands;
  const boxId = boxOf(next);
  const place = next.kind === 'try' ? `${next.boxId}/${next.position}` : '';
  const seen = tried.place === place ? tried.seen : NOTHING_TRIED.seen;
  return (
    <Bench
      title="Install"
      glance={`${plural(stands.tripsLeft, 'trip')} left in this batch`}
      reckoning={<InstallReckoning stands={stands} />}
      bar={{
        head: (
          <p className="leading-tight">
            <span className="text-sm text-soft">
              {plural(stands.tripsLeft, 'trip')} to the panel left in this batch
            </span>
            <strong className="block text-lg">{runTitle(next, known)}</strong>
          </p>
        ),
        keys: <RunKeys stands={stands} seen={seen} />,
      }}
    >
      <BatchHead batch={null} inHand={inHand} left={null} />
      {next.kind === 'try' ? (
        <TrySheet
          key={place}
          boxId={next.boxId}
          position={next.position}
          seen={seen}
          onSeen={(now) => setTried({ place, seen: now })}
        />
      ) : (
        boxId !== null && <BoxInHand key={boxId} boxId={boxId} step={next} />
      )}
      <BatchList stands={stands} now={boxId} />
    </Bench>
  );
}

/** Of no device yet. */
const NOTHING_TRIED: { place: string; seen: Symptoms } = { place: '', seen: {} };

function boxOf(next: RunStep): string | null {
  return next.kind === 'wire' || next.kind === 'identify' || next.kind === 'try' ? next.boxId : null;
}
