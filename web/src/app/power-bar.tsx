import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { type Circuit, type CircuitPower, type JobEvent, lastSwitching, putPart } from '@inventario/core';
import { OctagonX } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { instant, newId } from '../data/ids.js';
import { useJob } from '../data/job-context.js';
import { useBoxPower, useJobPower } from '../data/power.js';
import { paths } from '../parts/paths.js';
import { PowerShape } from '../parts/power-shape.js';
import { timeOf } from '../parts/times.js';
import { Button } from '../ui/button.js';
import { classes } from '../ui/classes.js';

/**
 * Every circuit and its state, always in sight: what stops the work, what feeds the box in hand, what else is
 * on; the rest is one touch away.
 */
export function PowerBar({ boxId }: { boxId: string | undefined }) {
  const { job } = useJob();
  const power = useBoxPower(boxId);
  const { circuits: states } = useJobPower();
  const feeding = new Set(power?.circle);
  const dead = power?.dead === 'device-out' ? power.since : null;
  const stateOf = (id: string) => states.find(({ circuitId }) => circuitId === id) as CircuitPower;
  const own = job.circuits.filter(({ id }) => feeding.has(id));
  const on = job.circuits.filter(({ id }) => !feeding.has(id) && stateOf(id).state === 'on');
  const rest = job.circuits.filter((circuit) => !own.includes(circuit) && !on.includes(circuit));
  const [all, setAll] = useState(false);
  if (job.circuits.length === 0)
    return (
      <p className="px-3 py-1 text-sm text-soft">No circuits recorded yet: add the breakers under House.</p>
    );
  return (
    <section aria-label="Power" className="flex items-center gap-1.5 overflow-x-auto px-3 py-1">
      <StopChip boxId={boxId} />
      {[...own, ...on, ...(all ? rest : [])].map((circuit) => (
        <CircuitState
          key={circuit.id}
          circuit={circuit}
          power={stateOf(circuit.id)}
          feeding={feeding.has(circuit.id)}
          dead={feeding.has(circuit.id) ? dead : null}
        />
      ))}
      {rest.length > 0 && (
        <Button
          kind="quiet"
          aria-expanded={all}
          className="shrink-0 whitespace-nowrap"
          onClick={() => setAll(!all)}
        >
          {all ? 'fewer' : restWords(rest.map(({ id }) => stateOf(id).state))}
        </Button>
      )}
    </section>
  );
}

/** `5 off, 2 not known`: what is folded away. */
function restWords(states: readonly CircuitPower['state'][]): string {
  const off = states.filter((state) => state === 'off').length;
  const unknown = states.length - off;
  return [off > 0 && `${off} off`, unknown > 0 && `${unknown} not known`].filter(Boolean).join(', ');
}

/** A stop at the box in hand; elsewhere the first box that is alive although its breakers are off. */
function StopChip({ boxId }: { boxId: string | undefined }) {
  const { job, known } = useJob();
  const { boxes } = useJobPower();
  const alive = boxes.find(({ stops }) => stops.some(({ code }) => code === 'live-while-off'));
  const own = boxes.find((box) => box.boxId === boxId && box.stops.length > 0);
  const shown = own ?? alive;
  const box = known.boxes.get(shown?.boxId ?? '');
  if (!shown || !box) return null;
  const live = shown.stops.some(({ code }) => code === 'live-while-off');
  return (
    <Link
      to={`${paths.box(job.id, box.id)}#stop`}
      className="flex min-h-11 shrink-0 items-center gap-2 rounded-md border-2 border-stop bg-sheet px-2.5 font-bold whitespace-nowrap text-stop"
    >
      <OctagonX aria-hidden className="size-6 shrink-0" />
      {live ? 'Live while off' : 'Stop'}
      {shown !== own && `: ${box.name}`}
    </Link>
  );
}

/** @param dead since when the box in hand is proved dead with its device out */
function CircuitState({
  circuit,
  power,
  feeding,
  dead,
}: {
  circuit: Circuit;
  power: CircuitPower;
  feeding: boolean;
  dead: string | null;
}) {
  return (
    <Popover className="relative shrink-0">
      <PopoverButton
        className={classes(
          'flex min-h-11 items-center gap-2 rounded-md border-2 px-2.5 text-left leading-tight',
          STATE_LOOK[power.state],
          feeding && 'bg-sheet font-semibold',
        )}
      >
        <PowerShape state={power.state} />
        <span className="whitespace-nowrap">
          {shortLabel(circuit)}: {power.state === 'unknown' ? 'not known' : power.state}
          {feeding && (
            <span className="block text-xs font-normal">
              {dead ? `proved dead ${timeOf(dead)}` : 'feeds this box'}
            </span>
          )}
        </span>
        <span className="sr-only">
          : breaker {circuit.breaker}, {circuit.label}
        </span>
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'bottom start', gap: 6, padding: 8 }}
        className="z-30 w-72 rounded-lg border border-rule bg-ground p-3 shadow-xl"
      >
        {({ close }) => <Switching circuit={circuit} power={power} onDone={close} />}
      </PopoverPanel>
    </Popover>
  );
}

/** `2 Lobby`: breaker and the first word or two of its label. */
function shortLabel({ breaker, label }: Circuit): string {
  const short = label.length > 14 ? label.split(/[ ,]/)[0] : label;
  return [breaker, short].filter(Boolean).join(' ');
}

const STATE_LOOK: Record<CircuitPower['state'], string> = {
  on: 'border-live text-live',
  off: 'border-off text-off',
  unknown: 'border-dashed border-edge text-ink',
};

/** What is on record of a breaker, and the touch that records its next switching. */
function Switching({
  circuit,
  power,
  onDone,
}: {
  circuit: Circuit;
  power: CircuitPower;
  onDone: () => void;
}) {
  const { job, apply } = useJob();
  const record = (event: Partial<JobEvent>, label: string) => {
    const id = newId();
    apply([putPart('event', id, { id, at: instant(), ...event })], label);
    onDone();
  };
  const last = lastSwitching(job, circuit.id);
  const leg = circuit.leg ? `, leg ${circuit.leg}` : '';
  const rating = `${circuit.panel} panel, ${circuit.amps} A, ${circuit.volts} V${leg}.`;
  return (
    <div className="flex flex-col gap-2">
      <p className="font-bold">
        Breaker {circuit.breaker}, {circuit.label}
      </p>
      <p className="text-sm text-soft">
        {rating} {power.since ? `Recorded ${power.state} ${timeOf(power.since)}.` : 'No switching recorded.'}
      </p>
      <div className="flex gap-2">
        {(['on', 'off'] as const).map((state) => (
          <Button
            key={state}
            // What comes next is the other state: what is off goes on, and all else is switched off.
            kind={(power.state === 'off') === (state === 'on') ? 'main' : 'plain'}
            className="flex-1"
            onClick={() =>
              record(
                { kind: 'switched', circuitId: circuit.id, state },
                `Breaker ${circuit.breaker} switched ${state}`,
              )
            }
          >
            Switched {state}
          </Button>
        ))}
      </div>
      {last?.id && (
        <Button
          kind="quiet"
          onClick={() =>
            record(
              { kind: 'correction', of: last.id as string, circuitId: circuit.id },
              `Correct the record of breaker ${circuit.breaker}`,
            )
          }
        >
          That was wrong: strike the last entry
        </Button>
      )}
      <p className="text-sm text-soft">
        Off on this record is not dead: isolate, lock, and prove dead at the box before touching anything.
      </p>
    </div>
  );
}
