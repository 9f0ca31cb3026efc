import {
  type Box,
  deviceName,
  functionChecks,
  functionCheckText,
  pairingManner,
  placeKey,
  putPart,
  triedEvent,
} from '@inventario/core';
import { CircleCheck, Stethoscope } from 'lucide-react';
import { useNavigate } from 'react-router';
import { felt } from '../../data/felt.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { IndicatorLight } from '../../drawings/indicator-light.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';

/** What is looked at of a device by its kind; it works, or what was seen leads on to why. */
export function TryKeys({ boxId, position }: { boxId: string; position: number }) {
  const { job, known, apply } = useJob();
  const navigate = useNavigate();
  const box = known.boxes.get(boxId) as Box;
  const place = box.positions.find(({ index }) => index === position);
  const device = known.devices.get(known.selections.get(placeKey(boxId, position))?.deviceId ?? '');
  if (!place || !device) return null;
  const checks = functionChecks(box, place, device, known);
  const { light } = pairingManner(device);
  const works = () => {
    felt();
    const id = newId();
    const event = triedEvent({ boxId, position }, null, { id, at: instant() });
    apply([putPart('event', id, event)], `${box.name} tried: it works`);
  };
  return (
    <div className="flex flex-col gap-2">
      <div className="flex items-start gap-3">
        {light && checks.some(({ code }) => code === 'indicator') && (
          <IndicatorLight light={light} size={64} />
        )}
        <div className="min-w-0 flex-1">
          <p className="font-semibold">
            {deviceName(device)}
            {box.positions.length > 1 && `, position ${position}`}
          </p>
          <ul className="list-disc pl-5 leading-snug">
            {checks.map((check) => (
              <li key={check.code}>{functionCheckText(check)}</li>
            ))}
          </ul>
        </div>
      </div>
      <Button kind="main" icon={CircleCheck} className="min-h-14 text-lg" onClick={works}>
        All of it works
      </Button>
      <Button
        icon={Stethoscope}
        className="min-h-13"
        onClick={() => navigate(paths.diagnose(job.id, boxId, position))}
      >
        It does not work
      </Button>
    </div>
  );
}
