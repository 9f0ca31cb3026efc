import {
  type Box,
  type JobLookup,
  type LikeBox,
  likeThatOne,
  newBox,
  type Position,
  type PresetContents,
  type PresetId,
  presetContents,
  presetsInOrder,
  profileOf,
  usualSize,
  type WireSize,
  withPreset,
} from '@inventario/core';
import { Trash2 } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { dropPreset, ownPresets } from '../../../data/own-presets.js';
import { BoxThumbnail } from '../../../drawings/box-thumbnail.js';
import { Button } from '../../../ui/button.js';
import { Segments } from '../../../ui/choice.js';

/** The size cables of this box's circuit usually have, or the one already in it. */
export function sizeFor(box: Box, known: JobLookup): WireSize {
  const amps = box.circuitIds.flatMap((id) => known.circuits.get(id)?.amps ?? []);
  return box.conductors.at(-1)?.size ?? usualSize(known.job, amps.length > 0 ? Math.max(...amps) : undefined);
}

/** Usual boxes to begin with, each in small; what they fill in is corrected afterwards. */
export function PresetPicker({ box, onTaken }: { box: Box; onTaken: (contents: Partial<Box>) => void }) {
  const { job, known } = useJob();
  const free = box.positions.filter(({ existing }) => existing !== 'blank' && existing !== 'none');
  const [chosen, setChosen] = useState<number | null>(null);
  const [scheme, setScheme] = useState<'today' | 'old'>('today');
  const [dropped, setDropped] = useState(0);
  const offered = useMemo(() => presetsInOrder(box, job), [box, job]);
  const own = useMemo(() => (dropped >= 0 ? ownPresets(job.practice) : []), [job.practice, dropped]);
  const position =
    free.find((entry) => entry.index === chosen) ??
    free.find((entry) => wantsConductors(box, entry)) ??
    free[0];
  if (!position) return null;
  const made = (preset: PresetId, id: () => string) =>
    presetContents(
      {
        preset,
        practice: job.practice,
        size: sizeFor(box, known),
        loadIds: position.loadIds,
        index: position.index,
        gang: position.gang ?? position.index,
        scheme,
      },
      id,
    );
  const isEmpty = box.conductors.length === 0;
  return (
    <div className="flex flex-col gap-2">
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
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3 xl:grid-cols-4">
        {isEmpty &&
          own.map((preset) => (
            <div key={preset.id} className="relative">
              <PresetKey
                name={preset.name}
                sign="one of mine"
                picture={preset.box}
                onPick={() => onTaken(likeThatOne(box, preset.box, newId))}
              />
              <Button
                kind="quiet"
                icon={Trash2}
                iconOnly
                className="absolute top-0 right-0"
                onClick={() => {
                  dropPreset(preset.id);
                  setDropped(dropped + 1);
                }}
              >
                Delete {preset.name} from my usual boxes
              </Button>
            </div>
          ))}
        {offered.map(({ id, name, sign }) => (
          <PresetKey
            key={id}
            name={name}
            sign={sign}
            picture={pictureOf(made(id, counting()), job.practice)}
            onPick={() => onTaken(withPreset(box, made(id, newId)))}
          />
        ))}
      </div>
    </div>
  );
}

function PresetKey({
  name,
  sign,
  picture,
  onPick,
}: {
  name: string;
  sign: string;
  picture: LikeBox;
  onPick: () => void;
}): ReactNode {
  return (
    <button
      type="button"
      onClick={onPick}
      className="flex h-full w-full flex-col gap-1 rounded-md border border-edge bg-sheet p-2 text-left hover:border-ink"
    >
      <BoxThumbnail box={picture} />
      <span className="leading-tight font-semibold">{name}</span>
      <span className="text-sm leading-tight text-soft">{sign}</span>
    </button>
  );
}

const counting = () => {
  let serial = 0;
  return () => {
    serial += 1;
    return `p${serial}`;
  };
};

function pictureOf(made: PresetContents, practice: Parameters<typeof newBox>[1]): LikeBox {
  return { ...newBox({ id: 'p', roomId: 'p', name: '', order: 0 }, practice), ...made };
}

/** A position that holds something but has nothing on its terminals yet. */
export function wantsConductors(box: Box, position: Position): boolean {
  if (position.existing === 'blank' || position.existing === 'none' || position.leads?.length) return false;
  return !box.conductors.some((conductor) =>
    [conductor.at, ...(conductor.ends ?? [])].some((at) => at?.position === position.index),
  );
}
