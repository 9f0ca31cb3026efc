import { type Box, STOP_WORDS, setParts } from '@inventario/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useHouse, useJob } from '../../data/job-context.js';
import { keepLastPlace } from '../../data/last-place.js';
import { useStayAwake } from '../../data/wake-lock.js';
import { Bench } from '../../parts/bench.js';
import { BoxReckoning, glanceAt } from '../../parts/box-reckoning.js';
import { paths } from '../../parts/paths.js';
import { StopCard } from '../../parts/stop-card.js';
import { Empty } from '../../ui/empty.js';
import { StepHead, StepKeys } from './bar/step-bar.js';
import { Board } from './board/board.js';
import { BoxHead } from './box-head.js';
import { BoxLines } from './box-lines.js';
import type { ChangeBox } from './change-box.js';
import { EnclosureLine } from './enclosure/enclosure-line.js';
import { newBench } from './hand/bench-state.js';
import { keptMode } from './hand/kept-mode.js';
import { HandProvider, useHandOf } from './hand/use-hand.js';
import { IdentifySection } from './reading/identify-section.js';

/** What is in this box? */
export function SurveyView() {
  const { boxId = '' } = useParams();
  const { job, known } = useJob();
  const box = known.boxes.get(boxId);
  if (!box)
    return (
      <Bench title="Survey" glance="No such box" reckoning={null}>
        <Empty title="This box is not in the job any more">
          <Link className="underline" to={paths.board(job.id)}>
            To the board
          </Link>
        </Empty>
      </Bench>
    );
  return <BoxSurvey key={box.id} box={box} />;
}

function BoxSurvey({ box }: { box: Box }) {
  const { job, known, apply } = useJob();
  const house = useHouse();
  const name = box.name || 'the box';
  const change: ChangeBox = (more, label, mergeKey) => {
    apply(setParts('box', box.id, box, more), `${label} (${name})`, mergeKey && `${box.id}/${mergeKey}`);
  };
  const [bench, setBench] = useState(() => newBench(startMode(box)));
  const hand = useHandOf(box, bench, setBench, change);
  useStayAwake();
  useEffect(() => keepLastPlace(job.id, { boxId: box.id, name }), [job.id, box.id, name]);
  const [search, setSearch] = useSearchParams();
  const asked = search.get('test');
  // Whoever comes here to settle something by a test finds it set up.
  useEffect(() => {
    if (!asked) return;
    setBench((before) => ({ ...before, mode: 'test', held: null, skipped: new Set() }));
    setSearch({}, { replace: true });
  }, [asked, setSearch]);
  const reckoning = useMemo(() => <BoxReckoning box={box} identify={<IdentifySection box={box} />} />, [box]);
  if (!hand) return null;
  const worst = hand.power.stops.find(({ code }) => code === 'live-while-off') ?? hand.power.stops[0];
  const glance = worst ? `Stop: ${STOP_WORDS[worst.code].name.toLowerCase()}` : glanceAt(house, box.id);
  return (
    <HandProvider value={hand}>
      <Bench
        title={`Survey of ${name}`}
        glance={glance}
        reckoning={reckoning}
        bar={{ head: <StepHead />, keys: <StepKeys /> }}
      >
        <h1 className="sr-only">Survey of {name}</h1>
        <div className="mx-auto flex max-w-4xl flex-col gap-2">
          <BoxHead box={box} change={change} />
          <StopCard box={box} />
          <EnclosureLine box={box} change={change} />
          <Board />
          <BoxLines box={box} change={change} known={known} />
        </div>
      </Bench>
    </HandProvider>
  );
}

/** A box that is labelled through has nothing to be tested; any other goes on as its user last did. */
function startMode(box: Box) {
  const told = new Set(
    box.labels.filter(({ role }) => role !== 'unknown').map(({ conductorId }) => conductorId),
  );
  const isTold =
    box.conductors.length > 0 &&
    box.conductors.every(({ id, cableId }) => cableId === undefined || told.has(id));
  return isTold ? 'label' : keptMode();
}
