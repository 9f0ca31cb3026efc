import {
  type Box,
  enclosureChips,
  isOddDepth,
  LOAD_WORDS,
  type LoadKind,
  lengthText,
  loadsToControl,
  MM_PER_INCH,
  millilitres,
  type NextStep,
  newLoad,
  plural,
  profileOf,
  putPart,
  rounded,
  setParts,
  usualDepths,
  usualVolumes,
  volumeText,
} from '@inventario/core';
import { useState } from 'react';
import { felt } from '../../../data/felt.js';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { useUnits } from '../../../data/preferences.js';
import { SignalBars } from '../../../drawings/signal-bars.js';
import { Button } from '../../../ui/button.js';
import { NumberField } from '../../../ui/field.js';
import { NumberPad } from '../../../ui/number-pad.js';
import { PickKeys } from '../../../ui/pick-keys.js';
import { useHand } from '../hand/use-hand.js';

type StepOf<Kind extends NextStep['kind']> = { step: Extract<NextStep, { kind: Kind }> };

export function CircuitKeys({ step: { candidates } }: StepOf<'circuit'>) {
  const { known, change, skip } = useHand();
  const { circuits } = known.job;
  const order = [...circuits].sort(
    (a, b) => Number(candidates.includes(b.id)) - Number(candidates.includes(a.id)),
  );
  return (
    <PickKeys
      label="Breakers"
      keys={[
        ...order.map(({ id, breaker, label }) => ({
          key: id,
          label: breaker,
          hint: label.length > 22 ? `${label.slice(0, 21)}…` : label,
          onPick: () => change({ circuitIds: [id] }, `Fed by breaker ${breaker}`),
        })),
        { key: 'later', label: 'Later', hint: 'not known yet', onPick: skip },
      ]}
    />
  );
}

/** Loads of the room first; a new one is named after room and kind, and asks two numbers. */
export function ControlsKeys({ step: { position } }: StepOf<'controls'>) {
  const { box, known, change, skip } = useHand();
  const [kind, setKind] = useState<LoadKind | 'asked' | null>(null);
  const put = (loadId: string, name: string) =>
    change(
      {
        positions: box.positions.map((entry) =>
          entry.index === position ? { ...entry, loadIds: [...entry.loadIds, loadId] } : entry,
        ),
      },
      `Position ${position} controls ${name}`,
    );
  if (kind === 'asked')
    return (
      <PickKeys
        label="Kind of load"
        columns={3}
        keys={(Object.keys(LOAD_WORDS) as LoadKind[]).map((value) => ({
          key: value,
          label: LOAD_WORDS[value],
          onPick: () => setKind(value),
        }))}
      />
    );
  if (kind) return <NewLoad box={box} position={position} kind={kind} onDone={() => setKind(null)} />;
  return (
    <PickKeys
      label="Loads"
      keys={[
        ...loadsToControl(known.job, box.roomId)
          .slice(0, 12)
          .map(({ id, name, roomId }) => ({
            key: id,
            label: name,
            hint: roomId === box.roomId ? undefined : known.rooms.get(roomId)?.name,
            onPick: () => put(id, name),
          })),
        { key: 'new', label: 'New load', hint: 'two numbers', onPick: () => setKind('asked') },
        { key: 'later', label: 'Later', hint: 'not known yet', onPick: skip },
      ]}
    />
  );
}

function NewLoad({
  box,
  position,
  kind,
  onDone,
}: {
  box: Box;
  position: number;
  kind: LoadKind;
  onDone: () => void;
}) {
  const { job, apply } = useJob();
  const [load, setLoad] = useState(() => newLoad(job, { id: newId(), roomId: box.roomId, kind }));
  const [taken, setTaken] = useState({ count: true, watts: true });
  const add = () => {
    felt();
    const positions = box.positions.map((entry) =>
      entry.index === position ? { ...entry, loadIds: [...entry.loadIds, load.id] } : entry,
    );
    apply(
      [putPart('load', load.id, load), ...setParts('box', box.id, box, { positions })],
      `Add ${load.name}, controlled here`,
    );
    onDone();
  };
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
      <p className="col-span-3 font-semibold">{load.name}</p>
      <NumberField
        label="How many"
        whole
        min={1}
        max={500}
        value={load.count}
        onNumber={(count) => setLoad({ ...load, count })}
        onTaken={(count) => setTaken({ ...taken, count })}
      />
      <NumberField
        label="Each"
        unit="W"
        max={20_000}
        value={load.wattsEach}
        onNumber={(wattsEach) => setLoad({ ...load, wattsEach })}
        onTaken={(watts) => setTaken({ ...taken, watts })}
      />
      <Button kind="main" disabled={!taken.count || !taken.watts} onClick={add}>
        Add it
      </Button>
    </div>
  );
}

