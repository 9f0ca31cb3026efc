import {
  type Box,
  cableWords,
  conductorsById,
  conductorTitle,
  conductorWords,
  type EndTarget,
  type Job,
  movedEnd,
  recordableTerminals,
  splitJoint,
  UNRECOGNISED,
} from '@inventario/core';
import { useState } from 'react';
import { felt } from '../../../data/felt.js';
import { newId } from '../../../data/ids.js';
import type { PickedEnd } from '../../../drawings/moving-ends.js';
import { Button } from '../../../ui/button.js';
import { Segments } from '../../../ui/choice.js';
import { PickKeys } from '../../../ui/pick-keys.js';
import type { BenchState } from '../hand/bench-state.js';
import { type Hand, useHand } from '../hand/use-hand.js';

/** What is being moved, or what to touch. */
export function endTitle(box: Box, { end, joint }: BenchState, job: Job): string {
  if (end) return `Where does it go? ${conductorTitle(box, end.conductorId, job)}`;
  if (joint) return `Joint ${box.joints.findIndex(({ id }) => id === joint) + 1}`;
  return 'Drag an end, or touch it and then its place; touch a joint to split it';
}

/** Puts an end where it was seen to be. */
export function moveEnd({ box, known, change, onBench }: Hand, picked: PickedEnd, target: EndTarget): void {
  felt();
  change(movedEnd(box, picked, target, { job: known.job, newId }), 'Where an end is');
  onBench({ end: null });
}

/** Every place an end can go to, for those who do not aim; or what can be done to a joint. */
export function EndKeys() {
  const { bench } = useHand();
  if (bench.end) return <Targets picked={bench.end} />;
  if (bench.joint) return <JointKeys jointId={bench.joint} />;
  return null;
}

function Targets({ picked }: { picked: PickedEnd }) {
  const hand = useHand();
  const { box, known, change, onBench } = hand;
  const conductor = conductorsById(box).get(picked.conductorId);
  const to = (key: string, label: string, target: EndTarget, hint?: string) => ({
    key,
    label,
    hint,
    onPick: () => moveEnd(hand, picked, target),
  });
  const several = box.positions.length > 1;
  const terminals = box.positions.flatMap((position) => {
    return recordableTerminals(position, known.devices).map((terminal) =>
      to(
        `${position.index}.${terminal}`,
        UNRECOGNISED.includes(terminal) ? `not known ${terminal.slice(1)}` : terminal,
        { position: position.index, terminal },
        several ? `position ${position.index}` : 'terminal',
      ),
    );
  });
  const through = (cableId: string) => {
    if (!conductor) return;
    const { at: _, ...rest } = conductor;
    change(
      {
        conductors: box.conductors.map((other) =>
          other.id === conductor.id ? { ...rest, unbroken: true, throughCableId: cableId } : other,
        ),
      },
      'Passes through',
    );
    onBench({ end: null });
  };
  return (
    <PickKeys
      label="Places for the end"
      keys={[
        to('cap', 'Cap', { capped: true }, 'alone'),
        ...box.joints.map(({ id, connector }, at) => to(id, `Joint ${at + 1}`, { joint: id }, connector)),
        ...terminals,
        to('screw', 'Box', { boxScrew: true }, 'its screw'),
        ...box.cables
          .filter(({ id }) => conductor?.cableId !== undefined && id !== conductor.cableId)
          .map(({ id }) => ({
            key: `through${id}`,
            label: 'Unbroken',
            hint: `on into ${cableWords(box, id, known.job)}`,
            onPick: () => through(id),
          })),
        { key: 'back', label: 'Leave it', onPick: () => onBench({ end: null }) },
      ]}
    />
  );
}

const CONNECTORS = [
  { value: 'twist-on', label: 'twist-on' },
  { value: 'lever', label: 'lever' },
  { value: 'terminal-block', label: 'terminal block' },
  { value: 'crimp', label: 'crimp' },
  { value: 'other', label: 'other' },
  { value: 'unknown', label: 'not recognised' },
] as const;

/** The connector of a joint, and which of its members go into one of their own. */
function JointKeys({ jointId }: { jointId: string }) {
  const { box, known, change, onBench } = useHand();
  const [apart, setApart] = useState<ReadonlySet<string>>(new Set());
  const joint = box.joints.find(({ id }) => id === jointId);
  const members = box.conductors.filter(
    ({ at, ends }) => at?.joint === jointId || ends?.some((end) => end.joint === jointId),
  );
  if (!joint) return null;
  const split = () => {
    felt();
    change(splitJoint(box, jointId, apart, { job: known.job, newId }), 'Split a joint');
    onBench({ joint: null });
  };
  return (
    <>
      <Segments
        label="Connector of this joint"
        value={joint.connector}
        options={CONNECTORS}
        onChoice={(connector) =>
          change(
            { joints: box.joints.map((other) => (other.id === joint.id ? { ...other, connector } : other)) },
            'Connector of a joint',
          )
        }
      />
      <fieldset className="flex flex-wrap gap-x-4">
        <legend className="text-sm font-semibold text-soft">Split off into a joint of their own</legend>
        {members.map(({ id }) => (
          <label key={id} className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              className="size-6 accent-ink"
              checked={apart.has(id)}
              onChange={() =>
                setApart(new Set(apart.has(id) ? [...apart].filter((one) => one !== id) : [...apart, id]))
              }
            />
            {conductorWords(box, id, known.job)}
          </label>
        ))}
      </fieldset>
      <div className="flex gap-2">
        <Button
          kind="main"
          className="flex-1"
          disabled={apart.size === 0 || apart.size === members.length}
          onClick={split}
        >
          Split the joint
        </Button>
        <Button onClick={() => onBench({ joint: null })}>Leave it</Button>
      </div>
    </>
  );
}
