import { useState } from 'react';
import { useJob } from '../data/job-context.js';
import type { Question } from '../data/job-session.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';

/** Edits the server could not take wait here, never over what is being typed. */
export function QuestionsTray() {
  const { questions, settle } = useJob();
  const [open, setOpen] = useState(false);
  if (questions.length === 0) return null;
  return (
    <>
      <Button kind="stop" onClick={() => setOpen(true)}>
        {questions.length} question{questions.length === 1 ? '' : 's'}
      </Button>
      <Dialog title="Two people changed the same thing" open={open} onClose={() => setOpen(false)}>
        <ul className="flex flex-col gap-4">
          {questions.map((question) => (
            <li key={question.edit.id} className="rounded-md border border-rule bg-sheet p-3">
              <p className="font-semibold">{question.edit.label}</p>
              <ul className="my-2 list-disc pl-5 text-sm">
                {reasonsOf(question).map((reason) => (
                  <li key={reason}>{reason}</li>
                ))}
              </ul>
              <div className="flex flex-wrap gap-2">
                <Button onClick={() => settle(question.edit.id, 'theirs')}>
                  {question.answer.outcome === 'conflict' ? 'Keep theirs' : 'Drop this edit'}
                </Button>
                <Button onClick={() => settle(question.edit.id, 'mine')}>
                  {question.answer.outcome === 'conflict' ? 'Use mine' : 'Send it again'}
                </Button>
              </div>
            </li>
          ))}
        </ul>
      </Dialog>
    </>
  );
}

function reasonsOf({ answer }: Question): string[] {
  const clashes = (answer.conflicts ?? []).map((conflict) =>
    conflict.field === undefined
      ? `The ${conflict.kind} was changed or removed by someone else meanwhile.`
      : `${conflict.field}: theirs is ${short(conflict.theirs)}, yours is ${short(conflict.yours)}.`,
  );
  return [...clashes, ...(answer.problems ?? []).map((problem) => `${problem.path || 'The edit'} ${problem.message}`)];
}

function short(value: unknown): string {
  if (Array.isArray(value)) return `a list of ${value.length}`;
  const text = typeof value === 'object' && value !== null ? JSON.stringify(value) : String(value ?? 'nothing');
  return text.length > 80 ? `${text.slice(0, 77)}…` : `“${text}”`;
}
