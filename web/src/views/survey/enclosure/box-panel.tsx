import { Disclosure, DisclosureButton, DisclosurePanel } from '@headlessui/react';
import {
  type Box,
  type BoxEnclosure,
  boxCapacity,
  CONDITION_WORDS,
  contentsAsFound,
  contentsAsPlanned,
  cubicInches,
  Hazard,
  type Job,
  lengthText,
  millilitres,
  plannedDevices,
  plural,
  profileOf,
  rounded,
  STOP_WORDS,
  volumeText,
  withGangs,
} from '@inventario/core';
import { Check, ChevronRight, Minus, Pencil, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { BoxDrawing } from '../../../drawings/box-drawing.js';
import { boxGeometry } from '../../../drawings/box-geometry.js';
import { Button } from '../../../ui/button.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { NumberField } from '../../../ui/field.js';
import { Toggle } from '../../../ui/toggle.js';
import { Zoomable } from '../../../ui/zoomable.js';
import type { ChangeBox } from '../change-box.js';
import { LengthField } from './length-field.js';

/** The enclosure: its drawing to scale, and what is read off it beside the drawing. */
export function BoxPanel({ box, change }: { box: Box; change: ChangeBox }) {
  const { job, known } = useJob();
  const units = useUnits(job);
  const { enclosure } = box;
  const set = (more: Partial<BoxEnclosure>, label: string, mergeKey?: string) =>
    change({ enclosure: { ...enclosure, ...more } }, label, mergeKey);
  const planned = useMemo(() => plannedDevices(box, known), [box, known]);
  const geometry = useMemo(
    () =>
      boxGeometry(
        box,
        planned.length > 0 ? contentsAsPlanned(box, planned, known) : contentsAsFound(box, known),
      ),
    [box, known, planned],
  );
  const gangWord = profileOf(job).words.gang;
  const [open, setOpen] = useState(() => !isRead(box, job));
  const form = (
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
      {isRead(box, job) && (
        <Button icon={Check} className="self-start" onClick={() => setOpen(false)}>
          Enclosure read
        </Button>
      )}
    </div>
  );
  return (
    <section
      aria-label="Enclosure"
      className="grid gap-4 rounded-lg border border-rule bg-sheet p-3 md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]"
    >
      <figure className="flex flex-col">
        <Zoomable>
          <BoxDrawing geometry={geometry} units={units} planned={planned.length > 0} />
        </Zoomable>
        <figcaption className="text-center text-sm text-soft">
          {planned.length > 0 ? 'As planned (dashed)' : 'As found'}, to one scale. Hatched: folded conductors.
        </figcaption>
      </figure>
      {open ? form : <EnclosureInWords box={box} onChange={() => setOpen(true)} />}
    </section>
  );
}

/** Volume and depth are read: nothing keeps the enclosure from being reckoned with. */
function isRead(box: Box, job: Job): boolean {
  return boxCapacity(box, job).ml !== null && box.enclosure.depth > 0;
}

/** The enclosure once it is read, out of the way of the conductors. */
function EnclosureInWords({ box, onChange }: { box: Box; onChange: () => void }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { enclosure } = box;
  const { capacity } = enclosure;
  const standard =
    capacity.from === 'standard'
      ? job.catalogue.enclosures.find((entry) => entry.id === capacity.enclosureId)
      : undefined;
  const { ml } = boxCapacity(box, job);
  const metal = enclosure.grounded ? 'metal, bonded' : 'metal, not bonded';
  const lines = [
    [
      'Box',
      `${plural(enclosure.gangs, profileOf(job).words.gang)}, ` +
        (enclosure.material === 'plastic' ? 'plastic' : metal),
    ],
    ['Volume', `${volumeText(ml ?? 0, units)}, ${standard ? `standard: ${standard.name}` : capacity.from}`],
    [
      'Depth',
      lengthText(enclosure.depth, units) +
        (enclosure.setBack ? `, set back ${lengthText(enclosure.setBack, units)}` : ''),
    ],
    ['Clamps', enclosure.internalClamps ? 'inside' : 'none inside'],
    ...(enclosure.rings?.length ? [['Rings', String(enclosure.rings.length)]] : []),
    ...(box.signal
      ? [['Signal', 'rssi' in box.signal ? `${box.signal.rssi} dBm` : `${box.signal.bars} bars`]]
      : []),
  ];
  return (
    <div className="flex flex-col gap-2">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
        {lines.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <Button icon={Pencil} className="self-start" onClick={onChange}>
        Change the enclosure
      </Button>
    </div>
  );
}

const HAZARDS = Object.fromEntries(
  Hazard.options.map((id) => [id, STOP_WORDS[id].name.toLowerCase()]),
) as Record<Hazard, string>;

function Ticks<Id extends string>({
  legend,
  words,
  ticked,
  onTick,
}: {
  legend: string;
  words: Record<Id, string>;
  ticked: readonly Id[];
  onTick: (ticked: Id[]) => void;
}) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold text-soft">{legend}</legend>
      <div className="flex flex-wrap gap-1">
        {(Object.keys(words) as Id[]).map((id) => (
          <Button
            key={id}
            aria-pressed={ticked.includes(id)}
            kind={ticked.includes(id) ? 'main' : 'plain'}
            onClick={() =>
              onTick(ticked.includes(id) ? ticked.filter((other) => other !== id) : [...ticked, id])
            }
          >
            {words[id]}
          </Button>
        ))}
      </div>
    </fieldset>
  );
}

