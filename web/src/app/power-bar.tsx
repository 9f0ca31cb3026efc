import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { type Circuit, type CircuitPower, circuitPower, type JobEvent, proofOf, putPart } from '@inventario/core';
import { useMemo } from 'react';
import { instant, newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { Button } from '../ui/button.js';
import { classes } from '../ui/classes.js';
import { timeOf } from './times.js';

/** Every circuit and its state, always in sight. Those that feed the box in hand come first. */
export function PowerBar({ boxId }: { boxId: string | undefined }) {
  const { job, known } = useJob();
  const feeding = new Set(boxId ? known.boxes.get(boxId)?.circuitIds : []);
  const states = useMemo(() => new Map(circuitPower(job).map((state) => [state.circuitId, state])), [job]);
  const box = boxId ? known.boxes.get(boxId) : undefined;
  const proof = useMemo(() => (box ? proofOf(box, job) : null), [box, job]);
  const dead = proof?.stage === 'device-out' && proof.since ? proof.since : null;
  const circuits = [...job.circuits].sort((a, b) => Number(feeding.has(b.id)) - Number(feeding.has(a.id)));
  if (circuits.length === 0) return <p className="px-3 py-1 text-sm text-soft">No circuits recorded yet: add the breakers under House.</p>;
  return (
    <section aria-label="Power" className="flex items-center gap-1.5 overflow-x-auto px-3 py-1">
      {circuits.map((circuit) => (
        <CircuitState
          key={circuit.id}
          circuit={circuit}
          power={states.get(circuit.id) as CircuitPower}
          feeding={feeding.has(circuit.id)}
          dead={feeding.has(circuit.id) ? dead : null}
        />
      ))}
    </section>
  );
}

/** @param dead since when the box in hand is proved dead with its device out */
function CircuitState({ circuit, power, feeding, dead }: { circuit: Circuit; power: CircuitPower; feeding: boolean; dead: string | null }) {
  const { job, apply } = useJob();
  const record = (event: Partial<JobEvent>, label: string) => {
    const id = newId();
    apply([putPart('event', id, { id, at: instant(), ...event })], label);
  };
  const last = job.events.findLast(
    (event) => event.kind === 'switched' && event.circuitId === circuit.id && event.at === power.since && event.state === power.state,
  );
  return (
    <Popover className="relative shrink-0">
      <PopoverButton
        className={classes(
          'flex min-h-11 items-center gap-2 rounded-md border-2 px-2.5 text-left leading-tight',
          power.state === 'on'
            ? 'border-live text-live'
            : power.state === 'off'
              ? 'border-off text-off'
              : 'border-dashed border-rule text-ink',
          feeding && 'bg-sheet font-semibold',
        )}
      >
        <PowerShape state={power.state} />
        <span className="whitespace-nowrap">
          {circuit.breaker} {power.state}
          {feeding && <span className="block text-xs font-normal">{dead ? `proved dead ${timeOf(dead)}` : 'feeds this box'}</span>}
        </span>
        <span className="sr-only">
          : breaker {circuit.breaker}, {circuit.label}
        </span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        className="z-30 w-72 rounded-lg border border-rule bg-ground p-3 shadow-xl"
      >
        {({ close }) => (
          <div className="flex flex-col gap-2">
            <p className="font-bold">
              Breaker {circuit.breaker}, {circuit.label}
            </p>
            <p className="text-sm text-soft">
              {circuit.panel} panel, {circuit.amps} A, {circuit.volts} V{circuit.leg ? `, leg ${circuit.leg}` : ''}.{' '}
              {power.since ? `Recorded ${power.state} ${timeOf(power.since)}.` : 'Never recorded.'}
            </p>
            <div className="flex gap-2">
              <Button
                kind={power.state === 'off' ? 'main' : 'plain'}
                className="flex-1"
                onClick={() => {
                  record({ kind: 'switched', circuitId: circuit.id, state: 'on' }, `Breaker ${circuit.breaker} switched on`);
                  close();
                }}
              >
                Switched on
              </Button>
              <Button
                kind={power.state === 'off' ? 'plain' : 'main'}
                className="flex-1"
                onClick={() => {
                  record({ kind: 'switched', circuitId: circuit.id, state: 'off' }, `Breaker ${circuit.breaker} switched off`);
                  close();
                }}
              >
                Switched off
              </Button>
            </div>
            {last?.id && (
              <Button
                kind="quiet"
                onClick={() => {
                  record(
                    { kind: 'correction', of: last.id as string, circuitId: circuit.id },
                    `Correct the record of breaker ${circuit.breaker}`,
                  );
                  close();
                }}
              >
                That was wrong: strike the last entry
              </Button>
            )}
            <p className="text-sm text-soft">
              Off on this record is not dead: isolate, lock, and prove dead at the box before touching anything.
            </p>
          </div>
        )}
      </PopoverPanel>
    </Popover>
  );
}

/** On is a filled disc with a bolt, off a ring with a bar, unknown a dashed ring: told by shape before colour. */
export function PowerShape({ state }: { state: CircuitPower['state'] }) {
  return (
    <svg aria-hidden="true" viewBox="0 0 20 20" className="size-5 shrink-0">
      {state === 'on' && (
        <>
          <circle cx="10" cy="10" r="9" fill="currentColor" />
          <path d="M11.5 3.5L6 11h3.5l-1 5.5L14 9h-3.5z" fill="var(--sheet)" />
        </>
      )}
      {state === 'off' && <path d="M10 2a8 8 0 1 1-.01 0zM5 10h10" fill="none" stroke="currentColor" strokeWidth="2.4" />}
      {state === 'unknown' && <circle cx="10" cy="10" r="8" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3 3" />}
    </svg>
  );
}
