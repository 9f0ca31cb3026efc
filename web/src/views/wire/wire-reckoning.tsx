import { type Box, connectorWords, lengthText, plural, wireSizeText } from '@inventario/core';
import { Link } from 'react-router';
import type { WiringAnswer } from '../../data/engines.worker.js';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { paths } from '../../parts/paths.js';
import type { Work } from '../../parts/wiring/use-work.js';
import { FindingList } from './finding-list.js';

/** What the proof says, and what the wiring takes. */
export function WireReckoning({ box, answer, work }: { box: Box; answer: WiringAnswer; work: Work }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const { plan } = work.wiring;
  const connectors = new Map<string, number>();
  for (const { connector, kept } of plan.joints) {
    if (kept && work.way === 'planned') continue;
    const words = connectorWords(connector, known);
    connectors.set(words, (connectors.get(words) ?? 0) + 1);
  }
  return (
    <div className="flex flex-col gap-4">
      <section>
        <h2 className="mb-1 font-bold">The proof</h2>
        {work.way === 'planned' && answer.planned ? (
          <>
            <p className="mb-2">
              {answer.planned.wiring.ok
                ? 'Run on the model of the box in every state of its breakers and switches: each device is supplied, each works its load and no other, and what is fed on stays fed.'
                : 'Run on the model of the box, it does not do what it should.'}
            </p>
            <FindingList box={box} findings={answer.planned.findings} />
          </>
        ) : (
          <p>As it was found, from the record of the survey.</p>
        )}
      </section>
      <section>
        <h2 className="mb-1 font-bold">What it takes</h2>
        <ul className="list-disc pl-5">
          {[...connectors].map(([words, count]) => (
            <li key={words}>
              {count} × {words}
            </li>
          ))}
          {plan.made.map(({ id, kind, size, length }) => (
            <li key={id}>
              {id}: {kind}, {wireSizeText(size)}, {lengthText(length, units)}
            </li>
          ))}
          {plan.capped.length > 0 && <li>{plural(plan.capped.length, 'cap')}</li>}
        </ul>
        <Link className="flex min-h-11 items-center underline" to={paths.materials(job.id)}>
          Materials of the house
        </Link>
      </section>
    </div>
  );
}
