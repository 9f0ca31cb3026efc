import {
  type Conductor,
  capital,
  clashText,
  conductorsInOrder,
  labelClashes,
  profileOf,
  seemingRoles,
  withNewCable,
} from '@inventario/core';
import { Cable, List, MoreHorizontal, Spline, Waypoints } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { newId } from '../../../data/ids.js';
import { useJob } from '../../../data/job-context.js';
import { ConductorFan } from '../../../drawings/conductor-fan.js';
import { MarkLegend } from '../../../drawings/role-mark.js';
import { useShortcuts } from '../../../parts/shortcuts.js';
import { Button } from '../../../ui/button.js';
import { Segments } from '../../../ui/choice.js';
import { Menu } from '../../../ui/menu.js';
import { moveEnd } from '../bar/end-keys.js';
import { labelOne, ROLE_KEYS } from '../bar/label-keys.js';
import { sweptReadings } from '../hand/bench-state.js';
import { keepMode } from '../hand/kept-mode.js';
import { type Hand, useHand } from '../hand/use-hand.js';
import { CableDialog } from './cable-dialog.js';
import { ConductorDialog } from './conductor-dialog.js';
import { ConductorTable } from './conductor-table.js';
import { PresetPicker, sizeFor, wantsConductors } from './preset-picker.js';

/** The conductors: fanned out, touched where they are; the middle of the work. */
export function Board() {
  const hand = useHand();
  const { box, bench, onBench, change } = hand;
  const { job } = useJob();
  const [cableId, setCable] = useState<string | null>(null);
  const held = box.conductors.find(({ id }) => id === bench.held);
  const clashes = useMemo(() => labelClashes(box, job), [box, job]);
  const isEmpty = box.conductors.length === 0 && box.cables.length === 0;
  const clashSays = (clash: (typeof clashes)[number]) =>
    `${capital(clashText(clash, box, job))}. Nothing is said to fit until then.`;
  useBoardKeys(hand);
  return (
    <section
      aria-label="Conductors"
      id="conductors"
      tabIndex={-1}
      className="flex flex-col gap-2 outline-none"
    >
      {!isEmpty && <BoardHead />}
      {clashes.map((clash) => (
        <p
          key={`${clash.code}${clash.conductorIds.join()}`}
          role="alert"
          className="rounded-md border-2 border-stop p-2"
        >
          <strong className="text-stop">Settle these labels.</strong> {clashSays(clash)}
        </p>
      ))}
      {isEmpty ? <Presets /> : <Drawn onCable={setCable} />}
      {!isEmpty && box.positions.some((position) => wantsConductors(box, position)) && <Presets />}
      {held && bench.editing && (
        <ConductorDialog
          box={box}
          conductor={held}
          change={change}
          onMove={(end) =>
            onBench({ editing: false, held: null, mode: 'ends', end: { conductorId: held.id, end } })
          }
          onClose={() => onBench({ editing: false })}
        />
      )}
      {cableId && <CableDialog box={box} cableId={cableId} change={change} onClose={() => setCable(null)} />}
    </section>
  );
}

function Presets() {
  const { box, change } = useHand();
  return <PresetPicker box={box} onTaken={(contents) => change(contents, 'From a usual box')} />;
}

/** What a touch does, and what can be added. */
function BoardHead() {
  const { box, known, bench, onBench, change } = useHand();
  const addCable = () => {
    const { first, ...lists } = withNewCable(box, known.job, sizeFor(box, known), newId);
    change(lists, 'Add a cable');
    onBench({ held: first.id });
  };
  const addPigtail = () => {
    const pigtail: Conductor = {
      id: newId(),
      size: sizeFor(box, known),
      colour: 'black',
      ends: [{ capped: true }, { capped: true }],
    };
    change({ conductors: [...box.conductors, pigtail] }, 'Add a pigtail');
    onBench({ held: pigtail.id, editing: true });
  };
  return (
    <div className="flex items-center gap-2">
      <div className="min-w-0 flex-1">
        <Segments
          label="What a touch does"
          hideLabel
          value={bench.mode}
          options={[
            { value: 'test', label: 'Test' },
            { value: 'label', label: 'Label' },
            { value: 'ends', label: 'Move ends' },
          ]}
          onChoice={(mode) => {
            keepMode(mode);
            onBench({ mode, end: null, joint: null, ...(mode === 'ends' ? { held: null } : {}) });
          }}
        />
      </div>
      <Button
        icon={bench.asTable ? Waypoints : List}
        iconOnly
        title={bench.asTable ? 'Drawing' : 'Table'}
        onClick={() => onBench({ asTable: !bench.asTable })}
      >
        {bench.asTable ? 'Drawing' : 'Table'}
      </Button>
      <Menu
        name="Add to the box"
        icon={MoreHorizontal}
        entries={[
          { label: 'Cable', icon: Cable, onPick: addCable },
          { label: 'Pigtail or jumper', icon: Spline, onPick: addPigtail },
        ]}
      />
    </div>
  );
}

