import { batchInHand, durationText, plural, setParts, USUAL_OPEN_AT_ONCE } from '@inventario/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { useDay } from '../../data/plan-answers.js';
import type { Day } from '../../data/planner.worker.js';
import { Bench } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { Button, buttonClass } from '../../ui/button.js';
import { Segments } from '../../ui/choice.js';
import { Empty } from '../../ui/empty.js';
import { BatchColumns } from './batch-columns.js';
import { Leaving } from './leaving.js';
import { RunSettings } from './run-settings.js';

/** What is done when, with the fewest trips to the panel? */
export function DayView() {
  const { job } = useJob();
  const day = useDay();
  const [page, setPage] = useState<'batches' | 'leaving'>('batches');
  const count = day?.sheet.batches.length ?? 0;
  const inHand = batchInHand(job);
  return (
    <Bench
      title="Day"
      glance={day ? tripsText(day) : 'Being worked out'}
      reckoning={<DayReckoning day={day} />}
      {...(inHand || count > 0
        ? {
            bar: {
              head: (
                <p className="leading-tight font-semibold">{day ? tripsText(day) : 'Being worked out'}</p>
              ),
              keys: (
                <Link className={buttonClass('main', 'min-h-14 text-lg')} to={paths.install(job.id)}>
                  {inHand ? 'Go on with the batch in hand' : 'Go to the first batch'}
                </Link>
              ),
            },
          }
        : {})}
    >
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <h1 className="mr-auto text-xl font-bold">The day</h1>
        <Segments
          label="Page"
          hideLabel
          value={page}
          options={[
            { value: 'batches', label: 'Batches' },
            { value: 'leaving', label: 'Before leaving' },
          ]}
          onChoice={setPage}
        />
      </div>
      {!day && <p>The day is being worked out …</p>}
      {day && count === 0 && (
        <Empty title={inHand ? 'The rest is in hand' : 'Nothing is left to be worked on'}>
          <p>Boxes come here once a device is chosen for them, until they are mounted.</p>
          <Link className="min-h-11 underline" to={paths.plans(job.id)}>
            To the plans of the house
          </Link>
        </Empty>
      )}
      {day && count > 0 && page === 'batches' && (
        <>
          <RunSettings />
          <BatchColumns sheet={day.sheet} />
        </>
      )}
      {day && page === 'leaving' && <Leaving leaving={day.leaving} />}
    </Bench>
  );
}

/** `18 trips to the panel; box by box 66`. */
function tripsText({ sheet }: Day): string {
  if (sheet.batches.length === 0) return 'Nothing left';
  return `${plural(sheet.panelTrips, 'trip')} to the panel, box by box ${sheet.boxByBoxTrips}`;
}

function DayReckoning({ day }: { day: Day | null }) {
  const { job, apply } = useJob();
  if (!day || day.sheet.batches.length === 0) return null;
  const { sheet } = day;
  const { batches: arranged, ...rest } = job.run ?? {};
  const end = sheet.times.at(-1)?.to ?? 0;
  const saved = sheet.boxByBoxTrips - sheet.panelTrips;
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">Against box by box</h2>
        <ul className="flex flex-col gap-1">
          <li>
            {plural(sheet.panelTrips, 'trip')} to the panel, not {sheet.boxByBoxTrips}
          </li>
          <li>
            {plural(saved, 'trip')} spared, about {durationText(saved * MINUTES_A_TRIP)}
          </li>
          <li>{proofText(sheet)}</li>
        </ul>
      </section>
      {arranged && (
        <section className="flex flex-col gap-2">
          <p>The batches stand as somebody arranged them.</p>
          <Button onClick={() => apply(setParts('job', job.id, job, { run: rest }), 'Fewest trips again')}>
            Back to the fewest trips
          </Button>
        </section>
      )}
      <section>
        <h2 className="mb-1 font-bold">Time</h2>
        <ul className="flex flex-col gap-1">
          <li>{durationText(end)} at the boxes and the panel</li>
          <li>{pairingText(sheet)}</li>
          <li>At most {job.run?.openAtOnce ?? USUAL_OPEN_AT_ONCE} boxes open at once</li>
        </ul>
        <p className="mt-1 text-sm text-soft">
          By the times for planning, and by this job’s own record for boxes of a kind it has.
        </p>
      </section>
      <p className="text-sm text-soft">
        A circuit that is off on this sheet is not dead: isolate, lock and prove dead at every box. Local
        codes and licensed practice rule.
      </p>
    </div>
  );
}

const MINUTES_A_TRIP = 3;

function proofText({ lowerBound, panelTrips }: Day['sheet']): string {
  return lowerBound === panelTrips
    ? 'Fewer are not possible'
    : `No plan has fewer than ${lowerBound}; this one has ${panelTrips - lowerBound} more`;
}

function pairingText({ pairing }: Day['sheet']): string {
  if (pairing.devices === 0) return 'Nothing to pair';
  const what = `${plural(pairing.devices, 'device')} to pair, about ${durationText(pairing.minutes)}`;
  return pairing.afterBatch === null
    ? `${what}, each after its batch`
    : `${what}: after batch ${pairing.afterBatch + 1}, when the router is back`;
}
