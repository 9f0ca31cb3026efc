import {
  type At,
  type Box,
  COLOUR_WORDS,
  type Colour,
  type Conductor,
  type Joint,
  materialStops,
  profileOf,
  recordableTerminals,
  STOP_WORDS,
  UNRECOGNISED,
  WIRE_SIZES,
  type Words,
  wireSizeText,
  withConductor,
  withEnd,
  withoutConductors,
} from '@inventario/core';
import { Trash2 } from 'lucide-react';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { Swatch } from '../../../drawings/strand.js';
import { Button } from '../../../ui/button.js';
import { PickOne, Segments } from '../../../ui/choice.js';
import { Dialog } from '../../../ui/dialog.js';
import { NumberField, TextField } from '../../../ui/field.js';
import { Toggle } from '../../../ui/toggle.js';
import type { ChangeBox } from '../change-box.js';

const COLOURS = (Object.keys(COLOUR_WORDS) as Colour[]).map((value) => ({
  value,
  label: COLOUR_WORDS[value],
  picture: <Swatch colour={value} />,
}));
const CONNECTORS = [
  { value: 'twist-on', label: 'twist-on' },
  { value: 'lever', label: 'lever' },
  { value: 'terminal-block', label: 'terminal block' },
  { value: 'crimp', label: 'crimp' },
  { value: 'other', label: 'other' },
  { value: 'unknown', label: 'not recognised' },
] as const;

/** Corrects what a preset filled in: colour, size, where it ends. Every choice is recorded at once. */
export function ConductorDialog({
  box,
  conductor,
  words,
  change,
  onClose,
}: {
  box: Box;
  conductor: Conductor;
  words: Words;
  change: ChangeBox;
  onClose: () => void;
}) {
  const { job } = useJob();
  const set = (more: Partial<Conductor>, label: string, mergeKey?: string) =>
    change(withConductor(box, conductor.id, more), label, mergeKey);
  const { named } = profileOf(job).sizes;
  const sizes = [...WIRE_SIZES].sort((a, b) => Number(b.endsWith(named)) - Number(a.endsWith(named)));
  return (
    <Dialog title="Correct the conductor" open onClose={onClose}>
      <div className="flex flex-col gap-3">
        <div className="grid grid-cols-2 gap-3">
          <PickOne
            label="Colour"
            value={conductor.colour}
            options={COLOURS}
            onChoice={(colour) => set({ colour }, `Colour ${colour}`)}
          />
          <PickOne
            label="Size"
            value={conductor.size}
            options={sizes.map((value) => ({
              value,
              label: wireSizeText(value),
            }))}
            onChoice={(size) => set({ size }, `Size ${size}`)}
          />
        </div>
        {(['From', 'To'] as const).slice(0, conductor.ends?.length ?? 0).map((label, end) => (
          <EndPick
            key={label}
            label={label}
            box={box}
            conductor={conductor}
            end={end as 0 | 1}
            at={conductor.ends?.[end]}
            words={words}
            change={change}
          />
        ))}
        {!conductor.ends && (
          <EndPick
            label="Where it ends"
            box={box}
            conductor={conductor}
            end={0}
            at={conductor.at}
            words={words}
            change={change}
          />
        )}
        {conductor.unbroken && (
          <Toggle
            label="in a loop long enough to cut"
            on={conductor.looped === true}
            onToggle={(looped) => set({ looped }, 'Looped')}
          />
        )}
        <div className="grid grid-cols-2 gap-3">
          <PickOne
            label="Metal (judge the cut end)"
            value={conductor.material ?? 'copper'}
            options={[
              { value: 'copper', label: 'copper' },
              { value: 'aluminium', label: 'aluminium' },
              { value: 'copper-clad', label: 'copper-clad' },
              { value: 'unknown', label: 'not known' },
            ]}
            onChoice={(material) => set({ material: material === 'copper' ? undefined : material }, 'Metal')}
          />
          <PickOne
            label="Insulation"
            value={conductor.insulation ?? 'plastic'}
            options={[
              { value: 'plastic', label: 'plastic' },
              { value: 'rubber', label: 'rubber' },
              { value: 'cloth', label: 'cloth' },
            ]}
            onChoice={(insulation) =>
              set({ insulation: insulation === 'plastic' ? undefined : insulation }, 'Insulation')
            }
          />
          <NumberField
            label="Free length"
            unit="mm"
            max={2000}
            value={conductor.freeLength}
            onNumber={(freeLength) => set({ freeLength }, 'Free length', 'free')}
          />
          <TextField
            label="Marking"
            value={conductor.marking ?? ''}
            maxLength={60}
            onText={(marking) => set({ marking: marking || undefined }, 'Marking', 'marking')}
          />
        </div>
        <Toggle
          label="Isolated ground"
          on={conductor.isolatedGround === true}
          onToggle={(on) => set({ isolatedGround: on || undefined }, 'Isolated ground')}
        />
        {materialStops(conductor).map((code) => (
          <p key={code} className="text-stop">
            Stop: {STOP_WORDS[code].name.toLowerCase()}. {STOP_WORDS[code].says}
          </p>
        ))}
        <Button
          kind="stop"
          icon={Trash2}
          onClick={() => {
            change(withoutConductors(box, new Set([conductor.id])), 'Take a conductor out');
            onClose();
          }}
        >
          Take this conductor out
        </Button>
      </div>
    </Dialog>
  );
}

