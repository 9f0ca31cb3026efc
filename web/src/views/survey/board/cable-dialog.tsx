import {
  type Box,
  COLOUR_WORDS,
  type Colour,
  farEnds,
  type JobLookup,
  plural,
  type Run,
  runOf,
  runParts,
  setParts,
  withoutCable,
  withoutRunOf,
} from '@inventario/core';
import { Trash2 } from 'lucide-react';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { Swatch } from '../../../drawings/strand.js';
import { Button } from '../../../ui/button.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { Dialog } from '../../../ui/dialog.js';
import { TextField } from '../../../ui/field.js';
import type { ChangeBox } from '../change-box.js';
import { sizeFor } from './preset-picker.js';

/** A cable: what it is called, where it goes, one more conductor in it, taking it out. */
export function CableDialog({
  box,
  cableId,
  change,
  onClose,
}: {
  box: Box;
  cableId: string;
  change: ChangeBox;
  onClose: () => void;
}) {
  const { known, apply } = useJob();
  const cable = box.cables.find((entry) => entry.id === cableId);
  if (!cable) return null;
  const add = (colour: Colour) =>
    change(
      {
        conductors: [
          ...box.conductors,
          { id: newId(), cableId, size: sizeFor(box, known), colour, at: { capped: true } },
        ],
      },
      `Add a ${colour} conductor`,
    );
  const count = box.conductors.filter((conductor) => conductor.cableId === cableId).length;
  return (
    <Dialog title={`Cable, ${plural(count, 'conductor')}`} open onClose={onClose}>
      <div className="flex flex-col gap-4">
        <TextField
          label="Called"
          value={cable.label ?? ''}
          maxLength={40}
          onText={(label) =>
            change(
              { cables: box.cables.map((other) => (other.id === cableId ? { ...other, label } : other)) },
              'Name a cable',
              `cable${cableId}`,
            )
          }
        />
        <GoesTo box={box} cableId={cableId} />
        <fieldset>
          <legend className="mb-1 text-sm font-semibold text-soft">Add a conductor of this colour</legend>
          <div className="flex flex-wrap gap-1">
            {(Object.keys(COLOUR_WORDS) as Colour[]).map((colour) => (
              <Button key={colour} onClick={() => add(colour)}>
                <Swatch colour={colour} />
                {COLOUR_WORDS[colour]}
              </Button>
            ))}
          </div>
        </fieldset>
        <Button
          kind="stop"
          icon={Trash2}
          onClick={() => {
            apply(
              [
                ...setParts('box', box.id, box, withoutCable(box, cableId)),
                ...withoutRunOf(box.id, cableId, known),
              ],
              `Delete a cable (${box.name})`,
            );
            onClose();
          }}
        >
          Delete the cable
        </Button>
      </div>
    </Dialog>
  );
}

const SURE = [
  { value: 'supposed', label: 'supposed' },
  { value: 'seen', label: 'seen' },
  { value: 'tested', label: 'tested' },
] as const;

/** The other end of the cable: it lets readings there count here, and tells what a conductor can be. */
function GoesTo({ box, cableId }: { box: Box; cableId: string }) {
  const { known, apply } = useJob();
  const before = runOf(box.id, cableId, known);
  const sure = before?.run.known ?? 'supposed';
  const ends = farEnds(box, cableId, known);
  const keyOf = (end: Run['ends'][number]) =>
    [end.circuitId, end.loadId, end.boxId, end.cableId].map((id) => id ?? '').join('|');
  const say = (key: string, how: NonNullable<Run['known']>) => {
    const far = ends.find((end) => keyOf(end) === key) ?? null;
    apply(runParts({ box, cableId, far, how }, known, newId), `Where a cable goes (${box.name})`);
  };
  const key = before ? keyOf(before.far) : '';
  return (
    <div className="flex flex-col gap-2">
      <PickOne
        label="Goes to"
        value={key}
        options={[
          { value: '', label: 'not known' },
          ...ends.map((end) => ({ value: keyOf(end), label: endWords(end, known) })),
        ]}
        onChoice={(chosen) => say(chosen, sure)}
      />
      {before && (
        <Segments label="How that is known" value={sure} options={SURE} onChoice={(how) => say(key, how)} />
      )}
    </div>
  );
}

function endWords(end: Run['ends'][number], known: JobLookup): string {
  if (end.circuitId) return `the panel, breaker ${known.circuits.get(end.circuitId)?.breaker}`;
  if (end.loadId) return known.loads.get(end.loadId)?.name ?? end.loadId;
  const far = known.boxes.get(end.boxId ?? '');
  return `${far?.name}, ${far?.cables.find((cable) => cable.id === end.cableId)?.label || 'a cable'}`;
}
