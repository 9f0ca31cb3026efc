import {
  type Box,
  COLOUR_WORDS,
  type Conductor,
  labelsOf,
  type Role,
  type Words,
  wireSizeText,
  withLabel,
} from '@inventario/core';
import { Check, Pencil } from 'lucide-react';
import { useJob } from '../../../data/job-context.js';
import { RoleMark } from '../../../drawings/role-mark.js';
import { Swatch } from '../../../drawings/strand.js';
import { Button } from '../../../ui/button.js';
import { PickSeveral, Segments } from '../../../ui/choice.js';
import { classes } from '../../../ui/classes.js';
import type { ChangeBox } from '../change-box.js';

const ROLES: { role: Role; traveler?: number; key: string }[] = [
  { role: 'line', key: 'L' },
  { role: 'load', key: 'S' },
  { role: 'neutral', key: 'N' },
  { role: 'ground', key: 'G' },
  { role: 'line-on', key: 'O' },
  { role: 'traveler', traveler: 1, key: '1' },
  { role: 'traveler', traveler: 2, key: '2' },
  { role: 'switched-line', key: 'W' },
  { role: 'spare', key: 'X' },
  { role: 'unknown', key: 'U' },
];

interface TrayProps {
  box: Box;
  held: Conductor;
  words: Words;
  change: ChangeBox;
  onLabel: (role: Role, traveler?: number) => void;
  onCorrect: () => void;
  onDone: () => void;
}

/** The conductor in hand, and everything it can be, in reach of the thumb. */
export function ConductorTray({ box, held, words, change, onLabel, onCorrect, onDone }: TrayProps) {
  const label = labelsOf(box).get(held.id);
  const made = held.cableId === undefined;
  return (
    <div className="sticky bottom-13 z-10 -mx-3 mt-2 flex flex-col gap-2 border-t-2 border-ink bg-sheet p-3 lg:bottom-0">
      <div className="flex items-center gap-2">
        <Swatch colour={held.colour} />
        <span className="mr-auto font-semibold">
          {COLOUR_WORDS[held.colour]}, {wireSizeText(held.size)}
          {made && ', made in the box'}
        </span>
        <Button icon={Pencil} onClick={onCorrect}>
          Correct
        </Button>
        <Button icon={Check} iconOnly onClick={onDone}>
          Put it down
        </Button>
      </div>
      {!made && (
        <fieldset className="grid grid-cols-5 gap-1 lg:grid-cols-10">
          <legend className="sr-only">What it is</legend>
          {ROLES.map(({ role, traveler, key }) => {
            const on =
              (label?.role ?? 'unknown') === role && (role !== 'traveler' || label?.traveler === traveler);
            const name = `${words.roles[role]}${traveler ? ` ${traveler}` : ''}`;
            return (
              <button
                key={key}
                type="button"
                aria-pressed={on}
                title={`${name} (${key})`}
                onClick={() => onLabel(role, traveler)}
                className={classes(
                  'flex min-h-15 flex-col items-center justify-center gap-0.5 rounded-md border px-0.5 leading-none',
                  on ? 'border-2 border-ink bg-well' : 'border-rule bg-ground',
                )}
              >
                <RoleMark role={role} traveler={traveler} size={28} />
                <span className="text-xs leading-tight">{name}</span>
              </button>
            );
          })}
        </fieldset>
      )}
      {label && <LabelDetails box={box} held={held} change={change} />}
    </div>
  );
}

/** Which load, which circuit: asked only where there is more than one to choose from. */
function LabelDetails({ box, held, change }: { box: Box; held: Conductor; change: ChangeBox }) {
  const { known } = useJob();
  const label = labelsOf(box).get(held.id);
  if (!label) return null;
  const loads = [...new Set(box.positions.flatMap((position) => position.loadIds))].flatMap(
    (id) => known.loads.get(id) ?? [],
  );
  const circuits = box.circuitIds.flatMap((id) => known.circuits.get(id) ?? []);
  const ofCircuit = label.role === 'line' || label.role === 'line-on' || label.role === 'neutral';
  return (
    <>
      {label.role === 'load' && loads.length > 1 && (
        <PickSeveral
          label="It feeds"
          placeholder="which of the loads?"
          values={label.loadIds ?? []}
          options={loads.map((load) => ({ value: load.id, label: load.name }))}
          onChoice={(loadIds) => change(withLabel(box, { ...label, loadIds }), 'What the conductor feeds')}
        />
      )}
      {ofCircuit && circuits.length > 1 && (
        <Segments
          label="Of breaker"
          value={label.circuitId ?? null}
          options={circuits.map((circuit) => ({ value: circuit.id, label: circuit.breaker }))}
          onChoice={(circuitId) =>
            change(withLabel(box, { ...label, circuitId }), 'Circuit of the conductor')
          }
        />
      )}
    </>
  );
}
