import {
  type Box,
  deviceName,
  FAILS_AS,
  functionChecks,
  functionCheckText,
  pairingManner,
  placeKey,
  type SymptomKind,
  type Symptoms,
} from '@inventario/core';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import { useJob } from '../../data/job-context.js';
import { IndicatorLight } from '../../drawings/indicator-light.js';
import { SymptomGroup } from '../../parts/symptom-group.js';

/** What is looked at of a device by its kind, with its light drawn; what is not so is touched. */
export function TrySheet({
  boxId,
  position,
  seen,
  onSeen,
}: {
  boxId: string;
  position: number;
  seen: Symptoms;
  onSeen: (seen: Symptoms) => void;
}) {
  const { known } = useJob();
  const box = known.boxes.get(boxId) as Box;
  const place = box.positions.find(({ index }) => index === position);
  const device = known.devices.get(known.selections.get(placeKey(boxId, position))?.deviceId ?? '');
  if (!place || !device) return null;
  const checks = functionChecks(box, place, device, known);
  const { light } = pairingManner(device);
  return (
    <section aria-label="What is tried" className="rounded-lg border border-rule bg-sheet p-3">
      <div className="mb-2 flex items-center gap-3">
        {light && checks.some(({ code }) => code === 'indicator') && (
          <IndicatorLight light={light} size={56} />
        )}
        <h2 className="font-bold">
          {deviceName(device)}
          {box.positions.length > 1 && `, position ${position}`}
        </h2>
      </div>
      <ul>
        {checks.map((check) => (
          <Check
            key={check.code}
            says={functionCheckText(check)}
            fails={Object.entries(FAILS_AS[check.code]) as Fails}
            seen={seen}
            onSeen={onSeen}
          />
        ))}
      </ul>
    </section>
  );
}

type Fails = [SymptomKind, readonly string[]][];

/** One look; where it is not so, what is seen instead is touched. */
function Check({
  says,
  fails,
  seen,
  onSeen,
}: {
  says: string;
  fails: Fails;
  seen: Symptoms;
  onSeen: (seen: Symptoms) => void;
}) {
  const [open, setOpen] = useState(false);
  const failed = fails.some(([kind, values]) => values.includes(seen[kind] ?? ''));
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
        fails.map(([kind, values]) => (
          <div key={kind} className="pb-2 pl-7">
            <SymptomGroup kind={kind} values={values} seen={seen} onSeen={onSeen} />
          </div>
        ))}
    </li>
  );
}