function Stepper({
  label,
  value,
  min,
  max,
  onValue,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  onValue: (value: number) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="text-sm font-semibold text-soft">{label}</legend>
      <div className="flex items-center gap-1">
        <Button icon={Minus} iconOnly disabled={value <= min} onClick={() => onValue(value - 1)}>
          One less
        </Button>
        <output className="w-9 text-center text-lg font-bold">{value}</output>
        <Button icon={Plus} iconOnly disabled={value >= max} onClick={() => onValue(value + 1)}>
          One more
        </Button>
      </div>
    </fieldset>
  );
}

type SetEnclosure = (more: Partial<BoxEnclosure>, label: string, mergeKey?: string) => void;

function Volume({ box, set }: { box: Box; set: SetEnclosure }) {
  const { job } = useJob();
  const units = useUnits(job);
  const { capacity } = box.enclosure;
  const inch = units === 'inch';
  const unit = inch ? 'in³' : 'mL';
  const shown = (volume: { mL?: number | undefined; in3?: number | undefined }) => {
    if (inch && volume.in3 !== undefined) return volume.in3;
    const ml = millilitres(volume) ?? 0;
    return rounded(inch ? cubicInches(ml) : ml, 2);
  };
  const typed = (value: number) => (inch ? { in3: value } : { mL: value });
  const standards = job.catalogue.enclosures.filter((enclosure) => enclosure.practice === job.practice);
  const take = (from: 'marked' | 'standard' | 'measured') => {
    if (from === 'marked') set({ capacity: { from, ...typed(0) } }, 'Volume as marked');
    else if (from === 'measured')
      set({ capacity: { from, width: 0, height: 0, depth: box.enclosure.depth } }, 'Volume as measured');
    else if (standards[0]) set({ capacity: { from, enclosureId: standards[0].id } }, 'A standard box');
  };
  return (
    <div className="flex flex-col gap-2">
      <Segments
        label="Volume"
        value={capacity.from}
        options={[
          { value: 'marked' as const, label: 'marked' },
          { value: 'standard' as const, label: 'standard box' },
          { value: 'measured' as const, label: 'measured' },
        ]}
        onChoice={take}
      />
      {capacity.from === 'marked' && (
        <NumberField
          label={`Marked in the box, ${unit}`}
          name="volume"
          unit={unit}
          zeroIsEmpty
          max={20_000}
          value={shown(capacity)}
          onNumber={(value) =>
            set({ capacity: { from: 'marked', ...typed(value) } }, 'Volume as marked', 'volume')
          }
        />
      )}
      {capacity.from === 'standard' && (
        <PickOne
          label="Which"
          hideLabel
          value={capacity.enclosureId}
          options={standards.map((enclosure) => ({
            value: enclosure.id,
            label: enclosure.name,
            hint: `${shown(enclosure)} ${unit}`,
          }))}
          onChoice={(enclosureId) => {
            const chosen = standards.find((enclosure) => enclosure.id === enclosureId);
            // A standard box has a known depth; one measured by hand stays.
            set(
              {
                capacity: { from: 'standard', enclosureId },
                ...(box.enclosure.depth === 0 && chosen?.depth ? { depth: chosen.depth } : {}),
                ...(chosen?.material ? { material: chosen.material } : {}),
              },
              'A standard box',
            );
          }}
        />
      )}
      {capacity.from === 'measured' && (
        <div className="grid grid-cols-3 gap-2">
          {(['width', 'height', 'depth'] as const).map((side) => (
            <LengthField
              key={side}
              label={side}
              units={units}
              zeroIsEmpty
              mm={capacity[side]}
              onMm={(mm) => set({ capacity: { ...capacity, [side]: mm } }, 'Volume as measured', side)}
            />
          ))}
        </div>
      )}
    </div>
  );
}

function Rings({ box, set }: { box: Box; set: SetEnclosure }) {
  const { job } = useJob();
  const units = useUnits(job);
  const rings = box.enclosure.rings ?? [];
  const inch = units === 'inch';
  const change = (index: number, more: Partial<(typeof rings)[number]>) =>
    set(
      { rings: rings.map((ring, at) => (at === index ? { ...ring, ...more } : ring)) },
      'Ring',
      `ring${index}`,
    );
  return (
    <div className="flex flex-col gap-2">
      {Object.entries(rings).map(([at, ring]) => (
        <div key={at} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <NumberField
            label={`Ring ${Number(at) + 1}, volume`}
            unit={inch ? 'in³' : 'mL'}
            value={
              inch
                ? (ring.in3 ?? rounded(cubicInches(millilitres(ring) ?? 0), 2))
                : rounded(millilitres(ring) ?? 0, 1)
            }
            onNumber={(value) =>
              change(Number(at), inch ? { in3: value, mL: undefined } : { mL: value, in3: undefined })
            }
          />
          <LengthField
            label="adds depth"
            units={units}
            mm={ring.depth}
            onMm={(depth) => change(Number(at), { depth })}
          />
          <Button
            icon={Minus}
            iconOnly
            onClick={() => set({ rings: rings.toSpliced(Number(at), 1) }, 'Take a ring out')}
          >
            Take ring {Number(at) + 1} out
          </Button>
        </div>
      ))}
      <Button
        icon={Plus}
        className="self-start"
        onClick={() =>
          set({ rings: [...rings, inch ? { in3: 6, depth: 16 } : { mL: 98, depth: 16 }] }, 'Add a ring')
        }
      >
        Ring, raised cover or extension
      </Button>
    </div>
  );
}
