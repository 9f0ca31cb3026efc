import { type Box, COLOUR_WORDS, type Colour, withoutCable } from '@inventario/core';
import { Trash2 } from 'lucide-react';
import { newId } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { Swatch } from '../../drawings/strand.js';
import { Button } from '../../ui/button.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';
import type { ChangeBox } from './change-box.js';
import { sizeFor } from './preset-picker.js';

/** A cable: what it is called, one more conductor in it, taking it out. */
export function CableDialog({ box, cableId, change, onClose }: { box: Box; cableId: string; change: ChangeBox; onClose: () => void }) {
  const { known } = useJob();
  const cable = box.cables.find((entry) => entry.id === cableId);
  if (!cable) return null;
  const add = (colour: Colour) =>
    change(
      { conductors: [...box.conductors, { id: newId(), cableId, size: sizeFor(box, known), colour, at: { capped: true } }] },
      `Add a ${colour} conductor`,
    );
  const count = box.conductors.filter((conductor) => conductor.cableId === cableId).length;
  return (
    <Dialog title={`Cable, ${count} conductor${count === 1 ? '' : 's'}`} open onClose={onClose}>
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
            change(withoutCable(box, cableId), 'Take a cable out');
            onClose();
          }}
        >
          Take the cable out
        </Button>
      </div>
    </Dialog>
  );
}
