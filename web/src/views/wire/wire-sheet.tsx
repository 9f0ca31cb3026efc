import { type Box, plural, wiringSentences } from '@inventario/core';
import { ArrowLeft, Download, Printer } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { downloadSvg } from '../../data/downloads.js';
import type { WiringAnswer } from '../../data/engines.worker.js';
import { useJob } from '../../data/job-context.js';
import { type Lit, WiringDrawing } from '../../drawings/wiring/wiring-drawing.js';
import { paths } from '../../parts/paths.js';
import { oldName, panelName } from '../../parts/wiring/panel-names.js';
import type { Way, Work } from '../../parts/wiring/use-work.js';
import { Button } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';
import { Empty } from '../../ui/empty.js';
import { Fold } from '../../ui/fold.js';
import { Zoomable } from '../../ui/zoomable.js';
import { DeviceCards } from './device-card.js';
import { FindingList } from './finding-list.js';
import { StepList } from './step-list.js';

/** The drawing with its step lit, and below it everything there is to say of it. */
export function WireSheet({ box, answer, work, onWay }: Sheet & { onWay: (way: Way) => void }) {
  const { job, known } = useJob();
  const { planned } = answer;
  const isPlanned = work.way === 'planned';
  return (
    <div className="mx-auto flex max-w-5xl flex-col gap-2">
      <Head box={box} verdict={work.verdict} />
      {isPlanned && planned && !planned.wiring.ready && <FindingList box={box} findings={planned.findings} />}
      {isPlanned && !planned ? (
        <Empty title="Nothing is chosen for this box">
          <Link className="underline" to={paths.plans(job.id)}>
            To the plans of the house
          </Link>
          <Button onClick={() => onWay('found')}>As found, and the way back</Button>
        </Empty>
      ) : (
        <>
          <Drawings box={box} answer={answer} work={work} onWay={onWay} />
          <div className="contents print:hidden">
            <Fold
              title="Read it as a list"
              says={`${plural(work.picture.joints.length, 'joint')}, every end named`}
            >
              <ul className="list-disc pl-5">
                {wiringSentences(work.wiring, known).map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </Fold>
          </div>
          <StepList work={work} />
          <div className="contents print:hidden">{isPlanned && <DeviceCards work={work} />}</div>
        </>
      )}
    </div>
  );
}

interface Sheet {
  box: Box;
  answer: WiringAnswer;
  work: Work;
}

function Head({ box, verdict }: { box: Box; verdict: string }) {
  const { job } = useJob();
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <Link
        to={paths.box(job.id, box.id)}
        className="flex min-h-11 items-center gap-2 underline print:hidden"
      >
        <ArrowLeft aria-hidden className="size-5" />
        Survey
      </Link>
      <h1 className="text-lg font-bold">Wire {box.name}</h1>
      <p className="mr-auto font-semibold" role="status">
        {verdict}
      </p>
    </div>
  );
}

/** As planned, or as found; the one beside the other where it is asked for. */
function Drawings({ box, answer, work, onWay }: Sheet & { onWay: (way: Way) => void }) {
  const { job, known } = useJob();
  const [beside, setBeside] = useState(false);
  const drawing = useRef<HTMLElement>(null);
  const stepKey = work.step?.key;
  // What the step is about comes into sight.
  useEffect(() => {
    if (stepKey)
      drawing.current?.querySelector('[data-lit]')?.scrollIntoView({ block: 'center', inline: 'center' });
  }, [stepKey]);
  const isPlanned = work.way === 'planned';
  return (
    <>
      <div className={beside ? 'grid gap-2 md:grid-cols-2' : ''}>
        {beside && isPlanned && (
          <figure>
            <figcaption className="font-semibold">As found</figcaption>
            <WiringDrawing
              picture={answer.found.picture}
              known={known}
              lit={null}
              label={`${box.name} as found`}
              panelName={(position) => oldName(box, position, job)}
            />
          </figure>
        )}
        <figure ref={drawing}>
          {beside && <figcaption className="font-semibold">As planned</figcaption>}
          <Zoomable>
            <WiringDrawing
              picture={work.picture}
              known={known}
              lit={work.lit}
              label={`${box.name} ${isPlanned ? 'as planned' : 'as found'}`}
              panelName={(position) => panelName(box, position, work.wiring, job)}
              onPick={(key) => work.light(toggled(key, work))}
            />
          </Zoomable>
        </figure>
      </div>
      <div className="flex flex-wrap items-end gap-2 print:hidden">
        <Segments
          label="Way"
          value={work.way}
          options={[
            { value: 'planned', label: 'As planned' },
            { value: 'found', label: 'As found' },
          ]}
          onChoice={onWay}
        />
        {isPlanned && (
          <Button onClick={() => setBeside(!beside)} aria-pressed={beside}>
            {beside ? 'As planned alone' : 'As found beside it'}
          </Button>
        )}
        <Button icon={Download} onClick={() => downloadSvg(job, `wiring-${box.name}`, drawing.current)}>
          Drawing as SVG
        </Button>
        <Button icon={Printer} onClick={() => window.print()}>
          Print
        </Button>
      </div>
    </>
  );
}

/** A joint or device alone; touched again, the step is lit as before. */
function toggled(key: string, { lit, wiring, picture }: Work): Lit {
  if (lit?.has(key)) return null;
  if (key.startsWith('joint:')) {
    const members = wiring.plan.joints.find(({ id }) => `joint:${id}` === key)?.members ?? [];
    return new Set([key, ...members]);
  }
  const panel = picture.panels.find((entry) => entry.key === key);
  const names = (panel?.terminals ?? []).flatMap(({ name, to }) => [
    name,
    ...(to && 'joint' in to ? [`joint:${to.joint}`] : []),
  ]);
  return new Set([key, ...names]);
}
