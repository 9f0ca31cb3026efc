import {
  conductorsById,
  conductorWords,
  type Label,
  labelContext,
  labelFor,
  labelsOf,
  type Mark,
  type NextStep,
  nextDarkCore,
  profileOf,
  type Role,
  withLabel,
  withMarks,
} from '@inventario/core';
import { Pencil } from 'lucide-react';
import { felt } from '../../../data/felt.js';
import { useJob } from '../../../data/job-context.js';
import { RoleMark } from '../../../drawings/role-mark.js';
import { Button } from '../../../ui/button.js';
import { PickSeveral, Segments } from '../../../ui/choice.js';
import { classes } from '../../../ui/classes.js';
import { type Hand, useHand } from '../hand/use-hand.js';

export const ROLE_KEYS: { role: Role; traveler?: number; key: string }[] = [
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

/** Labels one conductor; the next dark core comes into the hand, and after the last the sets are offered. */
export function labelOne(hand: Hand, conductorId: string, role: Role, traveler?: number): void {
  const { box, known, change, onBench } = hand;
  const conductor = conductorsById(box).get(conductorId);
  if (!conductor || conductor.cableId === undefined) return;
  const context = labelContext(box, conductorId, known);
  const made = labelFor(conductorId, role, {
    loadIds: context.loadIds,
    circuitIds: context.circuitIds,
    ...(context.groupId ? { groupId: context.groupId } : {}),
    ...(traveler ? { traveler } : {}),
  });
  felt();
  const changed = withLabel(box, made);
  change(
    changed,
    `${profileOf(known.job).words.roles[role]} for ${conductorWords(box, conductorId, known.job)}`,
  );
  const next =
    role === 'unknown' ? conductorId : nextDarkCore({ ...box, ...changed }, known.job, conductorId);
  onBench({ held: next ?? null });
}

/** Everything a conductor can be, in reach of the thumb. */
export function LabelKeys({ conductorId }: { conductorId: string }) {
  const hand = useHand();
  const { box, known, onBench } = hand;
  const { roles } = profileOf(known.job).words;
  const label = labelsOf(box).get(conductorId);
  const made = conductorsById(box).get(conductorId)?.cableId === undefined;
  return (
    <>
      {!made && (
        <fieldset className="grid grid-cols-5 gap-1 lg:grid-cols-10">
          <legend className="sr-only">What it is</legend>
          {ROLE_KEYS.map(({ role, traveler, key }) => {
            const on =
              (label?.role ?? 'unknown') === role && (role !== 'traveler' || label?.traveler === traveler);
            const name = `${roles[role]}${traveler ? ` ${traveler}` : ''}`;
            return (
              <button
                key={key}
                type="button"
                aria-pressed={on}
                title={`${name} (${key})`}
                onClick={() => labelOne(hand, conductorId, role, traveler)}
                className={classes(
                  'flex min-h-15 flex-col items-center justify-center gap-0.5 rounded-md border px-0.5 leading-none',
                  on ? 'border-3 border-ink bg-well' : 'border-edge bg-sheet',
                )}
              >
                <RoleMark role={role} traveler={traveler} size={30} />
                <span className="text-sm leading-tight">{name}</span>
              </button>
            );
          })}
        </fieldset>
      )}
      <div className="flex flex-wrap items-end gap-2">
        {label && <LabelDetails label={label} />}
        <Button icon={Pencil} onClick={() => onBench({ held: conductorId, editing: true })}>
          Edit the conductor
        </Button>
      </div>
    </>
  );
}

/** Which load, which circuit: asked only where there is more than one to choose from. */
function LabelDetails({ label }: { label: Label }) {
  const { box, change } = useHand();
  const { known } = useJob();
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

type StepOf<Kind extends NextStep['kind']> = { step: Extract<NextStep, { kind: Kind }> };

export function MarksKeys({ step: { marks } }: StepOf<'marks'>) {
  const { box, known, change, skip } = useHand();
  const { roles } = profileOf(known.job).words;
  const counts = new Map<Mark['role'], number>();
  for (const { role } of marks) counts.set(role, (counts.get(role) ?? 0) + 1);
  return (
    <>
      <p className="text-sm">{[...counts].map(([role, count]) => `${count} ${roles[role]}`).join(', ')}</p>
      <div className="flex gap-1.5">
        <Button
          kind="main"
          className="min-h-14 flex-1 text-lg"
          onClick={() => {
            felt();
            change(withMarks(box, marks, known), `Accept ${marks.length} marks by eye`);
          }}
        >
          Accept these marks
        </Button>
        <Button onClick={skip}>One by one</Button>
      </div>
    </>
  );
}

/** Whites, or grounds: one touch for all of them, or each by itself. */
export function SetKeys({ step: { role, conductorIds } }: StepOf<'set'>) {
  const { box, known, change, onBench } = useHand();
  const { roles } = profileOf(known.job).words;
  const marks = conductorIds.map((conductorId): Mark => ({ conductorId, role }));
  return (
    <div className="flex gap-1.5">
      <Button
        kind="main"
        className="min-h-14 flex-1 text-lg"
        onClick={() => {
          felt();
          change(withMarks(box, marks, known), `${conductorIds.length} as ${roles[role]}, by eye`);
        }}
      >
        All {conductorIds.length} are {roles[role]}
      </Button>
      <Button onClick={() => onBench({ held: conductorIds[0] ?? null })}>One by one</Button>
    </div>
  );
}
