import {
  type Box,
  type Conductor,
  clashText,
  labelClashes,
  labelContext,
  labelFor,
  profileOf,
  type Role,
  withLabel,
  withNewCable,
} from '@inventario/core';
import { Cable, List, Spline, Waypoints } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { newId } from '../../../data/ids.js';
import { useIdentified, useJob } from '../../../data/job-context.js';
import { ConductorFan } from '../../../drawings/conductor-fan.js';
import { fanLayout } from '../../../drawings/fan-layout.js';
import { useShortcuts } from '../../../parts/shortcuts.js';
import { Button } from '../../../ui/button.js';
import { Segments } from '../../../ui/choice.js';
import type { ChangeBox } from '../change-box.js';
import { PresetPicker, sizeFor, wantsConductors } from '../positions/preset-picker.js';
import { Contradictions } from '../reading/contradictions.js';
import type { Bench } from '../reading/reading-state.js';
import { ReadingTray } from '../reading/reading-tray.js';
import { CableDialog } from './cable-dialog.js';
import { ConductorDialog } from './conductor-dialog.js';
import { ConductorTable } from './conductor-table.js';
import { ConductorTray } from './conductor-tray.js';
import { nextUntold } from './next-untold.js';

const sentenceOf = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

/** The conductors: fanned out, touched where they are, labelled one after the other. */
export function ConductorsPanel({
  box,
  change,
  bench,
  onBench,
}: {
  box: Box;
  change: ChangeBox;
  bench: Bench;
  onBench: (bench: Bench) => void;
}) {
  const { job, known } = useJob();
  const words = profileOf(job).words;
  const identified = useIdentified(box.id);
  const said = useMemo(
    () => new Map(identified?.conductors.map((conductor) => [conductor.id, conductor])),
    [identified],
  );
  const clashes = useMemo(() => labelClashes(box, job), [box, job]);
  const clashing = useMemo(() => new Set(clashes.flatMap((clash) => clash.conductorIds)), [clashes]);
  const heldId = bench.held;
  const setHeld = (held: string | null) => onBench({ ...bench, held });
  const reading = bench.mode === 'read';
  const probes = reading ? (identified?.next[0]?.points ?? []) : [];
  const [correcting, setCorrecting] = useState(false);
  const [cableId, setCable] = useState<string | null>(null);
  const [asTable, setAsTable] = useState(false);
  const columns = fanLayout(box).columns;
  const held = box.conductors.find((conductor) => conductor.id === heldId);

  // The conductor in hand stays in sight above its tray.
  useEffect(() => {
    if (heldId)
      document
        .querySelector(`[data-conductor="${heldId}"]`)
        ?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [heldId]);

  const label = (role: Role, traveler?: number) => {
    if (!held || held.cableId === undefined || reading) return;
    const context = labelContext(box, held.id, known);
    const made = labelFor(held.id, role, {
      ...context,
      ...(context.groupId ? { groupId: context.groupId } : {}),
      ...(traveler ? { traveler } : {}),
    });
    change(withLabel(box, made), `${words.roles[role]} for the ${held.colour} conductor`);
    setHeld(
      nextUntold(
        columns.map((column) => column.conductor),
        box,
        held.id,
      ) ?? held.id,
    );
  };
  const step = (by: 1 | -1) => {
    const at = columns.findIndex((column) => column.conductor.id === heldId);
    const next = columns[at < 0 ? 0 : (at + by + columns.length) % columns.length];
    if (!next) return;
    setHeld(next.conductor.id);
    document.querySelector<HTMLElement>(`[data-conductor="${next.conductor.id}"]`)?.focus();
  };
  useShortcuts({
    l: () => label('line'),
    s: () => label('load'),
    n: () => label('neutral'),
    g: () => label('ground'),
    o: () => label('line-on'),
    w: () => label('switched-line'),
    '1': () => label('traveler', 1),
    '2': () => label('traveler', 2),
    x: () => label('spare'),
    u: () => label('unknown'),
    e: () => held && setCorrecting(true),
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
  });

  const addCable = () => {
    const { first, ...lists } = withNewCable(box, job, sizeFor(box, known), newId);
    change(lists, 'Add a cable');
    setHeld(first.id);
  };
  const addTail = () => {
    const tail: Conductor = {
      id: newId(),
      size: sizeFor(box, known),
      colour: 'black',
      ends: [{ capped: true }, { capped: true }],
    };
    change({ conductors: [...box.conductors, tail] }, 'Add a tail');
    setHeld(tail.id);
    setCorrecting(true);
  };

  return (
    <section aria-label="Conductors" className="rounded-lg border border-rule bg-sheet p-3">
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <h2 className="font-bold">Conductors</h2>
        <div className="mr-auto">
          <Segments
            label="What to do with a conductor"
            hideLabel
            value={bench.mode}
            options={[
              { value: 'label', label: 'say what it is' },
              { value: 'read', label: 'read it' },
            ]}
            onChoice={(mode) => onBench({ ...bench, mode })}
          />
        </div>
        <Button icon={Cable} onClick={addCable}>
          Cable
        </Button>
        <Button icon={Spline} onClick={addTail}>
          Tail
        </Button>
        {box.conductors.length > 0 && (
          <Button icon={asTable ? Waypoints : List} onClick={() => setAsTable(!asTable)}>
            {asTable ? 'Drawing' : 'Table'}
          </Button>
        )}
      </div>
      {box.conductors.length === 0 && box.cables.length === 0 && (
        <PresetPicker
          box={box}
          onTaken={(contents) => {
            change(contents, 'From a usual box');
            setHeld(contents.conductors[0]?.id ?? null);
          }}
        />
      )}
      {clashes.map((clash) => (
        <div
          key={`${clash.code}${clash.conductorIds.join()}`}
          role="alert"
          className="mb-2 flex flex-wrap items-center gap-2 rounded-md border-2 border-stop p-3"
        >
          <p className="min-w-56 flex-1">
            <strong className="text-stop">Settle these labels.</strong>{' '}
            {sentenceOf(clashText(clash, box, job))} Nothing is said to fit until then.
          </p>
          <Button
            onClick={() => onBench({ ...bench, mode: 'label', held: clash.conductorIds.at(-1) ?? null })}
          >
            Show the last one
          </Button>
        </div>
      ))}
      {(box.conductors.length > 0 || box.cables.length > 0) &&
        (asTable ? (
          <ConductorTable box={box} words={words} held={heldId} onHold={setHeld} />
        ) : (
          <ConductorFan
            box={box}
            words={words}
            held={heldId}
            said={said}
            clashing={clashing}
            probes={probes}
            onHold={(id) => setHeld(id === heldId ? null : id)}
            onCable={setCable}
          />
        ))}
      {identified && (
        // On a phone the reckoning is behind a key, and a contradiction must not be.
        <div className="mt-2 flex flex-col gap-2 lg:hidden">
          <Contradictions conflicts={identified.conflicts.filter((conflict) => conflict.open)} />
        </div>
      )}
      {reading && box.conductors.length > 0 && (
        <ReadingTray box={box} bench={bench} roleOf={(id) => said.get(id)?.role} onBench={onBench} />
      )}
      {held && !reading && (
        <ConductorTray
          box={box}
          held={held}
          words={words}
          change={change}
          onLabel={label}
          onCorrect={() => setCorrecting(true)}
          onDone={() => setHeld(null)}
        />
      )}
      {!held && !reading && box.conductors.length > 0 && (
        <p className="text-sm text-soft">
          Touch a conductor to say what it is. Labels are your word: measure before you trust a colour.
        </p>
      )}
      {box.conductors.length > 0 && box.positions.some((position) => wantsConductors(box, position)) && (
        <div className="mt-3 border-t border-rule pt-3">
          <PresetPicker box={box} onTaken={(contents) => change(contents, 'From a usual box')} />
        </div>
      )}
      {held && correcting && (
        <ConductorDialog
          box={box}
          conductor={held}
          words={words}
          change={change}
          onClose={() => setCorrecting(false)}
        />
      )}
      {cableId && <CableDialog box={box} cableId={cableId} change={change} onClose={() => setCable(null)} />}
    </section>
  );
}
