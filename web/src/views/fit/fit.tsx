import { type Box, capital, plural, ruleNote, TROUBLE_WORDS, troublesOf, wantsSmart } from '@inventario/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { type House, useHouse, useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { Bench } from '../../parts/bench.js';
import { OwnFiguresOf } from '../../parts/own-figures.js';
import { paths } from '../../parts/paths.js';
import { Segments } from '../../ui/choice.js';
import { Empty } from '../../ui/empty.js';
import { rowsByTrouble } from './by-trouble.js';
import { CandidateStepper } from './candidate-stepper.js';
import { BarLegend, ChannelList, CircuitList, EnergyCost } from './carry-list.js';
import { FillStack } from './fill-stack.js';
import { FoundAndPlanned } from './found-and-planned.js';
import { HouseChart } from './house-chart.js';
import { RemedyList } from './remedy-list.js';

/** Does it close, does it carry? The house by its trouble, and the box in hand with its ways out. */
export function FitView() {
  const { boxId } = useParams();
  const { job, known } = useJob();
  const house = useHouse();
  const box = known.boxes.get(boxId ?? '');
  if (!house)
    return (
      <Bench title="Fit" glance="Being worked out" reckoning={null}>
        <p>Being worked out …</p>
      </Bench>
    );
  const troubled = rowsByTrouble(job.boxes, house).filter((row) => row.troubles.length > 0);
  const glance =
    troubled.length === 0 ? 'Every box fits' : `${plural(troubled.length, 'box', 'boxes')} too small`;
  return (
    <Bench title="Fit" glance={glance} reckoning={<CarryReckoning box={box} />}>
      <h1 className="mb-1 text-xl font-bold">Does it close, does it carry?</h1>
      <p className="mb-3">
        {glance}
        {troubled.length > 0 ? ', worst first' : ''}. {ruleNote(job)}{' '}
        <Link className="underline" to={paths.figures(job.id)}>
          Where the figures come from
        </Link>
      </p>
      {job.boxes.length === 0 && (
        <Empty title="No boxes yet">
          <Link className="underline" to={paths.board(job.id)}>
            To the board
          </Link>
        </Empty>
      )}
      {box && <BoxFit key={box.id} box={box} house={house} />}
      <HouseChart house={house} boxId={box?.id} />
    </Bench>
  );
}

function BoxFit({ box, house }: { box: Box; house: House }) {
  const { job } = useJob();
  const units = useUnits(job);
  const places = box.positions.filter(wantsSmart);
  const [index, setIndex] = useState(places[0]?.index ?? null);
  const position = places.find((entry) => entry.index === index);
  const reckoning = house.get(box.id);
  if (!reckoning) return null;
  const troubles = troublesOf(reckoning.planned);
  return (
    <section aria-label={box.name} className="mb-5 rounded-lg border-2 border-ink bg-ground p-3">
      <div className="mb-2 flex flex-wrap items-baseline gap-3">
        <h2 className="text-lg font-bold">{box.name}</h2>
        <p className={troubles.length > 0 ? 'font-bold text-stop' : 'font-bold'}>
          {troubles.length > 0
            ? capital(troubles.map((trouble) => TROUBLE_WORDS[trouble]).join(', '))
            : 'Box fill, depth and packing OK'}
        </p>
        <Link className="ml-auto flex min-h-11 items-center underline" to={paths.box(job.id, box.id)}>
          To its survey
        </Link>
      </div>
      <div className="grid gap-4 xl:grid-cols-2">
        <div className="flex flex-col gap-3">
          {places.length > 1 && (
            <Segments
              label="Position"
              value={index}
              options={places.map((entry) => ({ value: entry.index, label: String(entry.index) }))}
              onChoice={setIndex}
            />
          )}
          {position ? (
            <CandidateStepper key={position.index} box={box} position={position} units={units} />
          ) : (
            <FillStack result={reckoning.planned} units={units} />
          )}
        </div>
        <div className="flex flex-col gap-3">
          <FoundAndPlanned found={reckoning.found} planned={reckoning.planned} units={units} />
          {troubles.length > 0 && (
            <>
              <h3 className="font-bold">Ways out</h3>
              <RemedyList box={box} />
            </>
          )}
          <h3 className="font-bold">What it carries</h3>
          <ChannelList box={box} />
        </div>
      </div>
    </section>
  );
}

function CarryReckoning({ box }: { box: Box | undefined }) {
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">Breakers, as far as is known</h2>
        <CircuitList />
        <BarLegend className="mt-1" />
        <OwnFiguresOf groups={['loads', 'conductor']} />
      </section>
      <section>
        <h2 className="mb-1 font-bold">Cost in a year</h2>
        <EnergyCost />
      </section>
      {!box && (
        <p className="text-sm text-soft">
          Touch a box for its count, its ways out and what its devices carry.
        </p>
      )}
    </div>
  );
}
