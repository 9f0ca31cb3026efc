import {
  type Conflict,
  conflictFacts,
  type EditPart,
  type Job,
  plural,
  type QuestionWords,
  type RecordProblem,
  withMyWord,
  wordProblem,
} from '@inventario/core';
import { FileDown } from 'lucide-react';
import { useEffect, useId, useState } from 'react';
import { downloadJson } from '../data/downloads.js';
import { useJob } from '../data/job-context.js';
import type { Hindrance } from '../data/session/job-session.js';
import type { Question } from '../data/session/kept-store.js';
import { timeOf } from '../parts/times.js';
import { Button } from '../ui/button.js';
import { WideDialog } from '../ui/dialog.js';
import { useSay } from '../ui/say.js';

/**
 * Edits the server could not take wait here, never over what is being typed. They stay until they are
 * answered, reload or not.
 */
export function QuestionsTray() {
  const { questions } = useJob();
  const [open, setOpen] = useState(false);
  // The next question waits in the tray again: it never opens over what is being typed.
  useEffect(() => {
    if (questions.length === 0) setOpen(false);
  }, [questions.length]);
  if (questions.length === 0) return null;
  return (
    <>
      <Button kind="stop" className="shrink-0 whitespace-nowrap" onClick={() => setOpen(true)}>
        {waiting(questions)}
        <span className="sr-only">, a question for you to answer</span>
      </Button>
      <WideDialog title="What the server could not take" open={open} onClose={() => setOpen(false)}>
        <ul className="flex flex-col gap-4">
          {questions.map((question) => (
            <li key={question.edit.id} className="rounded-md border border-rule bg-sheet p-3">
              <Asked question={question} />
            </li>
          ))}
        </ul>
      </WideDialog>
    </>
  );
}

/**
 * What waits, by its name: two people on one fact are a conflict, an edit that was not taken is a question.
 */
function waiting(questions: readonly Question[]): string {
  const name = questions.every(({ answer }) => answer.outcome === 'conflict') ? 'conflict' : 'question';
  return `${plural(questions.length, name)}`;
}

/** One edit with everything that is asked about it, and the two ways on. */
function Asked({ question }: { question: Question }) {
  const { job, settle, undo } = useJob();
  const say = useSay();
  const { edit, answer, records } = question;
  const [parts, setParts] = useState<EditPart[] | undefined>();
  const [hindrance, setHindrance] = useState<Hindrance | null>(null);
  const conflicts = (answer.conflicts ?? []) as Conflict[];
  const facts = conflicts.map((conflict) => ({ conflict, words: conflictFacts(job, conflict, records) }));
  const refused = answer.outcome === 'refused';
  const answered = (choice: 'theirs' | 'mine') => {
    const hindered = settle(edit.id, choice, parts);
    setHindrance(hindered);
    if (hindered) return;
    if (choice === 'mine') return say(`“${edit.label}” is recorded again.`);
    const dropped = facts.map(({ words }) => `${words.what}: ${words.mine}`).join('; ');
    say(`Dropped: ${dropped || edit.label}.`, { label: 'Undo', run: undo });
  };
  return (
    <div className="flex flex-col gap-3">
      <p>
        <span className="font-semibold">{edit.label}</span>{' '}
        <span className="text-sm text-soft">{timeOf(edit.at)}</span>
      </p>
      {facts.map(({ conflict, words }) => (
        <Fact
          key={`${conflict.part}/${conflict.field}/${conflict.path?.join('/')}`}
          words={words}
          problem={hindrance?.problems.find((problem) => isAbout(problem, conflict))}
          onMine={(word) => setParts(withMyWord(parts ?? edit.parts, conflict, word))}
        />
      ))}
      {(answer.problems ?? []).length > 0 && (
        <ul className="list-disc pl-5 text-sm">
          {answer.problems?.map(({ path, message }) => (
            <li key={`${path}${message}`}>{`${path} ${message}`.trim()}</li>
          ))}
        </ul>
      )}
      {hindrance &&
        !conflicts.some((conflict) => hindrance.problems.some((problem) => isAbout(problem, conflict))) && (
          <p className="text-sm text-stop">
            It cannot be carried out on the job as it is now. Save it as a file, or drop it and record it
            anew.
          </p>
        )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => answered('theirs')}>{refused ? 'Drop this edit' : 'Keep theirs'}</Button>
        <Button onClick={() => answered('mine')}>{refused ? 'Send it again' : 'Use mine'}</Button>
        <Button kind="quiet" icon={FileDown} onClick={() => saveQuestion(job, question)}>
          Save it as a file
        </Button>
      </div>
    </div>
  );
}

const isAbout = (problem: RecordProblem, conflict: Conflict) =>
  problem.kind === conflict.kind && problem.id === conflict.id && problem.field === conflict.field;

/**
 * Nothing of an edit is lost with it: what was recorded, why it was not taken, and the records as this device
 * had them.
 */
function saveQuestion(job: Job, { edit, answer, records }: Question): void {
  downloadJson(job, `edit-${edit.id.slice(0, 8)}`, { edit, answer, records });
}

function Fact({
  words,
  problem,
  onMine,
}: {
  words: QuestionWords;
  problem: RecordProblem | undefined;
  onMine: (word: unknown) => void;
}) {
  const [text, setText] = useState(words.mine === 'nothing' ? '' : words.mine);
  const id = useId();
  const write = (typed: string) => {
    setText(typed);
    const number = Number(typed.replace(',', '.'));
    // What is no number is taken as it is typed, and refused with its reason like any other wrong word.
    const word = words.writes === 'number' && Number.isFinite(number) ? number : typed;
    onMine(typed.trim() === '' ? null : word);
  };
  return (
    <section aria-label={words.what} className="rounded-md border border-rule p-2">
      <h3 className="font-semibold first-letter:uppercase">{words.what}</h3>
      <dl className="mt-1 grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1">
        <dt className="text-soft">It was</dt>
        <dd>{words.was}</dd>
        <dt className="text-soft">Theirs</dt>
        <dd>{words.theirs}</dd>
        <dt className="text-soft">{words.writes ? <label htmlFor={id}>Mine</label> : 'Mine'}</dt>
        <dd>
          {words.writes ? (
            <>
              <input
                id={id}
                value={text}
                inputMode={words.writes === 'number' ? 'decimal' : 'text'}
                aria-invalid={problem !== undefined}
                aria-describedby={problem && `${id}-problem`}
                onChange={(event) => write(event.target.value)}
                className="min-h-11 w-full rounded-md border border-rule bg-ground px-3"
              />
              {problem && (
                <p id={`${id}-problem`} role="alert" className="mt-1 text-sm text-stop">
                  {wordProblem(problem)}
                </p>
              )}
            </>
          ) : (
            words.mine
          )}
        </dd>
      </dl>
    </section>
  );
}