/** The drawing, or the table of the same. */
function Drawn({ onCable }: { onCable: (cableId: string) => void }) {
  const hand = useHand();
  const { box, known, bench, step, onBench } = hand;
  const { words } = profileOf(known.job);
  const said = useMemo(() => seemingRoles(box, hand.said), [box, hand.said]);
  const clashing = useMemo(
    () => new Set(labelClashes(box, known.job).flatMap(({ conductorIds }) => conductorIds)),
    [box, known.job],
  );
  const inHand = step?.kind === 'sweep' && bench.mode === 'test' && !bench.held ? (bench.alerted ?? []) : [];
  const held = bench.held
    ? [bench.held]
    : step?.kind === 'label' && bench.mode === 'label'
      ? [step.conductorId]
      : inHand;
  const touch = useTouch(hand);
  if (bench.asTable)
    return <ConductorTable box={box} words={words} said={said} held={bench.held} onHold={touch} />;
  return (
    <>
      <ConductorFan
        box={box}
        words={words}
        held={held}
        said={said}
        clashing={clashing}
        probes={probesOf(hand)}
        onHold={touch}
        onCable={onCable}
        moving={
          bench.mode === 'ends'
            ? {
                picked: bench.end,
                onPick: (end) => onBench({ end, joint: null }),
                onJoint: (joint) => onBench({ joint, end: null }),
                onMove: (picked, target) => moveEnd(hand, picked, target),
              }
            : undefined
        }
      />
      <MarkLegend byEye={box.labels.some(({ byEye }) => byEye)} />
    </>
  );
}

function probesOf({ step, bench }: Hand): readonly string[] {
  if (bench.mode !== 'test' || bench.held) return [];
  if (step?.kind === 'read') return step.test.points;
  return step?.kind === 'breaker' ? step.clips : [];
}

/** What a touch of a conductor does: it alerted, where that is asked; else it comes into the hand. */
function useTouch({ bench, step, onBench, record, isCurrent }: Hand) {
  return (id: string) => {
    if (step?.kind !== 'sweep' || bench.mode !== 'test' || bench.held || !step.points.includes(id)) {
      onBench({ held: bench.held === id ? null : id });
      return;
    }
    if (!isCurrent) return;
    if (bench.alerted !== null) {
      const alerted = bench.alerted.includes(id)
        ? bench.alerted.filter((one) => one !== id)
        : [...bench.alerted, id];
      onBench({ alerted });
      return;
    }
    record(...sweptReadings(step.points, [id]));
  };
}

/** One key a role for the conductor in hand; arrows from one to the next. */
function useBoardKeys(hand: Hand): void {
  const { box, bench, step, onBench } = hand;
  const inHand = bench.held ?? (step?.kind === 'label' ? step.conductorId : null);
  const label = (key: string) => {
    const role = ROLE_KEYS.find((entry) => entry.key === key);
    if (role && inHand && bench.mode === 'label') labelOne(hand, inHand, role.role, role.traveler);
  };
  const go = (by: 1 | -1) => {
    const order = conductorsInOrder(box);
    const at = order.findIndex(({ id }) => id === inHand);
    const next = order[at < 0 ? 0 : (at + by + order.length) % order.length];
    if (!next) return;
    onBench({ held: next.id });
    document.querySelector<HTMLElement>(`[data-conductor="${next.id}"]`)?.focus();
  };
  useShortcuts({
    ...Object.fromEntries(ROLE_KEYS.map(({ key }) => [key.toLowerCase(), () => label(key)])),
    e: () => inHand && onBench({ held: inHand, editing: true }),
    Escape: () => onBench({ held: null, end: null, joint: null }),
    ArrowRight: () => go(1),
    ArrowLeft: () => go(-1),
  });
  // The conductor in hand stays in sight.
  useEffect(() => {
    const next = document.querySelector<HTMLElement>(`[data-conductor="${inHand}"]`);
    if (!inHand || !next) return;
    next.scrollIntoView({ block: 'nearest', inline: 'nearest' });
    // Where the keyboard was on one conductor it goes on with the next.
    if (document.activeElement?.matches('[data-conductor]')) next.focus({ preventScroll: true });
  }, [inHand]);
}
