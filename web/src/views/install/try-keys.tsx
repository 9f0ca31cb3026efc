import {
  type Box,
  deviceName,
  FAILS_AS,
  functionChecks,
  functionCheckText,
  pairingManner,
  placeKey,
  putPart,
  SOUND,
  SYMPTOM_WORDS,
  SYMPTOMS,
  type SymptomKind,
  type Symptoms,
  triedEvent,
} from '@inventario/core';
import { ChevronDown, ChevronRight, CircleCheck, Stethoscope } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { felt } from '../../data/felt.js';
import { instant, newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { IndicatorLight } from '../../drawings/indicator-light.js';
import { paths } from '../../parts/paths.js';
import { SymptomTile } from '../../parts/symptom-tile.js';
import { Button } from '../../ui/button.js';

/** What is looked at of a device by its kind; it works, or what was seen leads on to why. */
export function TryKeys({ boxId, position }: { boxId: string; position: number }) {
  const { job, known, apply } = useJob();
  const navigate = useNavigate();
  const [seen, setSeen] = useState<Symptoms>({});
  const box = known.boxes.get(boxId) as Box;
  const place = box.positions.find(({ index }) => index === position);
  const device = known.devices.get(known.selections.get(placeKey(boxId, position))?.deviceId ?? '');
  if (!place || !device) return null;
  const checks = functionChecks(box, place, device, known);
  const { light } = pairingManner(device);
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
      <div className="flex items-center gap-3">
        {light && checks.some(({ code }) => code === 'indicator') && (
          <IndicatorLight light={light} size={56} />
        )}
        <p className="font-semibold">
          {deviceName(device)}
          {box.positions.length > 1 && `, position ${position}`}
        </p>
      </div>
      <ul>
        {checks.map((check) => (
          <Check
            key={check.code}
            says={functionCheckText(check)}
            kinds={FAILS_AS[check.code]}
            seen={seen}
            onSeen={setSeen}
          />
        ))}
      </ul>
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

/** One look; where it is not so, what is seen instead is touched. */
function Check({
  says,
  kinds,
  seen,
  onSeen,
}: {
  says: string;
  kinds: readonly SymptomKind[];
  seen: Symptoms;
  onSeen: (seen: Symptoms) => void;
}) {
  const [open, setOpen] = useState(false);
  const failed = kinds.some((kind) => seen[kind] !== undefined);
  const touch = (kind: SymptomKind, value: string) => {
    const { [kind]: before, ...others } = seen;
    onSeen((before === value ? others : { ...others, [kind]: value }) as Symptoms);
  };
  const Icon = open ? ChevronDown : ChevronRight;
  return (
    <li className="border-t border-rule">
      <button
        type="button"
        aria-expanded={open}
        className="flex min-h-11 w-full items-center gap-2 py-1 text-left leading-tight hover:bg-well"
        onClick={() => setOpen(!open)}
      >
        <Icon aria-hidden className="size-5 shrink-0 text-soft" />
        <span className="min-w-0 flex-1">{says}</span>
        {failed && <strong className="shrink-0 text-sm">not so</strong>}
      </button>
      {open &&
        kinds.map((kind) => (
          <fieldset key={kind} className="pb-2 pl-7">
            <legend className="text-sm font-semibold text-soft">{SYMPTOM_WORDS[kind].question}</legend>
            <div className="flex flex-wrap gap-1.5">
              {SYMPTOMS[kind]
                .filter((value) => value !== SOUND[kind])
                .map((value) => (
                  <SymptomTile
                    key={value}
                    kind={kind}
                    value={value}
                    isSeen={seen[kind] === value}
                    onTouch={() => touch(kind, value)}
                  />
                ))}
            </div>
          </fieldset>
        ))}
    </li>
  );
}
