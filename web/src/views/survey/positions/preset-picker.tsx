import {
  type Box,
  type JobLookup,
  type Position,
  type PresetId,
  presetContents,
  presetsFor,
  profileOf,
  usualSize,
  type WireSize,
} from '@inventario/core';
import { useState } from 'react';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { Segments } from '../../../ui/choice.js';

/** The size cables of this box's circuit usually have, or the one already in it. */
export function sizeFor(box: Box, known: JobLookup): WireSize {
  const amps = box.circuitIds.flatMap((id) => known.circuits.get(id)?.amps ?? []);
  return box.conductors.at(-1)?.size ?? usualSize(known.job, amps.length > 0 ? Math.max(...amps) : undefined);
}

/** Usual boxes to begin with; what they fill in is corrected afterwards. */
export function PresetPicker({
  box,
  onTaken,
}: {
  box: Box;
  onTaken: (contents: Pick<Box, 'cables' | 'conductors' | 'joints' | 'positions'>) => void;
}) {
  const { job, known } = useJob();
  const free = box.positions.filter(
    (position) => position.existing !== 'blank' && position.existing !== 'none',
  );
  const [chosen, setChosen] = useState<number | null>(null);
  const position =
    free.find((entry) => entry.index === chosen) ??
    free.find((entry) => wantsConductors(box, entry)) ??
    free[0];
  const [scheme, setScheme] = useState<'today' | 'old'>('today');
  const take = (preset: PresetId) => {
    if (!position) return;
    const made = presetContents(
      {
        preset,
        practice: job.practice,
        size: sizeFor(box, known),
        loadIds: position.loadIds,
        index: position.index,
        scheme,
      },
      newId,
    );
    const filled = new Map(made.positions.map((entry) => [entry.index, entry]));
    onTaken({
      cables: [...box.cables, ...made.cables],
      conductors: [...box.conductors, ...made.conductors],
      joints: [...box.joints, ...made.joints],
      positions: box.positions.map((entry) => {
        const own = filled.get(entry.index);
        return own
          ? { ...entry, existing: own.existing, ...(own.breakOff ? { breakOff: own.breakOff } : {}) }
          : entry;
      }),
    });
  };
  if (!position) return null;
  const besideIt = free.some((entry) => entry.index === position.index + 1);
  const offered = presetsFor(job).filter((preset) => preset.gangs === 1 || besideIt);
  return (
    <div className="flex flex-col gap-2">
      <p>
        Begin with the box it looks like, then correct what differs.
        {free.length > 1 && ` It goes to position ${position.index}.`}
      </p>
      {free.length > 1 && (
        <Segments
          label="For position"
          value={position.index}
          options={free.map(({ index }) => ({ value: index, label: String(index) }))}
          onChoice={setChosen}
        />
      )}
      {profileOf(job).colours.old && (
        <Segments
          label="Colours"
          value={scheme}
          options={[
            { value: 'today', label: 'as today' },
            { value: 'old', label: 'old: red and black' },
          ]}
          onChoice={setScheme}
        />
      )}
      <div className="grid gap-2 sm:grid-cols-2 xl:grid-cols-3">
        {offered.map((preset) => (
          <button
            key={preset.id}
            type="button"
            onClick={() => take(preset.id)}
            className="min-h-14 rounded-md border border-rule bg-ground p-2.5 text-left hover:border-ink"
          >
            <span className="block font-semibold">{preset.name}</span>
            <span className="block text-sm text-soft">{preset.sign}</span>
          </button>
        ))}
      </div>
    </div>
  );
}

/** A position that holds something but has nothing on its terminals yet. */
export function wantsConductors(box: Box, position: Position): boolean {
  if (position.existing === 'blank' || position.existing === 'none' || position.leads?.length) return false;
  return !box.conductors.some((conductor) =>
    [conductor.at, ...(conductor.ends ?? [])].some((at) => at?.position === position.index),
  );
}
