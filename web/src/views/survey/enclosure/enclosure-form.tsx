import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import { type Box, CONDITION_WORDS, Hazard, profileOf, STOP_WORDS, withGangs } from '@inventario/core';
import { Check, ChevronRight } from 'lucide-react';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { Button } from '../../../ui/button.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { NumberField } from '../../../ui/field.js';
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
  /** The enclosure is done with; absent while something of it is still not read. */
  onRead?: (() => void) | undefined;
}

/** What is read off an enclosure. */
export function EnclosureForm({ box, change, onRead }: FormProps) {
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
          label={`${gangWord[0]?.toUpperCase()}${gangWord.slice(1)}s`}
          value={enclosure.gangs}
          min={1}
          max={24}
          onValue={(gangs) => change(withGangs(box, gangs), `${gangs} ${gangWord}s`)}
        />
        <Segments
          label="Material"
          value={enclosure.material === 'plastic' ? 'plastic' : enclosure.grounded ? 'bonded' : 'unbonded'}
          options={[
            { value: 'plastic', label: 'plastic' },
            { value: 'bonded', label: 'metal, bonded' },
            { value: 'unbonded', label: 'metal, not' },
          ]}
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
      <EnclosureDetails box={box} change={change} set={set} />
      {onRead && (
        <Button icon={Check} className="self-start" onClick={onRead}>
          Enclosure read
        </Button>
      )}
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
        Rings, set-back, supports, plate, signal
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
            options={[
              { value: 'plastic', label: 'plastic' },
              { value: 'metal', label: 'metal' },
              { value: 'glass', label: 'glass' },
            ]}
            onChoice={(plate) => set({ plate }, 'Plate')}
          />
          <NumberField
            label="Signal at the box"
            unit="dBm"
            min={-120}
            max={0}
            value={box.signal && 'rssi' in box.signal ? box.signal.rssi : undefined}
            hint="read before the power goes off"
            onNumber={(rssi) => change({ signal: { rssi } }, 'Signal at the box', 'signal')}
          />
        </div>
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

const HAZARDS = Object.fromEntries(
  Hazard.options.map((id) => [id, STOP_WORDS[id].name.toLowerCase()]),
) as Record<Hazard, string>;
