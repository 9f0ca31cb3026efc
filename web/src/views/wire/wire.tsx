import type { Box } from '@inventario/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useJob, useWiring } from '../../data/job-context.js';
import { useBoxPower, useJobPower } from '../../data/power.js';
import { useStayAwake } from '../../data/wake-lock.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { StopCard } from '../../parts/stop-card.js';
import { StepHead, StepKeys } from '../../parts/wiring/step-bar.js';
import { useWork, type Way } from '../../parts/wiring/use-work.js';
import { Empty } from '../../ui/empty.js';
import { WireReckoning } from './wire-reckoning.js';
import { WireSheet } from './wire-sheet.js';

/** How does it go together? */
export function WireView() {
  const { boxId = '' } = useParams();
  const { job, known } = useJob();
  const box = known.boxes.get(boxId);
  if (!box)
    return (
      <Bench title="Wire" glance="No such box" reckoning={null}>
        <Empty title="This box is not in the job any more">
          <Link className="underline" to={paths.wiring(job.id)}>
            All boxes to wire
          </Link>
        </Empty>
      </Bench>
    );
  return <BoxWire key={box.id} box={box} />;
}

function BoxWire({ box }: { box: Box }) {
  const answer = useWiring(box.id);
  const power = useBoxPower(box.id);
  const { circuits } = useJobPower();
  const [way, setWay] = useState<Way>('planned');
  const work = useWork(box, answer, { power, circuits, way });
  useStayAwake();
  const name = box.name || 'the box';
  const title = `Wire ${name}`;
  if (!answer || !work || !power)
    return (
      <Bench title={title} glance="Being worked out" reckoning={null}>
        <h1 className="text-xl font-bold">{title}</h1>
        <p>Being worked out …</p>
      </Bench>
    );
  return (
    <Bench
      title={title}
      glance={work.verdict}
      reckoning={<WireReckoning box={box} answer={answer} work={work} />}
      {...(work.step
        ? { bar: { head: <StepHead work={work} />, keys: <StepKeys box={box} work={work} power={power} /> } }
        : {})}
    >
      <StopCard box={box} />
      <WireSheet box={box} answer={answer} work={work} onWay={setWay} />
    </Bench>
  );
}
