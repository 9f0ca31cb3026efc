import {
  type Box,
  COLOUR_WORDS,
  type Colour,
  type Conductor,
  capital,
  materialStops,
  profileOf,
  STOP_WORDS,
  WIRE_SIZES,
  wireSizeText,
  withConductor,
  withoutConductors,
} from '@inventario/core';
import { Move, Trash2 } from 'lucide-react';
import { useJob } from '../../../data/job-context.js';
import { endWords } from '../../../drawings/conductor-words.js';
import { fanLayout } from '../../../drawings/fan-layout.js';
import { Swatch } from '../../../drawings/strand.js';
import { Button } from '../../../ui/button.js';
import { PickOne } from '../../../ui/choice.js';
import { Dialog } from '../../../ui/dialog.js';
import { NumberField, TextField } from '../../../ui/field.js';
import { Toggle } from '../../../ui/toggle.js';
import type { ChangeBox } from '../change-box.js';

const COLOURS = (Object.keys(COLOUR_WORDS) as Colour[]).map((value) => ({
  value,
  label: COLOUR_WORDS[value],
  picture: <Swatch colour={value} />,
}));

/**
 * Corrects what a preset filled in: colour, size, what it is made of. Every choice is recorded at once; its
 * ends are moved in the drawing.
 */
export function ConductorDialog({
  box,
  conductor,
  change,
  onMove,
  onClose,
}: {
  box: Box;
  conductor: Conductor;
  change: ChangeBox;
  /** One of its ends is to be put somewhere else. */
  onMove: (end: 0 | 1) => void;
  onClose: () => void;
}) {
  const { job } = useJob();
  const set = (more: Partial<Conductor>, label: string, mergeKey?: string) =>
    change(withConductor(box, conductor.id, more), label, mergeKey);
  const { named } = profileOf(job).sizes;
  const sizes = [...WIRE_SIZES].sort((a, b) => Number(b.endsWith(named)) - Number(a.endsWith(named)));
  return (
    <Dialog title="Edit the conductor" open onClose={onClose}>
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
        <Ends box={box} conductor={conductor} onMove={onMove} />
        {conductor.unbroken && (
          <Toggle
            label="in a loop long enough to cut"
            on={conductor.looped === true}
            onToggle={(looped) => set({ looped }, 'Looped')}
          />
        )}
        <Make conductor={conductor} set={set} />
        {materialStops(conductor).map((code) => (
          <p key={code} className="text-stop">
            Stop: {STOP_WORDS[code].name.toLowerCase()}. {STOP_WORDS[code].says}
          </p>
        ))}
        <Button
          kind="stop"
          icon={Trash2}
          onClick={() => {
            change(withoutConductors(box, new Set([conductor.id])), 'Delete a conductor');
            onClose();
          }}
        >
          Delete this conductor
        </Button>
      </div>
    </Dialog>
  );
}

/** Where its ends are, and the way to put them elsewhere. */
function Ends({ box, conductor, onMove }: { box: Box; conductor: Conductor; onMove: (end: 0 | 1) => void }) {
  const { known } = useJob();
  const layout = fanLayout(box, known.devices);
  const column = layout.columns.find((entry) => entry.conductor.id === conductor.id);
  const ends = column ? endWords(column, layout) : [];
  return (
    <ul className="flex flex-col gap-1">
      {(['first', 'second'] as const).slice(0, Math.max(1, ends.length)).map((which, end) => (
        <li key={which} className="flex items-center gap-2">
          <span className="min-w-0 flex-1">{capital(ends[end] ?? 'passes through')}</span>
          <Button icon={Move} onClick={() => onMove(end as 0 | 1)}>
            {ends.length > 1 ? `Move its ${which} end` : 'Move its end'}
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** What it is made of, and what somebody marked on it. */
function Make({
  conductor,
  set,
}: {
  conductor: Conductor;
  set: (more: Partial<Conductor>, label: string, mergeKey?: string) => void;
}) {
  return (
    <>
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
        label="Stranded"
        on={conductor.stranded === true}
        onToggle={(on) => set({ stranded: on || undefined }, on ? 'Stranded' : 'Solid')}
      />
      <Toggle
        label="Isolated ground"
        on={conductor.isolatedGround === true}
        onToggle={(on) => set({ isolatedGround: on || undefined }, 'Isolated ground')}
      />
    </>
  );
}
