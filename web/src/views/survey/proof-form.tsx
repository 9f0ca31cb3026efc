import { type Box, proofOf, provedEvent, putPart } from '@inventario/core';
import { useState } from 'react';
import { timeOf } from '../../app/times.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Button } from '../../ui/button.js';
import { NumberField } from '../../ui/field.js';

/** The two-stage proof of dead: known source, every conductor, known source again; at the face and with the device out. */
export function ProofForm({ box }: { box: Box }) {
  const { job, known, apply } = useJob();
  const proof = proofOf(box, job);
  const [volts, setVolts] = useState<number>(0);
  const names = (id: string) => known.circuits.get(id)?.breaker ?? id;
  const hindered = proof.hinderedBy.map(
    ({ circuitId, why }) =>
      `breaker ${names(circuitId)} ${why === 'unknown' ? 'is not recorded off' : why === 'on' ? 'is on' : 'went on since'}`,
  );
  const off = box.circuitIds.length > 0 && !proof.hinderedBy.some((entry) => entry.why !== 'on-since');
  const record = (stage: 'face' | 'device-out') => {
    const event = provedEvent(box, job, { id: newId(), at: instant(), stage, volts });
    if (event?.id)
      apply([putPart('event', event.id, event)], `${box.name} proved dead ${stage === 'face' ? 'at the face' : 'with the device out'}`);
  };
  return (
    <div className="flex flex-col gap-2">
      <p>
        {proof.stage === 'device-out'
          ? `Proved dead with the device out, ${timeOf(proof.since ?? '')}.`
          : proof.stage === 'face'
            ? `Proved dead at the face only, ${timeOf(proof.since ?? '')}: once more with the device out.`
            : box.circuitIds.length === 0
              ? 'No circuit is named for this box: it cannot be proved dead.'
              : `Not proved dead${hindered.length > 0 ? `: ${hindered.join('; ')}` : ''}.`}
      </p>
      {proof.stage !== 'device-out' && off && (
        <>
          <NumberField
            label="Tester on its known source, before and after"
            unit="V"
            max={500}
            zeroIsEmpty
            value={volts}
            onNumber={setVolts}
            hint="then every conductor to earth, to neutral and to each other: all under 5 V"
          />
          <div className="flex flex-wrap gap-2">
            <Button disabled={volts < 50} onClick={() => record('face')}>
              Proved at the face
            </Button>
            <Button kind="main" disabled={volts < 50 || proof.stage !== 'face'} onClick={() => record('device-out')}>
              Proved, device out
            </Button>
          </div>
        </>
      )}
    </div>
  );
}