interface EndProps {
  label: string;
  box: Box;
  conductor: Conductor;
  end: 0 | 1;
  at: At | undefined;
  words: Words;
  change: ChangeBox;
}

function EndPick({ label, box, conductor, end, at, words, change }: EndProps) {
  const { known } = useJob();
  const joint = box.joints.find((entry) => entry.id === at?.joint);
  const options = [
    ...box.joints.map((entry, index) => ({ value: `joint:${entry.id}`, label: `joint ${index + 1}` })),
    { value: 'new-joint', label: 'a new joint' },
    ...box.positions.flatMap((position) =>
      recordableTerminals(position, known.devices).map((terminal) => ({
        value: `terminal:${position.index}.${terminal}`,
        label: UNRECOGNISED.includes(terminal)
          ? `a terminal not recognised, ${terminal.slice(1)}, of ${position.index}`
          : `terminal ${terminal} of ${position.index}`,
        hint: words.existing[position.existing],
      })),
    ),
    { value: 'screw', label: 'the box’s screw' },
    { value: 'capped', label: 'capped alone' },
    ...(conductor.cableId === undefined
      ? []
      : box.cables
          .filter((cable) => cable.id !== conductor.cableId)
          .map((cable) => ({
            value: `through:${cable.id}`,
            label: `unbroken, on into ${cable.label ?? 'another cable'}`,
          }))),
  ];
  const pick = (value: string) => {
    const [kind, name = ''] = [value.split(':')[0], value.slice(value.indexOf(':') + 1)];
    if (kind === 'through') {
      const { at: _, ...rest } = conductor;
      change(
        {
          conductors: box.conductors.map((other) =>
            other.id === conductor.id ? { ...rest, unbroken: true, throughCableId: name } : other,
          ),
        },
        'Passes through',
      );
      return;
    }
    if (value === 'new-joint') {
      const made: Joint = {
        id: newId(),
        connector: box.joints.at(-1)?.connector ?? profileOf(known.job).connectors.usual,
      };
      const moved = withEnd(box, conductor.id, end, { joint: made.id });
      change({ ...moved, joints: [...(moved.joints ?? []), made] }, 'A new joint');
      return;
    }
    change(withEnd(box, conductor.id, end, atOf(kind ?? '', name)), 'Where it ends');
  };
  return (
    <div className="flex flex-col gap-2">
      <PickOne label={label} value={endValue(conductor, at)} options={options} onChoice={pick} />
      {joint && (
        <Segments
          label="Connector of this joint"
          value={joint.connector}
          options={CONNECTORS}
          onChoice={(connector) =>
            change(
              {
                joints: box.joints.map((other) => (other.id === joint.id ? { ...other, connector } : other)),
              },
              'Connector of a joint',
            )
          }
        />
      )}
    </div>
  );
}

function endValue(conductor: Conductor, at: At | undefined): string {
  if (!at) return `through:${conductor.throughCableId ?? ''}`;
  if (at.joint !== undefined) return `joint:${at.joint}`;
  if (at.position !== undefined) return `terminal:${at.position}.${at.terminal}`;
  return at.boxScrew ? 'screw' : 'capped';
}

function atOf(kind: string, name: string): At {
  if (kind === 'joint') return { joint: name };
  if (kind === 'screw') return { boxScrew: true };
  if (kind === 'capped') return { capped: true };
  const dot = name.indexOf('.');
  return { position: Number(name.slice(0, dot)), terminal: name.slice(dot + 1) };
}
