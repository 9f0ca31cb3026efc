import type { Box, RunStep } from '@inventario/core';
import { useEffect, useRef } from 'react';
import { useJob, useWiring } from '../../data/job-context.js';
import { useBoxPower, useJobPower } from '../../data/power.js';
import { WiringDrawing } from '../../drawings/wiring/wiring-drawing.js';
import { StopCard } from '../../parts/stop-card.js';
import { panelName } from '../../parts/wiring/panel-names.js';
import { useWork } from '../../parts/wiring/use-work.js';
import { Zoomable } from '../../ui/zoomable.js';

/** The box in hand as it is drawn, with this step lit. */
export function BoxInHand({ boxId, step }: { boxId: string; step: RunStep }) {
  const { job, known } = useJob();
  const box = known.boxes.get(boxId) as Box;
  const answer = useWiring(boxId);
  const power = useBoxPower(boxId);
  const { circuits } = useJobPower();
  const work = useWork(box, answer, { power, circuits, way: 'planned' });
  const drawing = useRef<HTMLElement>(null);
  const stepKey = work?.step?.key;
  useEffect(() => {
    if (stepKey)
      drawing.current?.querySelector('[data-lit]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [stepKey]);
  if (!work) return <p>{box.name} is being worked out …</p>;
  return (
    <>
      <StopCard box={box} />
      <figure ref={drawing}>
        <figcaption className="mb-1 font-bold">{box.name}</figcaption>
        <Zoomable>
          <WiringDrawing
            picture={work.picture}
            known={known}
            lit={step.kind === 'wire' ? work.lit : null}
            label={`${box.name} as planned`}
            panelName={(position) => panelName(box, position, work.wiring, job)}
          />
        </Zoomable>
      </figure>
    </>
  );
}
