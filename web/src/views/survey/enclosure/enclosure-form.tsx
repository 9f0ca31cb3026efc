import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import {
  type Box,
  CONDITION_WORDS,
  capital,
  Hazard,
  isOddDepth,
  profileOf,
  STOP_WORDS,
  withGangs,
} from '@inventario/core';
import { ChevronRight } from 'lucide-react';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { MATERIALS, PLATES } from '../../../parts/enclosure-choices.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { NumberField, TextField } from '../../../ui/field.js';
import { Stepper } from '../../../ui/stepper.js';
import { Ticks } from '../../../ui/ticks.js';
import { Toggle } from '../../../ui/toggle.js';
import type { ChangeBox, SetEnclosure } from '../change-box.js';
import { LengthField } from './length-field.js';
import { Rings } from './rings.js';
import { Volume } from './volume.js';

interface FormProps {
  box: Box;
  change: ChangeBox;
}

/** What is read off an enclosure. */
export function EnclosureForm({ box, change }: FormProps) {
  const { job } = useJob();
  const units = useUnits(job);
  const { enclosure } = box;
  const set: SetEnclosure = (more, label, mergeKey) =>
    change({ enclosure: { ...enclosure, ...more } }, label, mergeKey);
  const gangWord = profileOf(job).words.gang;
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <Stepper
          label={`${capital(gangWord)}s`}
          value={enclosure.gangs}
          min={1}
          max={24}
          onValue={(gangs) => change(withGangs(box, gangs), `${gangs} ${gangWord}s`)}
        />
        <Segments
          label="Material"
          value={enclosure.material === 'plastic' ? 'plastic' : enclosure.grounded ? 'bonded' : 'unbonded'}
          options={MATERIALS}
          onChoice={(choice) =>
            set(
              { material: choice === 'plastic' ? 'plastic' : 'metal', grounded: choice === 'bonded' },
              'Material of the box',
            )
          }
        />
      </div>
      <Volume box={box} set={set} />
      <div className="grid grid-cols-2 gap-3">
        <LengthField
          label="Depth inside"
          name="depth"
          mm={enclosure.depth}
          zeroIsEmpty
          onMm={(depth) => set({ depth }, 'Depth of the box', 'depth')}
          units={units}
        />
        <div className="flex items-end">
          <Toggle
            label="Clamps inside"
            on={enclosure.internalClamps}
            onToggle={(internalClamps) => set({ internalClamps }, 'Clamps')}
          />
        </div>
      </div>
      {isOddDepth(box, job) && (
        <p role="alert" className="font-semibold">
          No standard box of this volume has that depth: look at both again.
        </p>
      )}
      <EnclosureDetails box={box} change={change} set={set} />
    </div>
  );
}

/** What few boxes have, and what is looked for once. */
function EnclosureDetails({ box, change, set }: { box: Box; change: ChangeBox; set: SetEnclosure }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { enclosure } = box;
  return (
    <Disclosure>
      <DisclosureButton className="group flex min-h-11 items-center gap-1 self-start font-semibold">
        <ChevronRight aria-hidden className="size-5 transition-transform group-data-open:rotate-90" />
        Rings, set-back, supports, plates, signal
      </DisclosureButton>
      <DisclosurePanel className="flex flex-col gap-3">
        <Rings box={box} set={set} />
        <div className="grid grid-cols-2 gap-3">
          <LengthField
            label="Box edge behind the finished face"
            mm={enclosure.setBack ?? 0}
            zeroIsEmpty
            units={units}
            onMm={(setBack) => set({ setBack: setBack || undefined }, 'Set-back', 'setBack')}
          />
          <NumberField
            label="Kinds of support fittings"
            whole
            max={4}
            value={enclosure.supportFittings}
            onNumber={(supportFittings) => set({ supportFittings }, 'Support fittings', 'support')}
          />
          <PickOne
            label="Plate"
            value={enclosure.plate ?? 'plastic'}
            options={PLATES}
            onChoice={(plate) => set({ plate }, 'Plate')}
          />
        </div>
        <SignalAtBox box={box} change={change} />
        <Neighbour box={box} change={change} />
        <Ticks
          legend="Condition"
          words={CONDITION_WORDS}
          ticked={box.condition ?? []}
          onTick={(condition) => change({ condition }, 'Condition')}
        />
        <Ticks
          legend="Hazards: at any of these, stop"
          words={HAZARDS}
          ticked={box.hazards ?? []}
          onTick={(hazards) => change({ hazards }, 'Hazards')}
        />
      </DisclosurePanel>
    </Disclosure>
  );
}

const BARS = [0, 1, 2, 3, 4].map((bars) => ({ value: bars, label: String(bars) }));

/** Read before the power goes off: bars of the phone, or dBm with its minus put before it. */
function SignalAtBox({ box, change }: { box: Box; change: ChangeBox }) {
  const rssi = box.signal && 'rssi' in box.signal ? -box.signal.rssi : undefined;
  return (
    <div className="grid grid-cols-2 items-end gap-3">
      <Segments
        label="Signal at the box, bars"
        value={box.signal && 'bars' in box.signal ? box.signal.bars : null}
        options={BARS}
        onChoice={(bars) => change({ signal: { bars } }, `Signal ${bars} bars`)}
      />
      <NumberField
        label="Signal at the box, minus"
        unit="dBm"
        max={120}
        value={rssi}
        onNumber={(value) => change({ signal: { rssi: value === 0 ? 0 : -value } }, 'Signal', 'signal')}
      />
    </div>
  );
}

/** What a new plate has to go with, and whether it will stand straight. */
function Neighbour({ box, change }: { box: Box; change: ChangeBox }) {
  const { neighbour } = box;
  const set = (more: NonNullable<Box['neighbour']>) =>
    change({ neighbour: { ...neighbour, ...more } }, 'The plate beside it', 'neighbour');
  return (
    <div className="grid grid-cols-2 gap-3">
      <TextField
        label="Opening of the plate beside it"
        value={neighbour?.opening ?? ''}
        maxLength={60}
        onText={(opening) => set({ opening: opening || undefined })}
      />
      <TextField
        label="Its shade"
        value={neighbour?.shade ?? ''}
        maxLength={60}
        onText={(shade) => set({ shade: shade || undefined })}
      />
      <PickOne
        label="Its material"
        value={neighbour?.material ?? null}
        placeholder="no plate beside it"
        options={PLATES}
        onChoice={(material) => set({ material: material ?? undefined })}
      />
      <PickOne
        label="Mounting screws"
        value={box.screws ?? null}
        placeholder="not looked at"
        options={[
          { value: 'straight', label: 'straight' },
          { value: 'tilted', label: 'tilted' },
          { value: 'worn', label: 'worn threads' },
        ]}
        onChoice={(screws) => change({ screws: screws ?? undefined }, 'Mounting screws')}
      />
    </div>
  );
}

const HAZARDS = Object.fromEntries(
  Hazard.options.map((id) => [id, STOP_WORDS[id].name.toLowerCase()]),
) as Record<Hazard, string>;
