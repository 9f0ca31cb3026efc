import {
  looksLeft,
  nextLook,
  putPart,
  remaining,
  type SearchAnswer,
  setParts,
  tracedEvent,
} from '@inventario/core';
import { useState } from 'react';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { useJobPower } from '../../data/power.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';

/**
 * Which breaker feeds this box, with the fewest switchings: half of those in question off, look, half again.
 */
export function BreakerSearch({ onClose }: { onClose: () => void }) {
  const { job, known, apply } = useJob();
  const unnamed = job.boxes.find((box) => box.circuitIds.length === 0);
  const [boxId, setBox] = useState(unnamed?.id ?? job.boxes[0]?.id ?? '');
  const [answers, setAnswers] = useState<SearchAnswer[]>([]);
  const all = job.circuits.map((circuit) => circuit.id);
  const power = new Map(useJobPower().circuits.map((entry) => [entry.circuitId, entry.state]));
  const look = nextLook(all, answers, (id) => power.get(id) === 'off');
  const left = remaining(all, answers);
  const name = (id: string) => known.circuits.get(id)?.breaker ?? id;
  const box = known.boxes.get(boxId);

  const answer = (alive: boolean) => {
    if (!look) return;
    const at = instant();
    // What was switched for the look is part of the log.
    const switched = left.flatMap((id) => {
      const state = look.off.includes(id) ? 'off' : 'on';
      if (power.get(id) === state) return [];
      const eventId = newId();
      return [putPart('event', eventId, { id: eventId, kind: 'switched', circuitId: id, state, at })];
    });
    if (switched.length > 0) apply(switched, `Switched to find the breaker of ${box?.name}`);
    setAnswers([...answers, { off: look.off, alive }]);
  };
  const adopt = (ids: string[]) => {
    if (box) {
      const traced = ids.map((circuitId) => tracedEvent(box.id, circuitId, { id: newId(), at: instant() }));
      const recorded = apply(
        [
          ...setParts('box', box.id, box, { circuitIds: ids }),
          ...traced.map((event) => putPart('event', event.id, event)),
        ],
        `${box.name} is on breaker ${ids.map(name).join(' and ')}`,
      );
      if (!recorded) return;
    }
    onClose();
  };

  return (
    <Dialog title="Which breaker is it?" open onClose={onClose}>
      <div className="flex flex-col gap-4">
        <PickOne
          label="For the box"
          value={boxId}
          options={job.boxes.map((entry) => ({ value: entry.id, label: entry.name }))}
          onChoice={(id) => {
            setBox(id);
            setAnswers([]);
          }}
        />
        {look && (
          <Look look={look} left={left} most={looksLeft(all, answers)} name={name} onAnswer={answer} />
        )}
        {!look && left.length === 1 && (
          <>
            <p className="text-lg font-semibold">Breaker {name(left[0] as string)}.</p>
            <Button kind="main" onClick={() => adopt(left)}>
              Record: {box?.name} is on breaker {name(left[0] as string)}
            </Button>
          </>
        )}
        {left.length === 0 && (
          <p className="font-semibold">
            The answers do not go together: the box may be fed by two breakers, from another panel, or the
            tester erred. Prove the tester and begin again.
          </p>
        )}
        {answers.length > 0 && (
          <Button kind="quiet" onClick={() => setAnswers(answers.slice(0, -1))}>
            Take the last answer back
          </Button>
        )}
        <p className="text-sm text-soft">Gone is not dead: prove it at the box before anything is touched.</p>
      </div>
    </Dialog>
  );
}

/** Which breakers go off for the next look, and what was seen. */
function Look({
  look,
  left,
  most,
  name,
  onAnswer,
}: {
  look: NonNullable<ReturnType<typeof nextLook>>;
  /** Breakers still in question. */
  left: readonly string[];
  /** Looks this takes at most. */
  most: number;
  name: (circuitId: string) => string;
  onAnswer: (alive: boolean) => void;
}) {
  const on = left.filter((id) => !look.off.includes(id));
  return (
    <>
      <p>
        {left.length} breakers in question; at most {most} more looks. Turn {look.turns}.
      </p>
      <p className="text-lg font-semibold">
        Off: {look.off.map(name).join(', ')}. On: {on.map(name).join(', ')}.
      </p>
      <p>With the indicator on insulation, or a lamp of the box: is it alive?</p>
      <div className="grid grid-cols-2 gap-2">
        <Button className="min-h-16 text-lg" onClick={() => onAnswer(true)}>
          Still alive
        </Button>
        <Button className="min-h-16 text-lg" onClick={() => onAnswer(false)}>
          Gone
        </Button>
      </div>
    </>
  );
}
