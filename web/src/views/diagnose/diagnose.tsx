import {
  type Box,
  deviceName,
  placeKey,
  type Symptoms,
  symptomsTold,
  testedReadings,
} from '@inventario/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useDiagnosis, useJob, useWiring } from '../../data/job-context.js';
import { WiringDrawing } from '../../drawings/wiring/wiring-drawing.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { StopCard } from '../../parts/stop-card.js';
import { panelName } from '../../parts/wiring/panel-names.js';
import { Empty } from '../../ui/empty.js';
import { Zoomable } from '../../ui/zoomable.js';
import { CauseList } from './cause-list.js';
import { DangerCard } from './danger-card.js';
import { causeKey, type Doubt } from './doubt.js';
import { DoubtKeys, doubtTitle } from './doubt-keys.js';
import { ReadingList } from './reading-list.js';
import { SymptomTiles } from './symptom-tiles.js';

/** Why does it not work? */
export function DiagnoseView() {
  const { boxId = '', position = '' } = useParams();
  const { job, known } = useJob();
  const box = known.boxes.get(boxId);
  const index = Number(position);
  if (!box?.positions.some((entry) => entry.index === index))
    return (
      <Bench title="Diagnose" glance="No such place" reckoning={null}>
        <Empty title="This place is not in the job any more">
          <Link className="underline" to={paths.install(job.id)}>
            To the work
          </Link>
        </Empty>
      </Bench>
    );
  return <Diagnose key={placeKey(boxId, index)} box={box} position={index} />;
}

function Diagnose({ box, position }: { box: Box; position: number }) {
  const { job, known } = useJob();
  const place = { boxId: box.id, position };
  const [seen, setSeen] = useState<Symptoms>(() => symptomsTold(job, place));
  const [picked, pick] = useState<string | null>(null);
  const readings = testedReadings(job, place);
  const answer = useDiagnosis(place, { seen, readings });
  const device = known.devices.get(known.selections.get(placeKey(box.id, position))?.deviceId ?? '');
  const title = `Diagnose ${box.name}`;
  const begun = Object.keys(seen).length > 0;
  if (answer === null)
    return (
      <Bench title={title} glance="Nothing on wires" reckoning={null}>
        <Empty title="No device on wires is planned here">
          <p>What is paired and does not answer is looked into under Pair.</p>
          <Link className="min-h-11 underline" to={paths.pair(job.id)}>
            To pairing
          </Link>
        </Empty>
      </Bench>
    );
  const doubt = answer && begun ? { box, position, seen, readings, answer, picked, pick } : null;
  const change = (next: Symptoms) => {
    setSeen(next);
    pick(null);
  };
  return (
    <Bench
      title={title}
      glance={doubt ? doubtTitle(doubt) : 'What is seen?'}
      reckoning={doubt ? <CauseList doubt={doubt} /> : <Hints />}
      {...(doubt
        ? {
            bar: {
              head: <strong className="block text-lg leading-tight">{doubtTitle(doubt)}</strong>,
              keys: <DoubtKeys doubt={doubt} />,
            },
          }
        : {})}
    >
      <h1 className="text-xl font-bold">Why does it not work?</h1>
      <p className="mb-2">
        {box.name}
        {box.positions.length > 1 && `, position ${position}`}: {deviceName(device, 'no device')}.{' '}
        <Link className="underline" to={`${paths.pair(job.id)}?at=${box.id}/${position}`}>
          It works at the wall, and not in the app
        </Link>
      </p>
      {answer?.stop && <DangerCard says={answer.stop} />}
      <StopCard box={box} />
      <SymptomTiles seen={seen} hasFar={known.groups.has(placeKey(box.id, position))} onSeen={change} />
      {doubt && (
        <>
          <div className="mt-4 lg:hidden">
            <CauseList doubt={doubt} />
          </div>
          <ReadingList box={box} readings={readings} />
          <PlanOfBox doubt={doubt} />
        </>
      )}
    </Bench>
  );
}

/** This box’s own drawing, with what the cause is about lit. */
function PlanOfBox({ doubt: { box, answer, picked } }: { doubt: Doubt }) {
  const { job, known } = useJob();
  const wiring = useWiring(box.id);
  const cause = answer.causes.find((entry) => causeKey(entry) === picked) ?? answer.causes[0];
  const planned = wiring?.planned?.wiring;
  if (!planned) return null;
  const lit = new Set([
    ...(cause?.conductorIds ?? []),
    ...(cause?.position == null ? [] : [`position-${cause.position}`]),
  ]);
  return (
    <figure className="mt-4">
      <figcaption className="mb-1 font-semibold">
        {box.name} as planned{cause && `; lit: ${cause.name.toLowerCase()}`}
      </figcaption>
      <Zoomable>
        <WiringDrawing
          picture={answer.picture}
          known={known}
          lit={lit.size > 0 ? lit : null}
          label={`${box.name} as planned`}
          panelName={(position) => panelName(box, position, planned, job)}
        />
      </Zoomable>
    </figure>
  );
}

function Hints() {
  return (
    <div className="flex flex-col gap-2">
      <p>Touch what is seen. What is not touched counts as not known, and nothing is assumed of it.</p>
      <p className="text-sm text-soft">
        Nothing is swapped to see what happens: a neutral exchanged with a load can be a dead short. Measuring
        tells first.
      </p>
    </div>
  );
}
