import { type WireStep, wireStepWords } from '@inventario/core';
import { Check } from 'lucide-react';
import { useJob } from '../../data/job-context.js';
import { useUnits } from '../../data/preferences.js';
import { timeOf } from '../../parts/times.js';
import type { Work } from '../../parts/wiring/use-work.js';
import { classes } from '../../ui/classes.js';
import { Fold } from '../../ui/fold.js';

/** Every step in order: what is done, when, and what it took. On paper all of them with their words. */
export function StepList({ work }: { work: Work }) {
  const { steps, progress } = work;
  const took = [...progress.done.values()].reduce((sum, { minutes }) => sum + (minutes ?? 0), 0);
  const worked = took > 0 ? `, ${Math.round(took)} min at work` : '';
  const says = `${progress.done.size} of ${steps.length} done${worked}`;
  return (
    <>
      <div className="print:hidden">
        <Fold title="All steps" says={says}>
          <ol className="flex flex-col">
            {steps.map((step, at) => (
              <Row key={step.key} step={step} at={at} work={work} />
            ))}
          </ol>
        </Fold>
      </div>
      <ol className="hidden list-decimal pl-6 text-[8.5pt] leading-tight print:block print:columns-2 print:gap-8">
        {steps.map((step) => (
          <Printed key={step.key} step={step} work={work} />
        ))}
      </ol>
      <p className="text-sm text-soft">
        Local codes and the maker’s instructions rule. What is not identified stays capped. Nothing here is
        done live: the breaker is off and locked, and the box is proved.
      </p>
    </>
  );
}

function Row({ step, at, work }: { step: WireStep; at: number; work: Work }) {
  const { known, job } = useJob();
  const { title } = wireStepWords(work.wiring, step, known, useUnits(job));
  const done = work.progress.done.get(step.key);
  const isNow = work.step?.key === step.key;
  return (
    <li>
      <button
        type="button"
        aria-current={isNow ? 'step' : undefined}
        onClick={() => work.look(step.key)}
        className={classes(
          'flex min-h-11 w-full items-center gap-3 border-t border-rule px-1 text-left',
          isNow && 'bg-well font-bold',
        )}
      >
        <span className="w-7 shrink-0 text-right text-soft">{at + 1}</span>
        <span className="min-w-0 flex-1">
          {title}
          {done?.note && <span className="block text-sm font-normal">{done.note}</span>}
        </span>
        {done && (
          <span className="flex items-center gap-1 text-sm font-normal whitespace-nowrap">
            <Check aria-hidden className="size-5" />
            done{done.at ? ` ${timeOf(done.at)}` : ''}
            {done.minutes ? `, ${done.minutes} min` : ''}
          </span>
        )}
      </button>
    </li>
  );
}

function Printed({ step, work }: { step: WireStep; work: Work }) {
  const { known, job } = useJob();
  const { title, lines } = wireStepWords(work.wiring, step, known, useUnits(job));
  return (
    <li className="break-inside-avoid">
      <strong>{title}.</strong> {lines.join(' ')}
    </li>
  );
}
