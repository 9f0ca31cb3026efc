import { type Box, chosenPlaces, contentsAsFound, contentsAsPlanned } from '@inventario/core';
import { useMemo } from 'react';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { BoxDrawing } from '../../../drawings/box-drawing.js';
import { boxGeometry } from '../../../drawings/box-geometry.js';
import { Zoomable } from '../../../ui/zoomable.js';
import type { ChangeBox } from '../change-box.js';
import { EnclosureForm } from './enclosure-form.js';

/** The enclosure: its drawing to scale, and what is read off it beside the drawing. */
export function BoxPanel({ box, change }: { box: Box; change: ChangeBox }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const planned = useMemo(() => chosenPlaces(box, known), [box, known]);
  const geometry = useMemo(
    () =>
      boxGeometry(
        box,
        planned.length > 0 ? contentsAsPlanned(box, planned, known) : contentsAsFound(box, known),
      ),
    [box, known, planned],
  );
  return (
    <div className="grid gap-4 md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
      <figure className="flex flex-col">
        <Zoomable>
          <BoxDrawing geometry={geometry} units={units} planned={planned.length > 0} />
        </Zoomable>
        <figcaption className="text-center text-sm text-soft">
          {planned.length > 0 ? 'As planned (dashed)' : 'As found'}, to one scale. Hatched: folded conductors.
        </figcaption>
      </figure>
      <EnclosureForm box={box} change={change} />
    </div>
  );
}
