import {
  assessBox,
  type Box,
  bestFirst,
  capital,
  chosenPlaces,
  contentsAsPlanned,
  type Device,
  deviceName,
  type JobLookup,
  lookup,
  moneyText,
  type Position,
  placeKey,
  putPart,
  TROUBLE_WORDS,
  troublesOf,
  type UnitSystem,
} from '@inventario/core';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { JudgedDevice } from '../../data/engines.worker.js';
import { useJob, usePlace } from '../../data/job-context.js';
import { BoxDrawing } from '../../drawings/box-drawing.js';
import { boxGeometry } from '../../drawings/box-geometry.js';
import { useShortcuts } from '../../parts/shortcuts.js';
import { Button } from '../../ui/button.js';
import { VerdictWord } from '../../ui/verdict.js';
import { Zoomable } from '../../ui/zoomable.js';
import { FillStack } from './fill-stack.js';
import { PackingBar } from './packing-bar.js';

/** One device after another in the place, drawn and counted as if chosen: the eye sees which ones close. */
export function CandidateStepper({
  box,
  position,
  units,
}: {
  box: Box;
  position: Position;
  units: UnitSystem;
}) {
  const { job, known, apply } = useJob();
  const judged = usePlace(box.id, position.index);
  const rows = useMemo(
    () =>
      bestFirst(judged ?? [], known.devices).filter(
        ({ device }) => device.mount === 'box' && device.practices.includes(job.practice),
      ),
    [judged, known, job.practice],
  );
  const selected = known.selections.get(placeKey(box.id, position.index))?.deviceId;
  const [stepped, setStepped] = useState<string | null>(null);
  const at = Math.max(
    0,
    rows.findIndex(({ device }) => device.id === (stepped ?? selected)),
  );
  const row = rows[at];
  const step = (by: number) =>
    rows.length > 0 && setStepped(rows[(at + by + rows.length) % rows.length]?.device.id ?? null);
  useShortcuts({ ArrowRight: () => step(1), ArrowLeft: () => step(-1) });
  const tried = useMemo(
    () => (row ? triedAt(box, position, row.device, row.best, known) : null),
    [box, position, row, known],
  );
  if (!judged) return <p className="text-soft">Devices are being judged …</p>;
  if (!row || !tried)
    return <p className="text-soft">No device of the catalogue is made for a box of this practice.</p>;
  const troubles = troublesOf(tried.result);
  const stops = row.best.reasons.filter((reason) => reason.outcome === 'block');
  const choose = () =>
    apply(
      [
        putPart('selection', placeKey(box.id, position.index), {
          boxId: box.id,
          position: position.index,
          deviceId: row.device.id,
          strategy: row.best.strategy,
          with: [...row.best.with],
        }),
      ],
      `${deviceName(row.device)} for ${box.name}`,
    );
  return (
    <section aria-label={`Devices for position ${position.index}`} className="flex flex-col gap-3">
      <div className="flex items-center gap-2">
        <Button icon={ChevronLeft} iconOnly onClick={() => step(-1)}>
          The device before
        </Button>
        <p className="min-w-0 flex-1 text-center" aria-live="polite">
          <strong>{deviceName(row.device)}</strong>, {moneyText(row.device.price, job.money?.currency)}
          <span className="block text-sm text-soft">
            {at + 1} of {rows.length}
            {row.device.id === selected ? ', chosen' : ''}
          </span>
        </p>
        <Button icon={ChevronRight} iconOnly onClick={() => step(1)}>
          The device after
        </Button>
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <VerdictWord verdict={row.best.verdict} />
        <span className={troubles.length > 0 ? 'font-semibold text-stop' : 'font-semibold'}>
          {troubles.length > 0
            ? capital(troubles.map((trouble) => TROUBLE_WORDS[trouble]).join(', '))
            : 'Box fill, depth and packing OK'}
        </span>
        {row.best.verdict !== 'no' && row.device.id !== selected && row.best.partners.length === 0 && (
          <Button className="ml-auto" onClick={choose}>
            Choose it
          </Button>
        )}
      </div>
      {stops[0] && <p className="text-sm">{stops[0].text}</p>}
      <Zoomable>
        <BoxDrawing geometry={tried.geometry} units={units} planned />
      </Zoomable>
      <PackingBar packing={tried.result.packing} capacityMl={tried.result.capacityMl} units={units} />
      <FillStack result={tried.result} units={units} />
    </section>
  );
}

function triedAt(box: Box, position: Position, device: Device, judged: JudgedDevice, known: JobLookup) {
  const { job } = known;
  const others = job.selections.filter(
    (entry) => entry.boxId !== box.id || entry.position !== position.index,
  );
  const selection = {
    boxId: box.id,
    position: position.index,
    deviceId: device.id,
    strategy: judged.strategy,
    with: [...judged.with],
  };
  const tried = lookup({ ...job, selections: [...others, selection] });
  return {
    result: assessBox(box, tried, 'planned'),
    geometry: boxGeometry(box, contentsAsPlanned(box, chosenPlaces(box, tried), tried)),
  };
}
