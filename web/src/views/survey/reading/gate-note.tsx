import { type Box, HANDS_OFF_STEPS, listed, type readingGate } from '@inventario/core';
import { useJob } from '../../../data/job-context.js';
import { ProofKeys } from '../../../parts/proof/proof-keys.js';
import { Button } from '../../../ui/button.js';
import { useHand } from '../hand/use-hand.js';

/** What has to be done before a reading may be taken, and the touch that says it was. */
export function GateNote({
  box,
  gate,
}: {
  box: Box;
  gate: Exclude<ReturnType<typeof readingGate>, { kind: 'open' }>;
}) {
  const { known } = useJob();
  const { power, onBench } = useHand();
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
        <div className="flex flex-col gap-2 rounded-md border-2 border-ink p-2">
          <p className="font-semibold">Ohms are read dead. Prove it first.</p>
          <ProofKeys box={box} power={power} stage="device-out" />
        </div>
      );
    case 'stand-clear':
      return (
        <div className="flex flex-col gap-2">
          <p className="font-semibold text-live">A breaker is on, or may be: hands off</p>
          <ol className="list-decimal rounded-md border-2 border-live py-1 pr-2 pl-7 leading-tight">
            {HANDS_OFF_STEPS.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          <Button kind="main" className="min-h-14" onClick={() => onBench({ stoodClear: true })}>
            All clear: read it from here
          </Button>
          <p className="text-sm text-soft">
            After the reading: off, prove dead, and only then label or work. Never a probe on live metal.
          </p>
        </div>
      );
  }
}
