import {
  answeredQuestions,
  BriefEntry,
  type Job,
  type PossibleDevices,
  possibleDevices,
  QUESTIONS,
  type Question,
  setParts,
  usualBrief,
} from '@inventario/core';
import { ArrowDown, CircleCheck, CircleDashed } from 'lucide-react';
import { useContext } from 'react';
import type { FieldPath } from 'react-hook-form';
import { Link } from 'react-router';
import { useJob } from '../../data/job-context.js';
import { Bench, SheetsContext } from '../../parts/bench.js';
import { paths } from '../../parts/paths.js';
import { useAnswers } from '../../parts/record-form.js';
import { Button } from '../../ui/button.js';
import { Colour, Light, Money, Switches } from './living-questions.js';
import { Assistants, Hubs, Radios, Router } from './network-questions.js';
import { PlaceNeeds } from './place-needs.js';
import type { Brief } from './question.js';

const TITLES: Record<Question, string> = {
  assistants: 'Apps and assistants',
  hubs: 'Hubs there already',
  radios: 'How it may talk',
  router: 'The router',
  switches: 'The feel of a switch',
  light: 'Its light, and how it comes on',
  colour: 'Colour',
  money: 'Money and spares',
  places: 'Room by room',
};

/** What an answer that is typed is called in the history. */
const ANSWERS: Partial<Record<FieldPath<BriefEntry>, string>> = {
  budget: 'Budget',
  labourPerHour: 'The labour rate',
  spares: 'Spares',
  'wifi.clientsNow': 'The router',
  'wifi.clientLimit': 'The router',
  'wifi.routerRoom': 'The router',
};

/** What does the client want, and what does that rule out? */
export function BriefView() {
  const { job, apply } = useJob();
  const brief: Brief = job.brief ?? {};
  const answered = answeredQuestions(job);
  const next = QUESTIONS.find((question) => !answered.has(question));
  const left = possibleDevices(job, brief);
  const change = (more: Partial<Brief>, label: string) => {
    apply(setParts('job', job.id, job, { brief: { ...brief, ...more } }), label);
  };
  const { setOpen } = useContext(SheetsContext);
  const entry = { ...brief, ...(job.money ? { labourPerHour: job.money.labourPerHour } : {}) };
  const { control } = useAnswers(BriefEntry, entry, ({ labourPerHour, ...told }, field) => {
    const keep = (now: Partial<Job>) =>
      apply(setParts('job', job.id, job, now), ANSWERS[field] ?? 'The brief', `brief ${field}`);
    if (field !== 'labourPerHour') keep({ brief: told });
    // A rate is always one: while the field is empty the last stands.
    else if (labourPerHour !== undefined) keep({ money: { currency: 'USD', ...job.money, labourPerHour } });
  });
  const question = { brief, onChange: change, control };
  const go = (asked: Question) => {
    // On a phone the question stands behind the sheet that leads to it.
    setOpen(null);
    document.getElementById(`ask-${asked}`)?.scrollIntoView({ behavior: 'smooth', block: 'start' });
  };
  return (
    <Bench
      title="Brief"
      glance={`${answered.size} of ${QUESTIONS.length} asked; ${left.possible} devices left`}
      reckoning={
        <BriefReckoning
          left={left}
          answered={answered}
          next={next}
          onGo={go}
          onUsual={() => change(usualBrief(brief), 'The usual where nothing was asked')}
        />
      }
    >
      <h1 className="mb-1 text-xl font-bold">What does the client want?</h1>
      <p className="mb-4 max-w-prose">
        Ask in these words; every answer says how many devices it leaves. Likes warn later, musts rule out.
        What is not asked stays open.
      </p>
      <div className="flex max-w-4xl flex-col gap-5">
        <Asked question="assistants" answered={answered}>
          <Assistants {...question} />
        </Asked>
        <Asked question="hubs" answered={answered}>
          <Hubs {...question} />
        </Asked>
        <Asked question="radios" answered={answered}>
          <Radios {...question} />
        </Asked>
        <Asked question="router" answered={answered}>
          <Router {...question} />
        </Asked>
        <Asked question="switches" answered={answered}>
          <Switches {...question} />
        </Asked>
        <Asked question="light" answered={answered}>
          <Light {...question} />
        </Asked>
        <Asked question="colour" answered={answered}>
          <Colour {...question} />
        </Asked>
        <Asked question="money" answered={answered}>
          <Money {...question} />
        </Asked>
        <Asked question="places" answered={answered}>
          <PlaceNeeds />
        </Asked>
      </div>
    </Bench>
  );
}

function Asked({
  question,
  answered,
  children,
}: {
  question: Question;
  answered: ReadonlySet<Question>;
  children: React.ReactNode;
}) {
  return (
    <section
      id={`ask-${question}`}
      aria-label={TITLES[question]}
      className="scroll-mt-3 rounded-lg border border-rule bg-sheet p-3"
    >
      <h2 className="mb-2 flex items-center gap-2 text-lg font-bold">
        {answered.has(question) ? (
          <CircleCheck aria-hidden className="size-5" />
        ) : (
          <CircleDashed aria-hidden className="size-5 text-soft" />
        )}
        {TITLES[question]}
        {!answered.has(question) && <span className="text-sm font-normal text-soft">not asked yet</span>}
      </h2>
      {children}
    </section>
  );
}

/** Questions that have a usual answer; the others only the client can answer. */
const USUAL: readonly Question[] = ['radios', 'switches', 'light', 'colour'];

function BriefReckoning({
  left,
  answered,
  next,
  onGo,
  onUsual,
}: {
  left: PossibleDevices;
  answered: ReadonlySet<Question>;
  next: Question | undefined;
  onGo: (question: Question) => void;
  onUsual: () => void;
}) {
  const { job } = useJob();
  const usual = USUAL.filter((question) => !answered.has(question));
  return (
    <div className="flex flex-col gap-3">
      {next ? (
        <Button kind="main" icon={ArrowDown} onClick={() => onGo(next)}>
          Ask next: {TITLES[next].toLowerCase()}
        </Button>
      ) : (
        <Link className="underline" to={paths.plans(job.id)}>
          Everything is asked: see the plans for the house
        </Link>
      )}
      {usual.length > 0 && (
        <Button onClick={onUsual}>
          Set the usual for {usual.length === 1 ? 'one more' : `${usual.length} more`}:{' '}
          {usual.map((question) => TITLES[question].toLowerCase()).join(', ')}
        </Button>
      )}
      <dl className="grid grid-cols-[1fr_auto] gap-y-1">
        <dt>Devices made for this practice</dt>
        <dd className="text-right font-semibold tabular-nums">{left.made}</dd>
        <dt>left by the musts</dt>
        <dd className="text-right font-semibold tabular-nums">{left.possible}</dd>
        <dt>and to their liking in everything</dt>
        <dd className="text-right font-semibold tabular-nums">{left.liked}</dd>
      </dl>
      <ul className="flex flex-col">
        {QUESTIONS.map((question) => (
          <li key={question}>
            <button
              type="button"
              className="flex min-h-11 w-full items-center gap-2 text-left hover:bg-well"
              onClick={() => onGo(question)}
            >
              {answered.has(question) ? (
                <CircleCheck aria-hidden className="size-5" />
              ) : (
                <CircleDashed aria-hidden className="size-5 text-soft" />
              )}
              <span>{TITLES[question]}</span>
              <span className="sr-only">{answered.has(question) ? 'asked' : 'not asked yet'}</span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
