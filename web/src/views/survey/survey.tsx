import {
  type Box,
  positionsInOrder,
  profileOf,
  removalOf,
  STOP_WORDS,
  setParts,
  withPositionOrder,
} from '@inventario/core';
import { Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useHouse, useIdentified, useJob } from '../../data/job-context.js';
import { useBoxPower } from '../../data/power.js';
import { Bench } from '../../parts/bench.js';
import { BoxReckoning, glanceAt } from '../../parts/box-reckoning.js';
import { paths } from '../../parts/paths.js';
import { StopCard } from '../../parts/stop-card.js';
import { PickSeveral } from '../../ui/choice.js';
import { Empty } from '../../ui/empty.js';
import { TextField } from '../../ui/field.js';
import { Menu } from '../../ui/menu.js';
import { SortableList } from '../../ui/sortable-list.js';
import type { ChangeBox } from './change-box.js';
import { ConductorsPanel } from './conductors/conductors-panel.js';
import { BoxPanel } from './enclosure/box-panel.js';
import { PositionPanel } from './positions/position-panel.js';
import { IdentifySection } from './reading/identify-section.js';
import { newBench, setUpFor } from './reading/reading-state.js';

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
  const { job, known, apply, applyAndSay } = useJob();
  const house = useHouse();
  const identified = useIdentified(box.id);
  const navigate = useNavigate();
  const [loadFor, setLoadFor] = useState<number | null>(null);
  const [bench, setBench] = useState(() => newBench(box));
  const [search, setSearch] = useSearchParams();
  const asked = search.get('test');
  // Whoever comes here to settle something finds the test that tells it set up.
  useEffect(() => {
    const next = asked && identified?.next[0];
    if (!next) return;
    setBench((before) => setUpFor(before, next));
    setSearch({}, { replace: true });
  }, [asked, identified, setSearch]);
  const name = box.name || 'the box';
  const stops = useBoxPower(box.id)?.stops ?? [];
  const worst = stops.find(({ code }) => code === 'live-while-off') ?? stops[0];
  const glance = worst
    ? `Stop: ${STOP_WORDS[worst.code].name.toLowerCase()}`
    : identified?.conflicts.some((conflict) => conflict.open)
      ? 'Readings contradict each other'
      : glanceAt(house, box.id);
  const change: ChangeBox = (more, label, mergeKey) => {
    apply(setParts('box', box.id, box, more), `${label} (${name})`, mergeKey && `${box.id}/${mergeKey}`);
  };
  const remove = () => {
    if (applyAndSay(removalOf(job, 'box', box.id), `Take out ${name}`, `${name} is taken out.`))
      navigate(paths.board(job.id));
  };
  return (
    <Bench
      title={`Survey of ${name}`}
      glance={glance}
      reckoning={
        <BoxReckoning
          box={box}
          identify={<IdentifySection box={box} onSetUp={(test) => setBench(setUpFor(bench, test))} />}
        />
      }
    >
      <h1 className="sr-only">Survey of {name}</h1>
      <div className="mb-3 grid grid-cols-[1fr_auto] items-end gap-2 sm:grid-cols-[2fr_1fr_auto]">
        <TextField
          label="Box"
          value={box.name}
          maxLength={100}
          onText={(text) => change({ name: text }, 'Name the box', 'name')}
          className="text-lg font-bold"
          boxClass="col-span-2 sm:col-span-1"
        />
        <PickSeveral
          label="Fed by"
          placeholder="no circuit named"
          values={box.circuitIds}
          options={job.circuits.map((circuit) => ({
            value: circuit.id,
            label: `${circuit.breaker} ${circuit.label}`,
          }))}
          onChoice={(circuitIds) => change({ circuitIds }, 'Circuits of the box')}
        />
        <Menu
          name="More for this box"
          entries={[...roomMoves(), { label: 'Take this box out', icon: Trash2, stop: true, onPick: remove }]}
        />
      </div>
      <div className="flex flex-col gap-4">
        <StopCard box={box} search={bench.mode !== 'read'} />
        <BoxPanel box={box} change={change} />
        <ConductorsPanel box={box} change={change} bench={bench} onBench={setBench} />
        <section aria-label="Positions">
          <h2 className="mb-2 font-bold">What each position works</h2>
          <PositionOrder box={box} change={change} />
          <div className="grid gap-3 xl:grid-cols-2">
            {positionsInOrder(box).map((position) => (
              <PositionPanel
                key={position.index}
                box={box}
                position={position}
                words={profileOf(job).words}
                change={change}
                addingLoad={loadFor === position.index}
                onAddLoad={(open) => setLoadFor(open ? position.index : null)}
              />
            ))}
          </div>
        </section>
      </div>
    </Bench>
  );

  function roomMoves() {
    return job.rooms
      .filter((room) => room.id !== box.roomId)
      .map((room) => ({
        label: `Move to ${room.name}`,
        onPick: () => change({ roomId: room.id }, `Move to ${known.rooms.get(room.id)?.name}`),
      }));
  }
}

/** Which position stands where, left to right. */
function PositionOrder({ box, change }: { box: Box; change: ChangeBox }) {
  if (box.positions.length < 2) return null;
  const words = (id: string) => `Position ${id}`;
  return (
    <div className="mb-3 max-w-sm">
      <SortableList
        label="Positions, left to right"
        ids={positionsInOrder(box).map(({ index }) => String(index))}
        nameOf={words}
        onOrder={(ids) => change(withPositionOrder(box, ids.map(Number)), 'Positions, left to right')}
      >
        {words}
      </SortableList>
    </div>
  );
}
