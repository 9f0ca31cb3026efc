import { type Box, HANDS_OFF_STEPS, listed, type readingGate } from '@inventario/core';
import { useState } from 'react';
import { useJob } from '../../../data/job-context.js';
import { Button } from '../../../ui/button.js';
import { ProofForm } from '../proof/proof-form.js';

/** What has to be done before a reading may be taken. */
export function ReadingGate({
  box,
  gate,
  onStoodClear,
}: {
  box: Box;
  gate: Exclude<ReturnType<typeof readingGate>, { kind: 'open' }>;
  onStoodClear: () => void;
}) {
  const { known } = useJob();
  switch (gate.kind) {
    case 'neutral':
      return (
        <p role="alert" className="rounded-md border-2 border-stop p-3 font-semibold text-stop">
          A neutral is opened here. First off: breaker{' '}
          {listed(gate.circuitIds.map((id) => known.circuits.get(id)?.breaker ?? id))}, or the main; every
          circuit that shares it. After opening, every end is proved again.
        </p>
      );
    case 'find-source':
      return (
        <p role="alert" className="rounded-md border-2 border-stop p-3 font-semibold text-stop">
          Ohms are read dead, and this box is live with its breakers off. Find what feeds it first.
        </p>
      );
    case 'prove-dead':
      return (
        <div className="flex flex-col gap-2 rounded-md border-2 border-ink p-3">
          <p className="font-semibold">Ohms are read dead. Prove it first.</p>
          <ProofForm box={box} />
        </div>
      );
    case 'stand-clear':
      return <HandsOff onDone={onStoodClear} />;
  }
}

/** The energised check in its hands-off form: each step is ticked before anything can be entered. */
function HandsOff({ onDone }: { onDone: () => void }) {
  const [ticked, setTicked] = useState<number[]>([]);
  return (
    <fieldset className="flex flex-col gap-1 rounded-md border-2 border-live p-3">
      <legend className="px-1 font-semibold text-live">A breaker is on, or may be: hands off</legend>
      {HANDS_OFF_STEPS.map((step, index) => (
        <label key={step} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 shrink-0 accent-ink"
            checked={ticked.includes(index)}
            onChange={() =>
              setTicked(
                ticked.includes(index) ? ticked.filter((entry) => entry !== index) : [...ticked, index],
              )
            }
          />
          {step}
        </label>
      ))}
      <Button kind="main" disabled={ticked.length < HANDS_OFF_STEPS.length} onClick={onDone}>
        Done: read it from here
      </Button>
      <p className="text-sm text-soft">
        After the reading: off, prove dead, and only then label or work. Never a probe on live metal.
      </p>
    </fieldset>
  );
}
