import { type Device, type Light, pairingManner, putPart } from '@inventario/core';
import { useForm } from 'react-hook-form';
import { instant } from '../../data/ids.js';
import { useJob } from '../../data/job-context.js';
import { IndicatorLight } from '../../drawings/indicator-light.js';
import { Button } from '../../ui/button.js';
import { PickOne } from '../../ui/choice.js';
import { Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/field.js';

interface Correction {
  press: string;
  first: Light['colours'][number];
  second: Light['colours'][number] | 'none';
  rhythm: Light['rhythm'];
}

const COLOURS = (['white', 'amber', 'green', 'red', 'blue', 'purple'] as const).map((value) => ({
  value,
  label: value,
}));
const RHYTHMS = [
  { value: 'steady', label: 'steady' },
  { value: 'slow', label: 'slow' },
  { value: 'quick', label: 'quick' },
  { value: 'breathing', label: 'breathing' },
  { value: 'twice', label: 'twice and a pause' },
] as const;

/** What was found otherwise than the record says holds for the model in this job, as of today. */
export function CorrectManner({ device, onClose }: { device: Device; onClose: () => void }) {
  const { apply } = useJob();
  const manner = pairingManner(device);
  const { watch, setValue, handleSubmit } = useForm<Correction>({
    defaultValues: {
      press: manner.press ?? manner.steps.join('; '),
      first: manner.light?.colours[0] ?? 'white',
      second: manner.light?.colours[1] ?? 'none',
      rhythm: manner.light?.rhythm ?? 'slow',
    },
  });
  const { press, first, second, rhythm } = watch();
  const light: Light = { colours: second === 'none' ? [first] : [first, second], rhythm };
  const save = handleSubmit(() => {
    const asOf = instant().slice(0, 10);
    const kept = apply(
      [putPart('device', device.id, { ...device, pairing: { ...device.pairing, press, light, asOf } })],
      `Pairing of ${device.model} corrected`,
    );
    if (kept) onClose();
  });
  return (
    <Dialog title={`How ${device.model} is paired`} open onClose={onClose}>
      <form className="flex flex-col gap-3" onSubmit={(event) => void save(event)}>
        <p className="text-soft">It holds for every {device.model} of this job.</p>
        <TextField
          label="What to press"
          value={press}
          maxLength={400}
          onText={(text) => setValue('press', text)}
        />
        <div className="flex items-center gap-3">
          <IndicatorLight light={light} />
          <div className="grid flex-1 grid-cols-2 gap-2">
            <PickOne
              label="Colour"
              value={first}
              options={COLOURS}
              onChoice={(it) => setValue('first', it)}
            />
            <PickOne
              label="Second colour"
              value={second}
              options={[{ value: 'none' as const, label: 'none' }, ...COLOURS]}
              onChoice={(it) => setValue('second', it)}
            />
            <PickOne
              label="Rhythm"
              value={rhythm}
              options={RHYTHMS}
              onChoice={(it) => setValue('rhythm', it)}
              className="col-span-2"
            />
          </div>
        </div>
        <Button kind="main" type="submit">
          Keep for this model
        </Button>
      </form>
    </Dialog>
  );
}
