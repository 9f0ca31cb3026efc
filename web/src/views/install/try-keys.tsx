import { type Box, putPart, type Symptoms, triedEvent } from '@inventario/core';
import { CircleCheck, Stethoscope } from 'lucide-react';
import { useNavigate } from 'react-router';
import { felt } from '../../data/felt.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { paths } from '../../parts/paths.js';
import { Button } from '../../ui/button.js';

/** It works, or what was seen leads on to why. */
export function TryKeys({ boxId, position, seen }: { boxId: string; position: number; seen: Symptoms }) {
  const { job, known, apply } = useJob();
  const navigate = useNavigate();
  const box = known.boxes.get(boxId) as Box;
  const fails = Object.keys(seen).length > 0;
  const record = (symptoms: Symptoms | null, label: string) => {
    felt();
    const id = newId();
    apply([putPart('event', id, triedEvent({ boxId, position }, symptoms, { id, at: instant() }))], label);
  };
  const why = () => {
    if (fails) record(seen, `${box.name} tried: it does not work`);
    navigate(paths.diagnose(job.id, boxId, position));
  };
  return (
    <div className="flex flex-col gap-2">
      <Button
        kind={fails ? 'plain' : 'main'}
        icon={CircleCheck}
        className="min-h-14 text-lg"
        disabled={fails}
        onClick={() => record(null, `${box.name} tried: it works`)}
      >
        All of it works
      </Button>
      <Button kind={fails ? 'main' : 'plain'} icon={Stethoscope} className="min-h-13" onClick={why}>
        It does not work
      </Button>
    </div>
  );
}