/** Bars as the phone shows them, or dBm: the minus is put before it. */
export function SignalKeys() {
  const { change, skip } = useHand();
  const [typing, setTyping] = useState(false);
  if (typing)
    return (
      <NumberPad
        label="Signal, minus"
        unit="dBm"
        most={120}
        tooMuch="No phone shows less than -120 dBm."
        onEnter={(value) => {
          felt();
          change({ signal: { rssi: value === 0 ? 0 : -value } }, `Signal -${value} dBm`);
        }}
      />
    );
  return (
    <PickKeys
      label="Signal"
      columns={4}
      keys={[
        ...[4, 3, 2, 1, 0].map((bars) => ({
          key: String(bars),
          label: bars === 1 ? '1 bar' : `${bars} bars`,
          picture: <SignalBars bars={bars} />,
          onPick: () => {
            felt();
            change({ signal: { bars } }, `Signal ${bars} bars`);
          },
        })),
        { key: 'dbm', label: '-123', hint: 'dBm', onPick: () => setTyping(true) },
        { key: 'later', label: 'Later', hint: 'not read', onPick: skip },
      ]}
    />
  );
}

/** Boxes of this job and of the standard list with both figures; then each figure by itself; then typed. */
export function EnclosureKeys({ step: { volume, depth } }: StepOf<'enclosure'>) {
  const { box, known, change, skip } = useHand();
  const { job } = known;
  const units = useUnits(job);
  const [typing, setTyping] = useState<'volume' | 'depth' | null>(null);
  const { volumesIn, words } = profileOf(job);
  const set = (more: Partial<Box['enclosure']>, label: string) => {
    felt();
    setTyping(null);
    change({ enclosure: { ...box.enclosure, ...more } }, label);
  };
  const inch = units === 'inch';
  if (typing === 'volume')
    return (
      <NumberPad
        label="Marked in the box"
        unit={inch ? 'in³' : 'mL'}
        most={inch ? 600 : 10_000}
        tooMuch="No switch box is that large."
        onEnter={(value) =>
          set({ capacity: { from: 'marked', ...(inch ? { in3: value } : { mL: value }) } }, 'Volume')
        }
      />
    );
  if (typing === 'depth')
    return (
      <NumberPad
        label="Depth inside"
        unit={inch ? 'in' : 'mm'}
        most={inch ? 8 : 200}
        tooMuch="No switch box is that deep."
        onEnter={(value) => set({ depth: inch ? rounded(value * MM_PER_INCH, 2) : value }, 'Depth')}
      />
    );
  // One touch takes both figures where a box like it is known; each by itself where only one is asked for.
  const both = (volume && depth ? enclosureChips(box, job) : []).slice(0, 6).map((chip) => ({
    key: `both${chip.ml}/${chip.depth}`,
    label: `${volumeText(chip.ml, units)}, ${lengthText(chip.depth, units)}`,
    hint: 'boxName' in chip.from ? `as ${chip.from.boxName}` : chip.from.standard,
    onPick: () => set({ capacity: chip.capacity, depth: chip.depth }, 'Volume and depth'),
  }));
  const volumes = (volume ? usualVolumes(box, job) : []).map((value) => {
    const marked = volumesIn === 'in3' ? { in3: value } : { mL: value };
    return {
      key: `volume${value}`,
      label: volumeText(millilitres(marked) ?? 0, units),
      hint: 'marked',
      onPick: () => set({ capacity: { from: 'marked', ...marked } }, 'Volume'),
    };
  });
  const depths = (depth && !volume ? usualDepths(box, job) : []).map((value) => ({
    key: `depth${value}`,
    label: lengthText(value, units),
    hint: 'deep',
    onPick: () => set({ depth: value }, 'Depth'),
  }));
  const isOdd = isOddDepth(box, job);
  return (
    <>
      <p className="text-sm text-soft">
        {plural(box.enclosure.gangs, words.gang)}, {box.enclosure.material}
        {isOdd && '. No standard box of this volume has that depth: look again'}
      </p>
      <PickKeys
        label="Volume and depth"
        keys={[
          ...both,
          ...volumes,
          ...depths,
          ...(volume
            ? [{ key: 'type-volume', label: '123', hint: 'volume', onPick: () => setTyping('volume') }]
            : []),
          ...(depth
            ? [{ key: 'type-depth', label: '123', hint: 'depth', onPick: () => setTyping('depth') }]
            : []),
          isOdd
            ? { key: 'right', label: 'It is right', hint: 'as recorded', onPick: skip }
            : { key: 'later', label: 'Later', hint: 'not read', onPick: skip },
        ]}
      />
    </>
  );
}
